/**
 * Follows lines of text through pictures: since when and until when each is there, and whether it is laid over the picture
 * or part of what is shown.
 */
import { type Box, boxArea, grownBox, intersectionArea, type Point, wholeOf } from "../../geometry/box";
import type { GreyPlane } from "../../image/grey-plane";
import { type EdgeTemplate, edgeTemplate, keepCommon, presenceNearby, presenceOf } from "./edge-template";
import { standsAround } from "./standing";

/** Pictures that are kept to find out when a line came up: some three seconds. */
const KEPT_PICTURES = 48;
/** Opacity above which a line is there; and, above what is behind it, from which it can be seen. */
const THERE = 0.5;
const SEEN = 0.15;
/** Opacity of a line that has not moved by a sample. */
const UNMOVED = 0.8;
/** Share of the edges around a line below which they have moved, and the fewest that tell. */
const MOVED = 0.4;
const TELLING = 60;
/** Samples by which a camera has clearly moved. */
const CAMERA_MOVED = 2;
/** Looks at which a line stays while what surrounds it moves, for it to lie over the picture. */
const SURE_LOOKS = 2;
/** Pictures without a line after which it is gone, unless it comes back within so many: something passing may hide it. */
const GONE = 5;
const MISSED = 15;
/** Least share of the edges in a line's box that are its own; fewer stay by chance where it moves. */
const LEAST_KEPT = 0.4;
/** Fewest edges of a line. */
const LEAST_EDGES = 20;
/** Share of the smaller box within which two are of the same line. */
const SAME_SHARE = 0.6;
/** Most lines that are remembered. */
const MOST_LINES = 40;

/** A line of text, as far as it is known at a look. */
export interface SeenText {
  /** The same in all looks at one line. */
  id: number;
  box: Box;
  /** The frame in which it came up, where that was seen. */
  since?: number;
  /** Its last frame, where it is gone or hidden. */
  until?: number;
  /** Laid over the picture: it stays while the picture moves, or comes up or goes while the picture stands. */
  over?: true;
  /** Least share of the edges of a picture that it has had, by the squares of their strengths. */
  ofPicture: number;
}

interface Picture {
  frame: number;
  luma: GreyPlane;
  /** Where the camera has moved to since the first picture, in samples. */
  camera: Point;
}

interface Line {
  seen: SeenText;
  template: EdgeTemplate;
  /** What surrounds it, up to several distances; left out where it has too few edges to tell anything. */
  around: EdgeTemplate[];
  foundIn: Picture;
  /** Whether its edges have been separated from those behind it. */
  isClean: boolean;
  lastFrame: number;
  /** Pictures since the last that showed it. */
  missed: number;
  /** Later looks at which it had not moved, and those of them at which what surrounds it had. */
  unmoved: number;
  stayed: number;
  /** Whether it came up, or has gone, while all else stood. */
  came: boolean;
  went: boolean;
}

const isSame = (a: Box, b: Box): boolean => intersectionArea(a, b) >= SAME_SHARE * Math.min(boxArea(a), boxArea(b));

/** @param lines all lines of the picture: none of them tells whether another moves */
function surroundings(luma: GreyPlane, box: Box, lines: readonly Box[]): EdgeTemplate[] {
  const rings = [1, 3].map((times) => edgeTemplate(luma, grownBox(box, times * Math.max(8, box.height)), lines));
  return rings.filter(({ places }) => places.length >= TELLING);
}

/**
 * How far a line goes on, through a fade, in pictures that lead away from one in which it is there.
 * @returns how many of them still show something of it; null if it is in all of them
 */
function shownIn(template: EdgeTemplate, pictures: readonly Picture[]): number | null {
  const presence = pictures.map(({ luma }) => presenceOf(template, luma));
  const gone = presence.findIndex((share) => share < THERE);
  if (gone < 0) return null;
  // Where it is gone, what was behind it may have some of its edges.
  const behind = Math.min(...presence.slice(gone, gone + MISSED));
  return gone + presence.slice(gone).findIndex((share) => share <= behind + SEEN * (1 - behind));
}

const cameraMoved = (a: Picture, b: Picture): boolean =>
  Math.hypot(a.camera.x - b.camera.x, a.camera.y - b.camera.y) >= CAMERA_MOVED;

/** Whether what surrounds a line has moved since it was found. */
function hasMovedAround({ around, foundIn }: Line, now: Picture): boolean {
  if (around.length > 0) return around.some((ring) => presenceOf(ring, now.luma) <= MOVED);
  // On even ground only the camera tells a sign on a wall from a name on the picture.
  return cameraMoved(foundIn, now);
}

/**
 * Whether a line that has come up or gone lies over the picture: it has not moved aside with the camera, and all else
 * stands.
 * @param next the picture without it that is nearest to those with it, and `without` one that may be farther away
 */
