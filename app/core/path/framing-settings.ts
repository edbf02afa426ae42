/** What the editor can set for how a shot is framed in a version. */
import { z } from "zod";
import { Backdrop, USUAL_BACKDROP } from "../composition/backdrop";
import { Edge, PLAIN_EDGE } from "../composition/edge";
import { FILL, Layout } from "../composition/layout";
import { PANES } from "../composition/stack";
import { AttentionSettings, USUAL_ATTENTION } from "../subjects/attention/attention-settings";
import { FollowRule } from "../subjects/choosing/follow-rule";
import { isSame } from "../basics/structure";
import { MOVEMENTS } from "./movement";

/** Windows smaller than a quarter of the largest show nothing well at any resolution. */
export const MAX_ZOOM = 4;
/** Nobody enlarges a picture more than this and finds it sharp. */
export const MOST_SCALE = 8;

const Factor = z.number().min(1).max(MAX_ZOOM);

/** How much smaller than the largest one the window is: always the same, or as the subject asks within limits. */
export const Zoom = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("fixed"), factor: Factor }),
  z.object({ kind: z.literal("free"), min: Factor, max: Factor }).refine(({ min, max }) => min <= max, {
    error: "The least zoom is no more than the most",
  }),
]);
export type Zoom = z.infer<typeof Zoom>;

export const MOVEMENT_CHOICES = ["auto", ...MOVEMENTS] as const;
export type MovementChoice = (typeof MOVEMENT_CHOICES)[number];

/** Of what is wider than the window, the end that is kept; "auto" for the one with its head. */
export const END_CHOICES = ["auto", "left", "right"] as const;
export type EndChoice = (typeof END_CHOICES)[number];

/** How far the window may stand beside what it follows, in windows. */
export const MOST_OFFSET = 0.5;
const Offset = z.number().min(-MOST_OFFSET).max(MOST_OFFSET);
/** Where eyes may be asked to be, in percent of the window's height from its top. */
export const EYE_LINE_RANGE = { least: 10, most: 70 } as const;

/** How the window of a pane moves, and how large it is. */
export const WindowSettings = z.object({
  /** How the window moves; "auto" for what suits the subject. */
  movement: z.enum(MOVEMENT_CHOICES),
  /** 0 for as close to the subject as the movement goes, 100 for as calm; 50 is the movement's own. */
  calm: z.number().min(0).max(100),
  zoom: Zoom,
  /** Share of the window's height that is kept free above a head, in percent. */
  headroom: z.number().min(0).max(40),
  /** How many times its size the picture may be enlarged: a free zoom stops there, any other gets a flag. */
  largestScale: z.number().min(1).max(MOST_SCALE),
  keepEnd: z.enum(END_CHOICES),
  /** Where eyes belong, in percent of the window's height from its top. */
  eyeLine: z.number().min(EYE_LINE_RANGE.least).max(EYE_LINE_RANGE.most),
  /** How far right of and below where it would be the window stands, in shares of its width and height. */
  offset: z.object({ x: Offset, y: Offset }),
});

/** What a shot's second or third pane has that differs from its first: its window, and whom it follows. */
export const PaneSettings = WindowSettings.partial().extend({ follow: FollowRule.optional() });
export type PaneSettings = z.infer<typeof PaneSettings>;

export const FramingSettings = WindowSettings.extend({
  layout: Layout,
  /** Of a shot's second and third pane; they stay while its layout has fewer. */
  panes: z.array(PaneSettings).max(PANES.length - 1),
  /** Behind a film that does not cover the frame. */
  backdrop: Backdrop,
  /** Of such a film. */
  edge: Edge,
  /** How attention passes on. */
  ...AttentionSettings.shape,
});
export type FramingSettings = z.infer<typeof FramingSettings>;

/** Some of the settings: what is changed, or what differs from the usual. */
export const FramingChange = FramingSettings.partial();
export type FramingChange = z.infer<typeof FramingChange>;

export const USUAL_FRAMING: FramingSettings = {
  movement: "auto",
  calm: 50,
  zoom: { kind: "fixed", factor: 1 },
  headroom: 8,
  largestScale: 1.5,
  keepEnd: "auto",
  eyeLine: 33,
  offset: { x: 0, y: 0 },
  layout: FILL,
  panes: [],
  backdrop: USUAL_BACKDROP,
  edge: PLAIN_EDGE,
  ...USUAL_ATTENTION,
};

/** What several shots have in common. */
export function commonSettings(all: readonly FramingSettings[]): FramingChange {
  const [first, ...others] = all;
  if (!first) return {};
  return Object.fromEntries(
    Object.entries(first).filter(([key, value]) =>
      others.every((other) => isSame(other[key as keyof FramingSettings], value)),
    ),
  );
}
