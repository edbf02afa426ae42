/** Burnt-in text: it stays in place while the picture around it moves, or is all that a still card shows. */
import { type Box, boxArea, boxContains, boxIou, intersectionArea, scaleBox } from "../../geometry/box";
import { type GreyPlane, halved } from "../../image/grey-plane";
import { countCommonEdges, countEdges, type Edges, edgesOf, steadyEdges } from "./steady-edges";
import { textBlocks } from "./text-lines";

/** Pictures in which text has to be steady. */
export const STEADY_PICTURES = 4;
/** Scales at which text is searched: full size, and reduced to a half and a quarter. */
const SIZES = 3;
/** Least share of a block's edges that are steady. */
const STEADY = 0.5;
/** Share of steady edges below which the picture moves. */
const MOVING = 0.4;
/** … and below which all of it moves. */
const ALL_MOVING = 0.15;
/** Fewest edges around a block that tell whether it moves there. */
const TELLING = 60;
/** … and least share of a picture's samples with edges that tells whether all of it moves. */
const TELLING_SHARE = 0.03;
/** Largest share of a still picture that changes, and by how many levels of luma. */
const STILL_SHARE = 0.005;
const CHANGED = 10;
/** Overlap above which blocks are the same, found at two scales. */
const SAME = 0.2;
/** As are those of which one contains the other, within this many pixels. */
const INSIDE = 4;

/** Pictures before those in which text has to be steady, in which it may not have been there yet. */
const PICTURES_BEFORE = 3;
/** Share of a text's edges in an earlier picture below which it is new … */
const NEW = 0.25;
/** … if no more than this share of what is around it has changed. */
const STANDING_SHARE = 0.3;
/** Samples beyond twice its height that count as beside a block. */
const BESIDE = 8;
/** Share of one picture's edges in the next below which there was a cut, or everything moved. */
const CUT = 0.3;

/** Most places of letters that are kept at each scale. */
const MOST_KNOWN = 12;

/** A picture at several scales, with its edges. */
type Look = { luma: GreyPlane; edges: Edges }[];

/** Text in a picture and those before it, `STEADY_PICTURES` in all: boxes in its samples. */
export interface SeenText {
  /** Text over the picture, by all evidence; or everything that a still card shows. */
  texts: Box[];
  /** Letters that may or may not be part of the scene, by these pictures alone. */
  letters: Box[];
  /**
   * Text over the picture beyond doubt: everything else moved or changed, or it appeared or disappeared while everything
   * else stayed.
   */
  overlaid: Box[];
}

type BlockKind = keyof SeenText;
/** Letters with their edges. */
interface Letters {
  block: Box;
  edges: Edges;
  luma: GreyPlane;
}

/** The share of the edges around a box that are steady; NaN where there are too few. */
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

/** The share of a picture that is different in the next. */
function changedShare(a: GreyPlane, b: GreyPlane): number {
  let changed = 0;
  for (let i = 0; i < a.samples.length; i++) if (Math.abs(a.samples[i]! - b.samples[i]!) > CHANGED) changed++;
  return changed / a.samples.length;
}

/** The share of the area between two distances from a block that changed between two pictures. */
function changedAround(block: Box, a: GreyPlane, b: GreyPlane, from: number, to: number): number {
  const isNear = (x: number, y: number, far: number) =>
    x >= block.x - far && x < block.x + block.width + far && y >= block.y - far && y < block.y + block.height + far;
  let [changed, all] = [0, 0];
  for (let y = Math.max(0, block.y - to); y < Math.min(a.height, block.y + block.height + to); y++) {
    for (let x = Math.max(0, block.x - to); x < Math.min(a.width, block.x + block.width + to); x++) {
      if (isNear(x, y, from)) continue;
      all++;
      if (Math.abs(a.samples[y * a.width + x]! - b.samples[y * a.width + x]!) > CHANGED) changed++;
    }
  }
  return changed / Math.max(1, all);
}

/**
 * Whether the surroundings of a block stay from one picture to another, except for a field that appears and disappears with
 * it. Somebody in front of a sign hides its surroundings as well.
 */
