/** What lies above the panes of a version: texts, shapes and pictures. */
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
/** Of the side that it is measured against; a layer may be larger than the frame, but not without end. */
const Share = ([least, most]: readonly [number, number]) => z.number().min(least).max(most);

/** How a layer's colours meet what is below: instead of it, darkening it as a slide on a slide does, or lightening it. */
export const BLENDS = ["normal", "multiply", "screen"] as const;
export type Blend = (typeof BLENDS)[number];

/** How a layer comes and goes. */
export const PASSAGES = ["cut", "fade", "slide"] as const;
export type Passage = (typeof PASSAGES)[number];

/** Steps of a layer's place are shares of the room that is left beside it, of which there may be little. */
export const MOST_PLACE = 50;

/** Least and most of what a layer can be made as large as. */
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
  /** Frames of the film in which it is there; null for all that is shown. */
  range: FrameRange.nullable(),
  /** Where it stands in the safe area: 0 is flush with its left or top, 1 with its right or foot. */
  x: Place,
  y: Place,
  opacity: Percent,
  arrives: z.enum(PASSAGES),
  leaves: z.enum(PASSAGES),
  blend: z.enum(BLENDS).default("normal"),
  /** How far it is out of focus; 0 for sharp. */
  softness: Percent.default(0),
});

export const MOST_TEXT = 500;

export const TextLayer = Common.extend({
  kind: z.literal("text"),
  text: z.string().max(MOST_TEXT),
  family: z.enum(FAMILIES),
  /** Of the editor's own, in the place of the family. */
  font: OwnFont.nullable().default(null),
  /** Height of its letters with what is above and below them (em), as a share of the frame's shorter side. */
  size: Share(LIMITS.textSize),
  weight: z.int().min(200).max(900),
  colour: Colour,
  align: z.enum(["left", "centre", "right"]),
  /** Where lines end, as a share of the safe area's width. */
  width: Share(LIMITS.textWidth),
  /** Around each letter, in em; none if 0. */
  outline: Share([0, 0.2]),
  outlineColour: Colour,
  /** How dark its shadow is; none if 0. */
  shadow: Percent,
  /** What it stands on; nothing if null. */
  box: z.object({ colour: Colour, opacity: Percent, corner: Percent }).nullable(),
  /** Whether its letters get smaller until it fits into the safe area. */
  shrinks: z.boolean(),
  /** Letters of it, from the first to the one after the last, that have a colour of their own. */
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
  /** As a share of the frame's shorter side, so that it is the same beside a text in any shape. */
  height: Share(LIMITS.shapeHeight),
  /** How round its corners are. */
  corner: Percent,
});
export type ShapeLayer = z.infer<typeof ShapeLayer>;

export const PictureLayer = Common.extend({
  kind: z.literal("picture"),
  picture: Picture,
  /** Of one that moves. */
  playback: Playback.default(USUAL_PLAYBACK),
  /** As a share of the frame's shorter side. */
  width: Share(LIMITS.pictureWidth),
  /** How round its corners are. */
  corner: Percent,
});
export type PictureLayer = z.infer<typeof PictureLayer>;

export const Layer = z.discriminatedUnion("kind", [TextLayer, ShapeLayer, PictureLayer]);
export type Layer = z.infer<typeof Layer>;

/** No version has more. */
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

/** A text as it is when it is added: a title in the upper third. */
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

/** A bar across the frame, as it is when it is added. */
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

/** A box, as it is when it is added. */
export const newBox = (id: string): ShapeLayer => ({
  ...newBar(id),
  width: 0.4,
  height: 0.4,
  corner: 0,
  y: 0.5,
  opacity: 100,
});

/** A picture as it is when it is added: a logo in a corner. */
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

/** Letters of a text by which it is told from others. */
const NAMED_BY = 30;

/** What a layer is called in a list: "text “Ferrow”". */
export function nameOfLayer(layer: Layer): string {
  if (layer.kind === "shape") return t.bar;
  if (layer.kind === "picture") return t.picture(layer.picture.name);
  const line = layer.text.trim().replace(/\s+/g, " ");
  return t.text(line.length > NAMED_BY ? `${line.slice(0, NAMED_BY)}…` : line);
}
