/** The editor's settings for how a shot is framed in a version. */
import { z } from "zod";
import { Backdrop, USUAL_BACKDROP } from "../composition/backdrop";
import { Edge, PLAIN_EDGE } from "../composition/edge";
import { FILL, Layout } from "../composition/layout";
import { PANES } from "../composition/stack";
import { AttentionSettings, USUAL_ATTENTION } from "../subjects/attention/attention-settings";
import { FollowRule } from "../subjects/choosing/follow-rule";
import { isSame } from "../basics/structure";
import { MOVEMENTS } from "./movement";

/** Windows smaller than a quarter of the largest lack resolution at any size. */
export const MAX_ZOOM = 4;
/** Beyond this scale no picture is sharp. */
export const MOST_SCALE = 8;

const Factor = z.number().min(1).max(MAX_ZOOM);

/** How much smaller than the largest one the window is: a constant, or as the subject needs within limits. */
export const Zoom = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("fixed"), factor: Factor }),
  z.object({ kind: z.literal("free"), min: Factor, max: Factor }).refine(({ min, max }) => min <= max, {
    error: "The least zoom is no more than the most",
  }),
]);
export type Zoom = z.infer<typeof Zoom>;

export const MOVEMENT_CHOICES = ["auto", ...MOVEMENTS] as const;
export type MovementChoice = (typeof MOVEMENT_CHOICES)[number];

/** The end to keep of what is wider than the window; "auto" for the one with its head. */
export const END_CHOICES = ["auto", "left", "right"] as const;
export type EndChoice = (typeof END_CHOICES)[number];

/** Largest offset of the window from its subject, in windows. */
export const MOST_OFFSET = 0.5;
const Offset = z.number().min(-MOST_OFFSET).max(MOST_OFFSET);
/** Range of the eye line, in percent of the window's height from its top. */
export const EYE_LINE_RANGE = { least: 10, most: 70 } as const;

/** Movement and size of a pane's window. */
export const WindowSettings = z.object({
  /** Movement of the window; "auto" for what suits the subject. */
  movement: z.enum(MOVEMENT_CHOICES),
  /** 0 for as close to the subject as the movement allows, 100 for as calm; 50 is the movement's own. */
  calm: z.number().min(0).max(100),
  zoom: Zoom,
  /** Headroom to be kept free, in percent of the window's height. */
  headroom: z.number().min(0).max(40),
  /** Largest scale of the picture: a free zoom stops there, any other gets a flag. */
  largestScale: z.number().min(1).max(MOST_SCALE),
  keepEnd: z.enum(END_CHOICES),
  /** Height of the eye line, in percent of the window's height from its top. */
  eyeLine: z.number().min(EYE_LINE_RANGE.least).max(EYE_LINE_RANGE.most),
  /** Offset of the window to the right and downwards, in shares of its width and height. */
  offset: z.object({ x: Offset, y: Offset }),
});

/** Settings of a shot's second or third pane that differ from its first: its window, and whom it follows. */
export const PaneSettings = WindowSettings.partial().extend({ follow: FollowRule.optional() });
export type PaneSettings = z.infer<typeof PaneSettings>;

export const FramingSettings = WindowSettings.extend({
  layout: Layout,
  /** Of a shot's second and third pane; kept while its layout has fewer. */
  panes: z.array(PaneSettings).max(PANES.length - 1),
  /** Backdrop of a film that does not cover the frame. */
  backdrop: Backdrop,
  /** Edge of such a film. */
  edge: Edge,
  /** How attention switches. */
  ...AttentionSettings.shape,
});
export type FramingSettings = z.infer<typeof FramingSettings>;

/** Some of the settings: changes, or differences from the usual. */
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

/** The settings that several shots share. */
export function commonSettings(all: readonly FramingSettings[]): FramingChange {
  const [first, ...others] = all;
  if (!first) return {};
  return Object.fromEntries(
    Object.entries(first).filter(([key, value]) =>
      others.every((other) => isSame(other[key as keyof FramingSettings], value)),
    ),
  );
}
