/** Several panes that divide a frame. */
import { clamped } from "../numbers/clamped";
import { z } from "zod";
import type { Box, Size } from "../geometry/box";
import { even } from "../geometry/frame-shapes";
import { Colour } from "./colour";
import { Picture, Playback, USUAL_PLAYBACK } from "./picture";

/** Numbers of the panes of a shot; the first shows what the shot itself follows. */
export const PANES = [0, 1, 2] as const;
export const PaneNumber = z
  .int()
  .min(0)
  .max(PANES.length - 1);

/** Smallest share of the frame of a pane. */
export const LEAST_SHARE = 0.12;
/** Widest gap, as a share of the frame's longer side. */
export const MOST_GAP = 0.06;

/** Strongest zoom into a picture in a pane. */
export const MOST_PANE_ZOOM = 4;
const Share = z.number().min(0).max(1);

/** One of the editor's own pictures in a pane, instead of the film. */
export const PanePicture = z.object({
  picture: Picture,
  playback: Playback,
  /** 1 for as much of it as fills the pane; then the place of that part, as in `filledPart`. */
  zoom: z.number().min(1).max(MOST_PANE_ZOOM),
  x: Share,
  y: Share,
  /** Whether its sound is heard. */
  sounds: z.boolean(),
});
export type PanePicture = z.infer<typeof PanePicture>;

/** A picture newly put into a pane. */
export const newPanePicture = (picture: Picture): PanePicture => ({
  picture,
  playback: { ...USUAL_PLAYBACK, loops: false },
  zoom: 1,
  x: 0.5,
  y: 0.5,
  sounds: false,
});

const Place = z.object({
  pane: PaneNumber,
  /** The pane's share of the frame, relative to the others. */
  share: z.number().min(LEAST_SHARE).max(1),
  /** Shown instead of the film. */
  own: PanePicture.optional(),
});

export const Stack = z.object({
  kind: z.literal("stack"),
  /** From top to foot, or from left to right in a frame that is wider than high. */
  places: z
    .array(Place)
    .min(2)
    .max(PANES.length)
    .refine((places) => PANES.slice(0, places.length).every((pane) => places.some((place) => place.pane === pane)), {
      error: "The panes of a stack are the first two, or all three, each once",
    })
    .refine((places) => !places.some(({ pane, own }) => pane === 0 && own), {
      error: "The first pane of a stack shows the film",
    }),
  gap: z.number().min(0).max(MOST_GAP),
  /** Colour of the gap. */
  colour: Colour,
  /** Whether the film is muted in this shot. */
  muted: z.boolean().optional(),
});
export type Stack = z.infer<typeof Stack>;

/** Two panes of equal size. */
export const STACK: Stack = {
  kind: "stack",
  places: [
    { pane: 0, share: 0.5 },
    { pane: 1, share: 0.5 },
  ],
  gap: 0,
  colour: "#101216",
};

/** The side along which a frame is divided. */
export const dividedSide = ({ width, height }: Size): "width" | "height" => (width > height ? "width" : "height");

/** Borders of a stack's panes along the divided side, 0 to 1: one more than there are panes. */
export function bordersOf({ places }: Pick<Stack, "places">): number[] {
  const sum = places.reduce((all, { share }) => all + share, 0);
  let before = 0;
  return [0, ...places.map(({ share }) => (before += share) / sum)];
}

/**
 * Box of each pane in a frame, in its pixels, in the order of places. They meet on even pixels, so that each luma and
 * chroma sample belongs to one pane.
 */
export function placeBoxes(stack: Stack, frame: Size): Box[] {
  const side = dividedSide(frame);
  const between = even(stack.gap * Math.max(frame.width, frame.height));
  const room = frame[side] - between * (stack.places.length - 1);
  const borders = bordersOf(stack).map((border) => even(border * room));
  return stack.places.map((_, i) => {
    const length = borders[i + 1]! - borders[i]!;
    const at = borders[i]! + i * between;
    return side === "height"
      ? { x: 0, y: at, width: frame.width, height: length }
      : { x: at, y: 0, width: length, height: frame.height };
  });
}

/** Box of each pane in a frame, in its pixels, by pane number. */
export function stackBoxes(stack: Stack, frame: Size): Box[] {
  const boxes = placeBoxes(stack, frame);
  return stack.places.map((_, pane) => boxes[stack.places.findIndex((place) => place.pane === pane)]!);
}

/**
 * A stack with the border after a place moved along the divided side, 0 to 1; the two panes beside it keep their sum, and
 * each its least share.
 */
export function withBorder(stack: Stack, place: number, at: number): Stack {
  const borders = bordersOf(stack);
  borders[place + 1] = clamped(at, borders[place]! + LEAST_SHARE, borders[place + 2]! - LEAST_SHARE);
  // No less than the least, however the difference is rounded.
  const shareOf = (i: number) => Math.max(LEAST_SHARE, borders[i + 1]! - borders[i]!);
  return { ...stack, places: stack.places.map((one, i) => ({ ...one, share: shareOf(i) })) };
}

/** A stack with the panes at two places swapped, along with their content. */
export const withSwapped = (stack: Stack, place: number): Stack => ({
  ...stack,
  places: stack.places.map((one, i) => {
    const other = i === place ? i + 1 : i === place + 1 ? place : i;
    const { share } = one;
    return { ...stack.places[other]!, share };
  }),
});

/** A stack with a number of panes of equal size. */
export const withPanes = (stack: Stack, count: number): Stack => ({
  ...stack,
  places: PANES.slice(0, count).map((pane) => {
    const own = ownIn(stack, pane);
    return { pane, share: 1 / count, ...(own ? { own } : {}) };
  }),
});

/** What a pane shows instead of the film; null where it shows the film. */
export const ownIn = ({ places }: Pick<Stack, "places">, pane: number): PanePicture | null =>
  places.find((place) => place.pane === pane)?.own ?? null;

/** Whether the film is muted: only where something else can be heard instead. */
export const isSilent = ({ places, muted }: Pick<Stack, "places" | "muted">): boolean =>
  muted === true && places.some(({ own }) => own);

/** A stack in which a pane shows a picture, or the film if that is null. */
export const withOwn = (stack: Stack, pane: number, own: PanePicture | null): Stack => ({
  ...stack,
  places: stack.places.map((place) => {
    if (place.pane !== pane) return place;
    const { share } = place;
    return { pane, share, ...(own ? { own } : {}) };
  }),
});
