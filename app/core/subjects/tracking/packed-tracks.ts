/** Tracks as they are stored and sent: boxes in tenths of a pixel, as differences from the one before. */
import { z } from "zod";
import type { Box } from "../../geometry/box";
import { TRACK_KINDS } from "../detecting/detection";
import { Words } from "../text/words";
import { FrameRange } from "../../time/rate";
import type { Track } from "./track";

/** Units per pixel of packed boxes. */
const PARTS = 10;

export const PackedTrack = z.object({
  id: z.string(),
  kind: z.enum(TRACK_KINDS),
  start: z.int(),
  /** For each frame 0 where it is not seen, else x, y, width and height as differences from the box before. */
  places: z.array(z.union([z.literal(0), z.tuple([z.int(), z.int(), z.int(), z.int()])])),
  confidence: z.number(),
  label: z.string().optional(),
  personId: z.string().optional(),
  who: z.string().optional(),
  signature: z.array(z.number()).optional(),
  sharpness: z.number().optional(),
  detailSide: z.number().optional(),
  held: z.literal(true).optional(),
  words: Words.optional(),
  mayBeSign: z.literal(true).optional(),
  speaking: z.array(FrameRange).optional(),
  acting: z.array(FrameRange).optional(),
  facing: z.array(z.object({ frame: z.int(), side: z.number() })).optional(),
});
export type PackedTrack = z.infer<typeof PackedTrack>;

type Place = [number, number, number, number];
const NOWHERE: Place = [0, 0, 0, 0];

const inParts = ({ x, y, width, height }: Box): Place =>
  [x, y, width, height].map((value) => Math.round(PARTS * value)) as Place;

/** Packs a track; boxes are rounded to a tenth of a pixel. Fields that are only needed during analysis are removed. */
export function packTrack(found: Track): PackedTrack {
  const { boxes, ...track } = found;
  delete track.mouth;
  let before = NOWHERE;
  const places = boxes.map((box) => {
    if (!box) return 0;
    const place = inParts(box);
    const differs = place.map((value, i) => value - before[i]!) as Place;
    before = place;
    return differs;
  });
  return { ...track, places };
}

/** Unpacks a track. */
export function unpackTrack({ places, ...track }: PackedTrack): Track {
  const at: Place = [...NOWHERE];
  const boxes = places.map((place): Box | null => {
    if (place === 0) return null;
    place.forEach((value, i) => (at[i]! += value));
    const [x, y, width, height] = at.map((value) => value / PARTS) as Place;
    return { x, y, width, height };
  });
  return { ...track, boxes };
}
