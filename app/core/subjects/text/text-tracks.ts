/** The text of a shot, from what was seen of its lines. */
import { type Box, boxUnion, grownBox, type Size, visiblePart } from "../../geometry/box";
import { clipRanges } from "../../time/ranges";
import { framesIn, type FrameRange, inRange } from "../../time/rate";
import type { FrameDetections } from "../detecting/detection";
import type { Track } from "../tracking/track";
import type { SeenText } from "./text-watch";

/** Greatest distance between words and lines of one text, relative to their height. */
const APART = 1.3;
/** Share of the longer one for which two lines of one text are there together. */
const TOGETHER = 0.6;
/** Margin around text, as a share of a line's least height, for outlines and shadows. */
const ROOM = 0.1;
/** Share of a shot for which a line that may be a sign has to be there. */
const MOST_OF_SHOT = 0.9;
/** Share of a picture's edges that the lines of a card have: there is nothing else to be seen. */
const CARD = 0.5;
/** Height of a picture below which a name is laid, its largest height, and the width and height of corners. */
const LOWER_THIRD = 0.62;
const NAME_HEIGHT = 0.25;
const CORNER = { width: 0.25, height: 0.2 };

interface Line extends FrameRange {
  box: Box;
  over: boolean;
  ofPicture: number;
}

/** Whether a box lies where names and marks of stations are laid. */
function isTypical({ x, y, width, height }: Box, picture: Size): boolean {
  const [right, bottom] = [x + width, y + height];
  const isName = y >= LOWER_THIRD * picture.height && height <= NAME_HEIGHT * picture.height;
  const isAside = right <= CORNER.width * picture.width || x >= (1 - CORNER.width) * picture.width;
  const isOuter = bottom <= CORNER.height * picture.height || y >= (1 - CORNER.height) * picture.height;
  return isName || (isAside && isOuter);
}

/** The lines of a shot, by all that is known of each, also from later frames. */
function linesOf(frames: readonly FrameDetections[], shot: FrameRange): Line[] {
  const known = new Map<number, SeenText>();
  const inShot = new Set<number>();
  for (const { frame, texts = [] } of frames) {
    for (const text of texts) {
      if (frame >= shot.start) known.set(text.id, text);
      if (inRange(frame, shot) && (text.until === undefined || text.until >= shot.start)) inShot.add(text.id);
    }
  }
  return [...inShot].map((id) => {
    const { box, since = shot.start, until = shot.end - 1, over = false, ofPicture } = known.get(id)!;
    return { box, over, ofPicture, start: Math.max(since, shot.start), end: Math.min(until + 1, shot.end) };
  });
}

/** Whether two lie side by side or one above the other, not much further apart than the lower one is high. */
function areNear(a: Box, b: Box): boolean {
  const reach = APART * Math.min(a.height, b.height);
  const below = Math.max(a.y, b.y) - Math.min(a.y + a.height, b.y + b.height);
  const aside = Math.max(a.x, b.x) - Math.min(a.x + a.width, b.x + b.width);
  return (below <= reach && aside < 0) || (below < 0 && aside <= reach);
}

const areTogether = (a: FrameRange, b: FrameRange): boolean =>
  framesIn(clipRanges([a], b)) >= TOGETHER * Math.max(a.end - a.start, b.end - b.start);

/** Joins lines near one another that are there at the same time. */
function blocksOf(lines: readonly Line[]): Line[][] {
  let blocks: Line[][] = [];
  for (const line of lines) {
    const isOf = (block: Line[]) => block.some((other) => areNear(line.box, other.box) && areTogether(line, other));
    const near = blocks.filter(isOf);
    blocks = [...blocks.filter((block) => !near.includes(block)), [line, ...near.flat()]];
  }
  return blocks;
}

/**
 * The text over a shot, as tracks that stay in place. Where nothing told text over the picture from a sign in it, text
 * that is there throughout counts if it is all there is to be seen or lies where names are laid; it may be a sign.
 * @param frames of the shot, and later ones
 */
export function textTracks(frames: readonly FrameDetections[], shot: FrameRange, picture: Size): Track[] {
  const lines = linesOf(frames, shot).filter(({ start, end }) => end > start);
  const standing = lines.filter(
    ({ over, start, end }) => !over && end - start >= MOST_OF_SHOT * (shot.end - shot.start),
  );
  const isCard = standing.reduce((sum, { ofPicture }) => sum + ofPicture, 0) >= CARD;
  const over = lines.filter((line) => line.over);
  const others = lines.filter((line) => !line.over);
  // A line lies over the picture where another line of the same text does.
  const isOfOver = (line: Line) => over.some((other) => areNear(line.box, other.box) && areTogether(line, other));
  const mayBeOver = (line: Line) => standing.includes(line) && (isCard || isTypical(line.box, picture));
  const blocks = blocksOf([...over, ...others.filter((line) => isOfOver(line) || mayBeOver(line))]);
  return blocks.map((block, i): Track => {
    const all = boxUnion(block.map(({ box }) => box));
    const room = ROOM * Math.min(...block.map(({ box }) => box.height));
    const box = visiblePart(grownBox(all, room), picture);
    const start = Math.min(...block.map((line) => line.start));
    const end = Math.max(...block.map((line) => line.end));
    return {
      id: `s${shot.start}-text-${i + 1}`,
      kind: "text",
      start,
      boxes: Array.from({ length: end - start }, () => box),
      confidence: 1,
      ...(!isCard && block.every((line) => !line.over) && { mayBeSign: true as const }),
    };
  });
}
