/** Text that was put over a film: it stays where it is while what is around it moves, or is all that a still card shows. */
import { type Box, boxArea, boxContains, boxIou, scaleBox } from "../../geometry/box";
import { type BytePlane, countEdges, type Edges, edgesOf, halved, steadyEdges } from "./steady-edges";
import { textBlocks } from "./text-lines";

/** Pictures that text has to be steady in. */
export const STEADY_PICTURES = 4;
/** Sizes in which text is looked for: as it is, and twice and four times reduced. */
const SIZES = 3;
/** Share of a block's edges that are steady, at least. */
const STEADY = 0.5;
/** Where no more than this share of the edges stays, the picture moves. */
const MOVING = 0.4;
/** … and where no more than this does, all of it moves. */
const ALL_MOVING = 0.15;
/** Fewer edges than this around a block say nothing of whether it moves there. */
const TELLING = 60;
/** … and with fewer edges than this share of its samples a picture says nothing of whether all of it moves. */
const TELLING_SHARE = 0.03;
/** A picture is still if no more than this share of it changes, by so many levels of luma. */
const STILL_SHARE = 0.005;
const CHANGED = 10;
/** Blocks that overlap by this much are found twice, in two sizes. */
const SAME = 0.2;
/** So are those of which the one lies in the other, but for so many pixels. */
const INSIDE = 4;

/** Pictures before those that text has to be steady in, in which it may not have been there yet. */
const PICTURES_BEFORE = 3;
/** What is in a picture and was not in one before: no more than this share of its edges was … */
const NEW = 0.25;
/** … and no more than this share of what is around it has changed. */
const STANDING_SHARE = 0.3;
/** Where less of the edges of one picture is in the next, there was a cut between them, or all of it moves. */
const CUT = 0.3;

/** A picture in several sizes, with its edges. */
type Look = { luma: BytePlane; edges: Edges }[];

/** The share of the edges around a box that are steady; NaN where there are fewer than are needed to tell. */
function steadyAround(box: Box, now: Edges, steady: Edges, margin: number, needed: number): number {
  const around = (edges: Edges) => {
    const [left, top] = [Math.floor(box.x), Math.floor(box.y)];
    const [right, bottom] = [Math.ceil(box.x + box.width), Math.ceil(box.y + box.height)];
    const all = countEdges(edges, left - margin, top - margin, right + margin, bottom + margin);
    return all - countEdges(edges, left - 2, top - 2, right + 2, bottom + 2);
  };
  const all = around(now);
  return all < needed ? Number.NaN : around(steady) / all;
}

/** Whether next to nothing changes from one picture to another. */
function isStill(a: BytePlane, b: BytePlane): boolean {
  let changed = 0;
  for (let i = 0; i < a.samples.length; i++) if (Math.abs(a.samples[i]! - b.samples[i]!) > CHANGED) changed++;
  return changed <= STILL_SHARE * a.samples.length;
}

/** The share of what lies around a block that has changed from one picture to another. */
function changedAround(block: Box, a: BytePlane, b: BytePlane): number {
  let [changed, all] = [0, 0];
  for (let y = 0, at = 0; y < a.height; y++) {
    const isBeside = y < block.y || y >= block.y + block.height;
    for (let x = 0; x < a.width; x++, at++) {
      if (!isBeside && x >= block.x && x < block.x + block.width) continue;
      all++;
      if (Math.abs(a.samples[at]! - b.samples[at]!) > CHANGED) changed++;
    }
  }
  return changed / Math.max(1, all);
}

/** Finds text in pictures that are given one after the other, some a second. */
export class TextFinder {
  private looks: Look[] = [];
  private camera: boolean[] = [];
  /** What has appeared in a picture that stands, by size; it is text for as long as it stays. */
  private appeared: Box[][] = Array.from({ length: SIZES }, () => []);

