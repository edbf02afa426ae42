/** Which part of which pictures is searched for text: a detector of text takes as long as all others. */
import { type Box, clipBox, grownBox, scaleBox, type Size, wholeOf } from "../../geometry/box";
import { boxOfCells } from "../../image/connected-cells";
import type { GreyPlane } from "../../image/grey-plane";
import { type Edges, edgesOf, steadyEdges } from "./steady-edges";

/** Looks after a cut until the first search: by then a cross-fade of a few frames is over. */
const FIRST_LOOK = 2;
/** Looks in which edges have to stay: the text of a title does, and what moves does not. */
const STEADY_LOOKS = 3;
/** Looks between two searches. */
const LOOKS_APART = 3;
/** Side of the cells in which new edges are counted, and how many of them may be letters. */
const CELL = 16;
const LEAST_EDGES = 40;
/** Samples by which the part around new edges is larger than they are: a detector needs to see around a line. */
const AROUND = 24;
/** The sides of a part are multiples of this, as detectors want them. */
const GRAIN = 32;

/** A part of a picture in whole multiples of the grain; it may reach beyond the picture on the right and below. */
function inGrains({ x, y, width, height }: Box): Box {
  const [left, top] = [GRAIN * Math.floor(x / GRAIN), GRAIN * Math.floor(y / GRAIN)];
  const upTo = (value: number) => GRAIN * Math.ceil(value / GRAIN);
  return { x: left, y: top, width: upTo(x + width) - left, height: upTo(y + height) - top };
}

/** Decides at each look of a film. */
export class TextDue {
  private recent: Edges[] = [];
  /** Samples around edges that have been there at a search. */
  private known = new Uint8Array();
  private sinceCut = 0;
  private sinceSearch = 0;

  /**
   * @param luma of the next look, several a second
   * @param isAfterCut whether it shows something other than the one before
   * @returns the part to be searched, in whole multiples of 32 samples; null for none
   */
  see(luma: GreyPlane, isAfterCut: boolean): Box | null {
    const edges = edgesOf(luma);
    if (isAfterCut || this.sinceCut === 0) {
      this.recent = [];
      this.known = new Uint8Array(luma.samples.length);
      this.sinceCut = 0;
    }
    this.sinceCut++;
    this.sinceSearch++;
    this.recent = [...this.recent, edges].slice(-STEADY_LOOKS);
    const part = this.partDue(luma);
    if (!part) return null;
    this.sinceSearch = 0;
    this.know(edges, part);
    return part;
  }

  private partDue(size: Size): Box | null {
    if (this.sinceCut === FIRST_LOOK) return inGrains(wholeOf(size));
    if (this.sinceCut < FIRST_LOOK || this.sinceSearch < LOOKS_APART || this.recent.length < STEADY_LOOKS) return null;
    const around = this.newEdges();
    return around && inGrains(clipBox(around, size));
  }

  /** The box around cells with many new edges that stay. */
  private newEdges(): Box | null {
    const [first, ...others] = this.recent as [Edges, ...Edges[]];
    const { width, height, across, down } = steadyEdges([first, ...others]);
    const columns = Math.ceil(width / CELL);
    const counts = new Uint16Array(columns * Math.ceil(height / CELL));
    for (let y = 0, at = 0; y < height; y++) {
      const row = columns * Math.floor(y / CELL);
      for (let x = 0; x < width; x++, at++)
        if ((across[at] !== 0 || down[at] !== 0) && !this.known[at]) counts[row + Math.floor(x / CELL)]!++;
    }
    const cells = [...counts.keys()].filter((cell) => counts[cell]! >= LEAST_EDGES);
    if (cells.length === 0) return null;
    return grownBox(scaleBox(boxOfCells(cells, columns), CELL), AROUND);
  }

  /** Marks the edges in a part, and the samples beside them. */
  private know({ width, height, across, down }: Edges, part: Box): void {
    const [right, bottom] = [Math.min(width, part.x + part.width), Math.min(height, part.y + part.height)];
    for (let y = Math.max(1, part.y); y < bottom - 1; y++) {
      for (let x = Math.max(1, part.x); x < right - 1; x++) {
        const at = y * width + x;
        if (across[at] === 0 && down[at] === 0) continue;
        for (const beside of [at - 1, at, at + 1, at - width, at + width]) this.known[beside] = 1;
      }
    }
  }
}
