/** Layers above the panes of a version: texts, shapes and pictures. */
import { z } from "zod";
import { Id } from "../../basics/ids";
import { FrameRange } from "../../time/rate";
import { Colour } from "../colour";
import { Picture, Playback, USUAL_PLAYBACK } from "../picture";
import { FAMILIES } from "./font-families";
import { OwnFont } from "./own-font";
import { shapesTexts } from "../../../texts/shapes";

const t = shapesTexts.layer;

const Percent = z.number().min(0).max(100);
/** Share of the side that it is measured against; a layer may be larger than the frame, within limits. */
const Share = ([least, most]: readonly [number, number]) => z.number().min(least).max(most);

/** Blend mode: normal, darkening as two slides on one another do, or lightening. */
export const BLENDS = ["normal", "multiply", "screen"] as const;
export type Blend = (typeof BLENDS)[number];

/** How a layer appears and disappears. */
export const PASSAGES = ["cut", "fade", "slide"] as const;
export type Passage = (typeof PASSAGES)[number];

/** Bound of a layer's place, which is a share of the room left beside it and large where that is small. */
export const MOST_PLACE = 50;

/** Smallest and largest sizes of layers. */
export const LIMITS = {
  textSize: [0.01, 0.6],
  textWidth: [0.05, 2],
  shapeWidth: [0.005, 2],
  shapeHeight: [0.002, 4],
  pictureWidth: [0.01, 4],
} as const;
const Place = z.number().min(-MOST_PLACE).max(MOST_PLACE);

const Common = z.object({
  id: Id,
  /** Frames of the film in which it is visible; null for everything shown. */
  range: FrameRange.nullable(),
  /** Place in the safe area: 0 is flush with its left or top, 1 with its right or foot. */
  x: Place,
  y: Place,
  opacity: Percent,
  arrives: z.enum(PASSAGES),
  leaves: z.enum(PASSAGES),
  blend: z.enum(BLENDS).default("normal"),
  /** Blur; 0 for sharp. */
  softness: Percent.default(0),
});

export const MOST_TEXT = 500;

export const TextLayer = Common.extend({
  kind: z.literal("text"),
  text: z.string().max(MOST_TEXT),
  family: z.enum(FAMILIES),
  /** One of the editor's own fonts, instead of the family. */
  font: OwnFont.nullable().default(null),
  /** Font size (em), as a share of the frame's shorter side. */
  size: Share(LIMITS.textSize),
  weight: z.int().min(200).max(900),
  colour: Colour,
  align: z.enum(["left", "centre", "right"]),
  /** Line width, as a share of the safe area's width. */
  width: Share(LIMITS.textWidth),
  /** Width around each character, in em; 0 for none. */
  outline: Share([0, 0.2]),
  outlineColour: Colour,
  /** Darkness of its shadow; 0 for none. */
  shadow: Percent,
  /** Box behind it; null for none. */
  box: z.object({ colour: Colour, opacity: Percent, corner: Percent }).nullable(),
  /** Whether the font shrinks until the text fits the safe area. */
  shrinks: z.boolean(),
  /** Range of characters, from the first to the one after the last, with a colour of their own. */
  highlight: z
    .object({ from: z.int().min(0), to: z.int().min(0), colour: Colour })
    .nullable()
    .default(null),
});
export type TextLayer = z.infer<typeof TextLayer>;

export const ShapeLayer = Common.extend({
  kind: z.literal("shape"),
  colour: Colour,
  /** As a share of the frame's width. */
  width: Share(LIMITS.shapeWidth),
  /** As a share of the frame's shorter side, so that it keeps its size beside a text in any aspect ratio. */
  height: Share(LIMITS.shapeHeight),
  /** Roundness of its corners. */
  corner: Percent,
});
export type ShapeLayer = z.infer<typeof ShapeLayer>;

export const PictureLayer = Common.extend({
  kind: z.literal("picture"),
  picture: Picture,
  /** Playback of a moving picture. */
  playback: Playback.default(USUAL_PLAYBACK),
  /** As a share of the frame's shorter side. */
  width: Share(LIMITS.pictureWidth),
  /** Roundness of its corners. */
  corner: Percent,
});
export type PictureLayer = z.infer<typeof PictureLayer>;

export const Layer = z.discriminatedUnion("kind", [TextLayer, ShapeLayer, PictureLayer]);
export type Layer = z.infer<typeof Layer>;

/** Most layers of a version. */
export const MOST_LAYERS = 100;
/** From back to front. */
export const Layers = z.array(Layer).max(MOST_LAYERS);

const AT_FIRST: Omit<z.infer<typeof Common>, "id" | "x" | "y"> = {
  range: null,
  opacity: 100,
  arrives: "fade",
  leaves: "fade",
  blend: "normal",
  softness: 0,
};

/** A new text layer: a title in the upper third. */
export const newText = (id: string, text: string): TextLayer => ({
  ...AT_FIRST,
  id,
  kind: "text",
  text,
  family: "display",
  font: null,
  size: 0.1,
  weight: 700,
  colour: "#ffffff",
  align: "centre",
  x: 0.5,
  y: 0.12,
  width: 1,
  outline: 0,
  outlineColour: "#000000",
  shadow: 60,
  box: null,
  shrinks: true,
  highlight: null,
});

/** A new bar across the frame. */
export const newBar = (id: string): ShapeLayer => ({
  ...AT_FIRST,
  id,
  kind: "shape",
  colour: "#101216",
  width: 0.9,
  height: 0.16,
  corner: 20,
  x: 0.5,
  y: 0.9,
  opacity: 80,
});

/** A new box. */
export const newBox = (id: string): ShapeLayer => ({
  ...newBar(id),
  width: 0.4,
  height: 0.4,
  corner: 0,
  y: 0.5,
  opacity: 100,
});

/** A new picture layer: a logo in a corner. */
export const newPicture = (id: string, picture: Picture): PictureLayer => ({
  ...AT_FIRST,
  id,
  kind: "picture",
  picture,
  playback: USUAL_PLAYBACK,
  width: 0.3,
  corner: 0,
  x: 1,
  y: 0,
});

/** Characters of a text that its name in lists shows. */
const NAMED_BY = 30;

/** Name of a layer in lists: "text “Ferrow”". */
export function nameOfLayer(layer: Layer): string {
  if (layer.kind === "shape") return t.bar;
  if (layer.kind === "picture") return t.picture(layer.picture.name);
  const line = layer.text.trim().replace(/\s+/g, " ");
  return t.text(line.length > NAMED_BY ? `${line.slice(0, NAMED_BY)}…` : line);
}
