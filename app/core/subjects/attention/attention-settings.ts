/** What the editor can say of how attention passes on within a shot. */
import { z } from "zod";
import { TrackId } from "../../basics/ids";

/** How the window gets from one subject to the next within a shot; "auto" for what suits where they are. */
export const SWITCH_STYLES = ["auto", "cut", "pan"] as const;
export type SwitchStyle = (typeof SWITCH_STYLES)[number];

/** Seconds for which the window may be asked to stay at least. */
export const SHORTEST_STAY = { least: 0.5, most: 20 } as const;

export const AttentionSettings = z.object({
  /** How long the window stays with a subject at least before it goes over to another, in seconds. */
  shortestStay: z.number().min(SHORTEST_STAY.least).max(SHORTEST_STAY.most),
  switchBy: z.enum(SWITCH_STYLES),
  /** Ids of people, and of the tracks of what is marked, that have to be in the picture. */
  mustHave: z.array(TrackId).max(20),
});
export type AttentionSettings = z.infer<typeof AttentionSettings>;

/** Whether a track is of somebody or something that has to be in the picture. */
export const isMust = ({ id, who }: { id: string; who?: string }, mustHave: readonly string[]): boolean =>
  mustHave.includes(id) || (who !== undefined && mustHave.includes(who));

/** The same with somebody or something having to be in the picture, or not. */
export const withMust = (attention: AttentionSettings, id: string, isIn: boolean): AttentionSettings => ({
  ...attention,
  mustHave: [...attention.mustHave.filter((other) => other !== id), ...(isIn ? [id] : [])],
});

export const USUAL_ATTENTION: AttentionSettings = { shortestStay: 2, switchBy: "auto", mustHave: [] };
