/** How captions are in a version: what they look like, where they stand, by which rules they are read easily. */
import { z } from "zod";
import { Colour } from "../composition/colour";
import { FAMILIES } from "../composition/layers/font-families";
import { LIMITS } from "../composition/layers/layer";
import { Id } from "../basics/ids";

const Percent = z.number().min(0).max(100);

/** What a viewer can read; a caption that breaks one of these is told. */
export const CaptionRules = z.object({
  /** Lines of a caption. */
  lines: z.int().min(1).max(4),
  /** Letters of a line; as many as the version has room for if null. */
  lineLength: z.int().min(8).max(80).nullable(),
  /** Letters a second. */
  pace: z.number().min(5).max(60),
  /** Seconds that a caption lasts. */
  least: z.number().min(0.2).max(5),
  most: z.number().min(1).max(30),
  /** Seconds between a caption and the next, where they do not touch. */
  gap: z.number().min(0).max(2),
});
export type CaptionRules = z.infer<typeof CaptionRules>;

export const CaptionSettings = z.object({
  /** Whether they are drawn on the picture. */
  burnt: z.boolean(),
  /** Whether an export has them in a file beside it, and as a track of text. */
  sidecar: z.boolean(),
  track: z.boolean(),
  family: z.enum(FAMILIES),
  /** As a text layer's: of the frame's shorter side. */
  size: z.number().min(LIMITS.textSize[0]).max(LIMITS.textSize[1]),
  weight: z.int().min(200).max(900),
  colour: Colour,
  /** What the letters stand on; nothing if null. */
  box: z.object({ colour: Colour, opacity: Percent, corner: Percent }).nullable(),
  outline: z.number().min(0).max(0.2),
  outlineColour: Colour,
  shadow: Percent,
  /** Colour of the word that is being said; null for none. */
  highlight: Colour.nullable(),
  /** Whether several speakers are told apart by a colour and their name or letter. */
  speakers: z.boolean(),
  /** How far down the safe area they stand, 0 to 1; null for where they cover least. */
  place: z.number().min(0).max(1).nullable(),
  /** The same of captions that the editor has moved, by their ids. */
  places: z.record(Id, z.number().min(0).max(1)),
  rules: CaptionRules,
});
export type CaptionSettings = z.infer<typeof CaptionSettings>;

/** Quiet letters on a dark ground; two lines at a pace that most people can follow. */
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