  /**
   * @param luma the next picture
   * @param isCameraMoving whether the camera has moved since the one before
   * @returns boxes, in its samples, of the text that is in it and in those before it, `STEADY_PICTURES` in all
   */
  see(luma: BytePlane, isCameraMoving: boolean): Box[] {
    const planes = [luma];
    while (planes.length < SIZES) planes.push(halved(planes.at(-1)!));
    this.looks.push(planes.map((plane) => ({ luma: plane, edges: edgesOf(plane) })));
    this.camera.push(isCameraMoving);
    this.forgetAfterCut();
    if (this.looks.length < STEADY_PICTURES) return [];
    this.looks = this.looks.slice(-STEADY_PICTURES - PICTURES_BEFORE);
    this.camera = this.camera.slice(-STEADY_PICTURES);
    const still = isStill(this.looks.at(-STEADY_PICTURES)!.at(-1)!.luma, this.looks.at(-1)!.at(-1)!.luma);
    const found = Array.from({ length: SIZES }, (_, size) => this.inSize(size, still)).flat();
    // Of the same text in two sizes the larger box holds more of it.
    found.sort((a, b) => boxArea(b) - boxArea(a));
    return found.filter(
      (box, i) => !found.slice(0, i).some((other) => boxIou(box, other) > SAME || boxContains(other, box, INSIDE)),
    );
  }

  private inSize(size: number, still: boolean): Box[] {
    const looks = this.looks.slice(-STEADY_PICTURES).map((look) => look[size]!);
    const { luma, edges: now } = looks.at(-1)!;
    const [first, ...others] = looks.map(({ edges }) => edges);
    const steady = steadyEdges([first!, ...others]);
    const found = textBlocks(steady, luma);
    const stays: Box[] = [];
    const texts = found
      .filter((block) => {
        const { x, y, width, height } = block;
        const inside = countEdges(now, x, y, x + width, y + height);
        if (countEdges(steady, x, y, x + width, y + height) < STEADY * inside) return false;
        if (still) return true;
        // A field that the text stands on is as steady as it is, and what lies beyond moves.
        const beside = [1, 3].map((far) => steadyAround(block, now, steady, far * Math.max(8, height), TELLING));
        const shares = beside.filter((share) => !Number.isNaN(share));
        // Beside what is even, a sign on a wall and a name on the picture look the same while the camera stands.
        if (shares.length > 0 && Math.min(...shares) <= MOVING) return true;
        // But no sign comes up on a wall from one picture to another.
        if (this.hasAppeared(block, steady, size)) return stays.push(block) > 0;
        if (shares.length > 0) return false;
        const needed = TELLING_SHARE * now.width * now.height;
        const anywhere = steadyAround(block, now, steady, Math.max(now.width, now.height), needed);
        return this.camera.every((moves) => moves) || anywhere <= ALL_MOVING;
      })
      .map((block) => scaleBox(block, 2 ** size));
    this.appeared[size] = stays;
    return texts;
  }

  /** Whether a block was not there in a picture before which otherwise stands; or was seen to come, and is there still. */
  private hasAppeared(block: Box, steady: Edges, size: number): boolean {
    if (this.appeared[size]!.some((box) => boxIou(box, block) > SAME)) return true;
    const { x, y, width, height } = block;
    const inside = (edges: Edges) => countEdges(edges, x, y, x + width, y + height);
    const now = this.looks.at(-1)![size]!.luma;
    return this.looks.slice(0, -STEADY_PICTURES).some((look) => {
      const before = look[size]!;
      return (
        inside(steadyEdges([before.edges, steady])) <= NEW * inside(steady) &&
        changedAround(block, before.luma, now) <= STANDING_SHARE
      );
    });
  }

  /** After a cut everything has appeared. */
  private forgetAfterCut(): void {
    const [before, now] = this.looks.slice(-2).map((look) => look.at(-1)!.edges);
    if (!before || !now) return;
    if (steadyEdges([before, now]).places.length >= CUT * before.places.length) return;
    this.appeared = Array.from({ length: SIZES }, () => []);
  }
}