function standsAround(block: Box, a: GreyPlane, b: GreyPlane): boolean {
  const anywhere = changedAround(block, a, b, 0, Math.max(a.width, a.height));
  const { height } = block;
  return anywhere <= STANDING_SHARE && changedAround(block, a, b, height, 2 * height + BESIDE) <= STANDING_SHARE;
}

/** Whether next to no edges stay, anywhere around a block. */
function allElseMoves(block: Box, now: Edges, steady: Edges): boolean {
  const needed = TELLING_SHARE * now.width * now.height;
  return steadyAround(block, now, steady, Math.max(now.width, now.height), needed) <= ALL_MOVING;
}

/** Whether next to none of a block's edges are in another picture. */
function isNew({ x, y, width, height }: Box, edges: Edges, other: Edges): boolean {
  const part = [x, y, x + width, y + height] as const;
  return countCommonEdges(edges, other, ...part) <= NEW * countEdges(edges, ...part);
}

/** Whether letters are in another picture, at the same place. */
const isThere = ({ block, edges }: Letters, other: Edges): boolean => !isNew(block, edges, other);

/** Of the same text at two scales, keeps the larger box, which holds more of it. */
function withoutDoubles(found: readonly Box[]): Box[] {
  const largest = [...found].sort((a, b) => boxArea(b) - boxArea(a));
  return largest.filter(
    (box, i) => !largest.slice(0, i).some((other) => boxIou(box, other) > SAME || boxContains(other, box, INSIDE)),
  );
}

/** An empty list for each scale. */
const forEachSize = <T>(): T[][] => Array.from({ length: SIZES }, () => []);

/** Finds text in consecutive pictures, several per second. */
export class TextFinder {
  private looks: Look[] = [];
  private camera: boolean[] = [];
  /** All lines of text in the last picture; null until they are needed. */
  private lines: Box[] | null = null;
  /** Text that has appeared in a still picture, by scale; it counts as text for as long as it stays. */
  private appeared: Box[][] = forEachSize();
  /** Letters in each of the earlier pictures, by scale, the last picture's last: they may disappear. */
  private lettersBefore: Letters[][][] = forEachSize();
  /** Letters present since the last cut, by scale: when something passes in front of them, they do not reappear as new. */
  private known: Letters[][] = forEachSize();

  /**
   * @param luma the next picture
   * @param isCameraMoving whether the camera has moved since the one before
   */
  see(luma: GreyPlane, isCameraMoving: boolean): SeenText {
    const planes = [luma];
    while (planes.length < SIZES) planes.push(halved(planes.at(-1)!));
    this.lines = null;
    this.looks.push(planes.map((plane) => ({ luma: plane, edges: edgesOf(plane) })));
    this.camera.push(isCameraMoving);
    this.forgetAfterCut();
    if (this.looks.length < STEADY_PICTURES) return { texts: [], letters: [], overlaid: [] };
    this.looks = this.looks.slice(-STEADY_PICTURES - PICTURES_BEFORE);
    this.camera = this.camera.slice(-STEADY_PICTURES);
    const [first, last] = [this.looks.at(-STEADY_PICTURES)!, this.looks.at(-1)!].map((look) => look.at(-1)!.luma);
    const still = changedShare(first!, last!) <= STILL_SHARE;
    const found = Array.from({ length: SIZES }, (_, size) => this.inSize(size, still));
    const all = (kind: BlockKind) => withoutDoubles(found.flatMap((each) => each[kind]));
    return { texts: all("texts"), letters: all("letters"), overlaid: all("overlaid") };
  }

  /** Share of a box that lines of text cover in the last picture, whether in the scene or over it. */
  written(box: Box): number {
    this.lines ??= withoutDoubles(
      this.looks
        .at(-1)!
        .flatMap(({ luma, edges }, size) => textBlocks(edges, luma).map((block) => scaleBox(block, 2 ** size))),
    );
    const covered = this.lines.reduce((sum, line) => sum + intersectionArea(line, box), 0);
    return Math.min(1, covered / boxArea(box));
  }