const isLaidOver = ({ seen, template }: Line, within: Picture, next: Picture, without = next): boolean =>
  !(cameraMoved(within, next) && presenceNearby(template, next.luma) >= THERE) &&
  standsAround(seen.box, without.luma, within.luma);

export class TextWatch {
  private lines: Line[] = [];
  private pictures: Picture[] = [];
  private serial = 0;

  /**
   * Sees the next picture, many a second.
   * @param moved by how many samples the camera has since the one before
   */
  see(frame: number, luma: GreyPlane, moved: Point): void {
    const { x, y } = this.pictures.at(-1)?.camera ?? { x: 0, y: 0 };
    const now: Picture = { frame, luma, camera: { x: x + moved.x, y: y + moved.y } };
    this.pictures = [...this.pictures, now].slice(-KEPT_PICTURES);
    for (const line of [...this.lines]) {
      if (presenceOf(line.template, luma) < THERE) line.missed++;
      else if (line.missed < MISSED) [line.lastFrame, line.missed] = [frame, 0];
      else this.comeBack(line);
    }
  }

  /**
   * A look at the last picture.
   * @param found lines in the part of it that was searched, if any was
   * @returns the lines that are there, or have gone of late
   */
  look(found: readonly Box[] | null): SeenText[] {
    if (this.lines.length === 0 && !found?.length) return [];
    const now = this.pictures.at(-1)!;
    const energy = edgeTemplate(now.luma, wholeOf(now.luma)).energy;
    for (const line of this.lines) this.judge(line, now, energy);
    const boxes = [...(found ?? []), ...this.lines.map(({ seen }) => seen.box)];
    for (const box of found ?? []) {
      const isHere = this.lines.some(({ seen, missed }) => isSame(seen.box, box) && missed === 0);
      if (!isHere) this.comeUp(box, now, energy, boxes);
    }
    const recent = this.lines.filter(({ missed }) => missed < KEPT_PICTURES);
    return recent.map(({ seen, unmoved, stayed, came, went }) => {
      const over = stayed >= SURE_LOOKS || (unmoved > 0 && (came || went));
      return { ...seen, ...(over && { over: true as const }) };
    });
  }

  private judge(line: Line, now: Picture, energy: number): void {
    const { seen, foundIn } = line;
    const { luma } = now;
    if (line.missed === 0) {
      delete seen.until;
      line.went = false;
    } else if (line.missed < KEPT_PICTURES) this.findEnd(line);
    if (!line.isClean) {
      // What moves on behind it is no part of it.
      const kept = keepCommon(line.template, foundIn.luma, luma);
      if (kept.energy >= LEAST_KEPT * line.template.energy) line.template = kept;
      line.isClean = true;
    }
    seen.ofPicture = Math.min(seen.ofPicture, line.template.energy / energy);
    if (line.stayed >= SURE_LOOKS || presenceOf(line.template, luma) < UNMOVED) return;
    line.unmoved++;
    if (hasMovedAround(line, now)) line.stayed++;
  }

  private comeUp(box: Box, now: Picture, energy: number, lines: readonly Box[]): void {
    const template = edgeTemplate(now.luma, box);
    if (template.places.length < LEAST_EDGES) return;
    const line: Line = {
      seen: { id: this.serial++, box, ofPicture: template.energy / energy },
      template,
      around: surroundings(now.luma, box, lines),
      foundIn: now,
      isClean: false,
      lastFrame: now.frame,
      missed: 0,
      unmoved: 0,
      stayed: 0,
      came: false,
      went: false,
    };
    this.lines = [...this.lines, line].slice(-MOST_LINES);
    this.findStart(line);
  }

  /** A line that has been gone for a while is another when it is there again. */
  private comeBack(line: Line): void {
    const { box, ofPicture } = line.seen;
    const { frame: lastFrame } = this.pictures.at(-1)!;
    const again: Line = { ...line, seen: { id: this.serial++, box, ofPicture }, lastFrame, missed: 0 };
    this.lines = [...this.lines.filter((other) => other !== line), again];
    this.findStart(again);
  }

  /** Goes backwards until nothing of a line is there any more. */
  private findStart(line: Line): void {
    const { seen, template } = line;
    const [now, ...before] = [...this.pictures].reverse() as [Picture, ...Picture[]];
    const shown = shownIn(template, before);
    if (shown === null) return;
    seen.since = before[shown]!.frame + 1;
    line.came = isLaidOver(line, now, before[shown]!);
  }

  private findEnd(line: Line): void {
    const { seen, template, lastFrame } = line;
    const from = this.pictures.findIndex(({ frame }) => frame === lastFrame);
    const [last, ...after] = this.pictures.slice(from) as [Picture, ...Picture[]];
    const without = after[shownIn(template, after) ?? 0]!;
    seen.until = without.frame - 1;
    line.went = after.length >= GONE && isLaidOver(line, last, without, after.at(-1));
  }
}
