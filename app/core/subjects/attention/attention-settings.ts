/** The editor's settings for how attention switches within a shot. */
import { z } from "zod";
import { TrackId } from "../../basics/ids";

/** How the window switches between subjects within a shot; "auto" for what suits their places. */
export const SWITCH_STYLES = ["auto", "cut", "pan"] as const;
export type SwitchStyle = (typeof SWITCH_STYLES)[number];

/** Range of the shortest stay, in seconds. */
export const SHORTEST_STAY = { least: 0.5, most: 20 } as const;

export const AttentionSettings = z.object({
  /** Shortest stay with a subject before the window switches to another, in seconds. */
  shortestStay: z.number().min(SHORTEST_STAY.least).max(SHORTEST_STAY.most),
  switchBy: z.enum(SWITCH_STYLES),
  /** Ids of people, and of tracks of marks, that have to be in the frame. */
  mustHave: z.array(TrackId).max(20),
});
export type AttentionSettings = z.infer<typeof AttentionSettings>;

/** Whether a track is of a required person or thing. */
export const isMust = ({ id, who }: { id: string; who?: string }, mustHave: readonly string[]): boolean =>
  mustHave.includes(id) || (who !== undefined && mustHave.includes(who));

/** The settings with a person or thing required, or no longer. */
export const withMust = (attention: AttentionSettings, id: string, isIn: boolean): AttentionSettings => ({
  ...attention,
  mustHave: [...attention.mustHave.filter((other) => other !== id), ...(isIn ? [id] : [])],
});

export const USUAL_ATTENTION: AttentionSettings = { shortestStay: 2, switchBy: "auto", mustHave: [] };