  private inSize(size: number, still: boolean): SeenText {
    const looks = this.looks.slice(-STEADY_PICTURES).map((look) => look[size]!);
    const { luma, edges: now } = looks.at(-1)!;
    const [first, ...others] = looks.map(({ edges }) => edges);
    const steady = steadyEdges([first!, ...others]);
    const seen: SeenText = { texts: [], letters: [], overlaid: this.gone(size) };
    const stays: Box[] = [];
    const letters: Letters[] = [];
    for (const block of textBlocks(steady, luma)) {
      const { x, y, width, height } = block;
      const inside = countEdges(now, x, y, x + width, y + height);
      if (countEdges(steady, x, y, x + width, y + height) < STEADY * inside) continue;
      const these = { block, edges: steady, luma };
      letters.push(these);
      if (this.appears(block, steady, size)) stays.push(block);
      else this.remember(these, size);
      // No sign appears on a wall between two pictures, nor stays in place while everything else moves.
      if (stays.includes(block) || allElseMoves(block, now, steady)) {
        seen.overlaid.push(block);
        seen.texts.push(block);
      } else if (still || this.movesAround(block, now, steady)) seen.texts.push(block);
      else seen.letters.push(block);
    }
    this.appeared[size] = stays;
    this.lettersBefore[size] = [...this.lettersBefore[size]!, letters].slice(-PICTURES_BEFORE);
    const inPicture = (blocks: Box[]) => blocks.map((block) => scaleBox(block, 2 ** size));
    return { texts: inPicture(seen.texts), letters: inPicture(seen.letters), overlaid: inPicture(seen.overlaid) };
  }

  /** Whether the surroundings of a block move, or may have moved with the camera. */
  private movesAround(block: Box, now: Edges, steady: Edges): boolean {
    // A field behind the text is as steady as the text, and moves relative to what lies beyond.
    const beside = [1, 3].map((far) => steadyAround(block, now, steady, far * Math.max(8, block.height), TELLING));
    const shares = beside.filter((share) => !Number.isNaN(share));
    if (shares.length > 0) return Math.min(...shares) <= MOVING;
    // On even ground, a sign on a wall and a name on the picture look the same while the camera stands.
    return this.camera.every((moves) => moves);
  }

  /** Letters that have disappeared from a picture that otherwise stays. */
  private gone(size: number): Box[] {
    const earlier = this.lettersBefore[size]!.at(-PICTURES_BEFORE) ?? [];
    const { luma, edges: now } = this.looks.at(-1)![size]!;
    return earlier
      .filter((letters) => !isThere(letters, now) && standsAround(letters.block, letters.luma, luma))
      .map(({ block }) => block);
  }

  /** Whether a block was missing in an earlier picture that otherwise stays; or was seen to appear, and is still there. */
  private appears(block: Box, steady: Edges, size: number): boolean {
    if (this.appeared[size]!.some((box) => boxIou(box, block) > SAME)) return true;
    const wasThere = (letters: Letters) => boxIou(letters.block, block) > SAME && isThere(letters, steady);
    if (this.known[size]!.some(wasThere)) return false;
    const now = this.looks.at(-1)![size]!.luma;
    return this.looks.slice(0, -STEADY_PICTURES).some((look) => {
      const before = look[size]!;
      return isNew(block, steady, before.edges) && standsAround(block, before.luma, now);
    });
  }

  /** Stores letters, replacing earlier ones at the same place. */
  private remember(letters: Letters, size: number): void {
    const others = this.known[size]!.filter(({ block }) => boxIou(block, letters.block) <= SAME);
    this.known[size] = [...others, letters].slice(-MOST_KNOWN);
  }

  /** After a cut everything has appeared. */
  private forgetAfterCut(): void {
    const [before, now] = this.looks.slice(-2).map((look) => look.at(-1)!);
    if (!before || !now) return;
    if (steadyEdges([before.edges, now.edges]).count >= CUT * before.edges.count) return;
    // Where letters have most of the edges, they disappear without a cut.
    if (changedShare(before.luma, now.luma) <= STANDING_SHARE) return;
    this.appeared = forEachSize();
    this.lettersBefore = forEachSize();
    this.known = forEachSize();
  }
}
