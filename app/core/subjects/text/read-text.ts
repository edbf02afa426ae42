/** A text's words and exact place, from the lines that were read near it in a full-size picture. */
import {
  type Box,
  boxArea,
  boxCentre,
  boxUnion,
  clipBox,
  grownBox,
  intersectionArea,
  type Size,
} from "../../geometry/box";
import type { Track } from "../tracking/track";
import type { Reading } from "./decode-letters";
import type { LineColours } from "./line-colours";
import type { Words } from "./words";

/** Certainty of a reading below which it is none: leaves and stripes are read as something, too. */
const SURE = 0.7;
/** Share of a line within a text's box at which it is one of its lines. */
const OF_TEXT = 0.5;
/** Margin around lines, as a share of their height, for outlines and shadows. */
const ROOM = 0.1;

/** A line that was read, in pixels of the film. */
export interface ReadLine extends Reading, LineColours {
  box: Box;
}

/** The part of the picture to be searched for a text's lines: a small picture shows some of it, too faintly to be found. */
export const aroundText = (box: Box): Box => grownBox(box, 0.6 * box.height);

/** Lines from the top; those side by side are one, from the left. */
function inRows(lines: readonly ReadLine[]): ReadLine[][] {
  const rows: [ReadLine, ...ReadLine[]][] = [];
  for (const line of [...lines].sort((a, b) => a.box.y - b.box.y)) {
    const row = rows.find(([{ box }]) => boxCentre(line.box).y < box.y + box.height);
    if (row) row.push(line);
    else rows.push([line]);
  }
  return rows.map((row) => row.sort((a, b) => a.box.x - b.box.x));
}

/**
 * A text track with what was read near it.
 * @param picture size of the film's, which the margin around the lines does not leave
 * @returns null where it is no text: no line is found in a full-size picture, or it may be a sign and none can be read
 */
export function withReading(track: Track, read: readonly ReadLine[], picture: Size): Track | null {
  const box = track.boxes[0]!;
  const beside = grownBox(box, box.height / 4);
  const found = read.filter(
    (line) => intersectionArea(line.box, beside) >= OF_TEXT * Math.min(boxArea(line.box), boxArea(beside)),
  );
  const lines = found.filter(({ sure, text }) => sure >= SURE && text !== "");
  if (lines.length === 0) return found.length === 0 || track.mayBeSign ? null : track;
  const [largest] = [...lines].sort((a, b) => b.box.height - a.box.height);
  const place = clipBox(grownBox(boxUnion(lines.map((line) => line.box)), ROOM * largest!.box.height), picture);
  const placed = { ...track, boxes: track.boxes.map(() => place) };
  const known = lines.filter(({ isKnown }) => isKnown);
  if (known.length === 0) return placed;
  const words: Words = {
    lines: inRows(known).map((row) => row.map(({ text }) => text).join(" ")),
    ink: largest!.ink,
    ground: largest!.ground,
    ...(known.length < found.length && { isPart: true as const }),
  };
  return { ...placed, words };
}
