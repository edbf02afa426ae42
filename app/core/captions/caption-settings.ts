/** Captions in a version: style, place, and rules of legibility. */
import { z } from "zod";
import { Colour } from "../composition/colour";
import { FAMILIES } from "../composition/layers/font-families";
import { LIMITS } from "../composition/layers/layer";
import { Id } from "../basics/ids";

const Percent = z.number().min(0).max(100);

/** Limits of legibility; a caption beyond one of them is flagged. */
export const CaptionRules = z.object({
  /** Lines per caption. */
  lines: z.int().min(1).max(4),
  /** Characters per line; as many as the version has room for if null. */
  lineLength: z.int().min(8).max(80).nullable(),
  /** Characters per second. */
  pace: z.number().min(5).max(60),
  /** Seconds that a caption lasts, at least and at most. */
  least: z.number().min(0.2).max(5),
  most: z.number().min(1).max(30),
  /** Seconds between a caption and the next, unless they touch. */
  gap: z.number().min(0).max(2),
});
export type CaptionRules = z.infer<typeof CaptionRules>;

export const CaptionSettings = z.object({
  /** Whether they are drawn on the picture. */
  burnt: z.boolean(),
  /** Whether an export has them in a sidecar file, and as a text track. */
  sidecar: z.boolean(),
  track: z.boolean(),
  family: z.enum(FAMILIES),
  /** Share of the frame's shorter side, as in text layers. */
  size: z.number().min(LIMITS.textSize[0]).max(LIMITS.textSize[1]),
  weight: z.int().min(200).max(900),
  colour: Colour,
  /** Box behind the text; none if null. */
  box: z.object({ colour: Colour, opacity: Percent, corner: Percent }).nullable(),
  outline: z.number().min(0).max(0.2),
  outlineColour: Colour,
  shadow: Percent,
  /** Colour of the word being spoken; null for none. */
  highlight: Colour.nullable(),
  /** Whether speakers are told apart by colour and by name or letter. */
  speakers: z.boolean(),
  /** Place in the safe area: 0 at its top, 1 at its foot; null for where they cover least. */
  place: z.number().min(0).max(1).nullable(),
  /** Places of captions that the editor has moved, by their ids. */
  places: z.record(Id, z.number().min(0).max(1)),
  rules: CaptionRules,
});
export type CaptionSettings = z.infer<typeof CaptionSettings>;

/** Plain text on a dark box; two lines at a pace that most people can follow. */
export const USUAL_CAPTIONS: CaptionSettings = {
  burnt: true,
  sidecar: false,
  track: false,
  family: "plain",
  size: 0.052,
  weight: 600,
  colour: "#ffffff",
  box: { colour: "#000000", opacity: 60, corner: 25 },
  outline: 0,
  outlineColour: "#000000",
  shadow: 0,
  highlight: null,
  speakers: false,
  place: null,
  places: {},
  rules: { lines: 2, lineLength: null, pace: 20, least: 0.8, most: 6, gap: 0.08 },
};
