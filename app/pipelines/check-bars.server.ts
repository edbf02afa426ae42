/**
 * Whether a finished file has bars that nobody asked for: at the edges of the frame, of the film in front of a backdrop, or
 * as such a backdrop.
 */
import { type Backdrop, isEven } from "~/core/composition/backdrop";
import { yuvOf } from "~/core/composition/colour";
import { type Composition, filmPanes, type ShownAt } from "~/core/composition/composition";
import { isPlain } from "~/core/composition/edge";
import { layerSize } from "~/core/composition/layers/draw-layer";
import { type Box, boxContains, grownBox, sameBox, type Size } from "~/core/geometry/box";
import type { FrameRange } from "~/core/time/rate";
import type { RetimedFrame } from "~/core/time/retime";
import { joinRanges } from "~/core/time/ranges";
import { decodeFrames } from "~/media/decode.server";
import type { FilmFile } from "~/media/film-file";
import { probeFilm } from "~/media/probe.server";
import { hasBars } from "~/media/verify.server";

/** Share of a side above which a layer there may look like a bar. */
const NEARLY_ALL = 0.95;
/** Most ranges in front of a backdrop that are examined. */
const MOST_RANGES = 40;
/** Levels by which an encoded colour may differ from the original. */
const COLOUR_TOLERANCE = 14;
/** Pixels from an edge within which colours blend. */
const NEAR_EDGE = 16;

const reachesOver = ({ layers, size }: Composition): boolean =>
  (layers?.at ?? []).some(({ layer }) => {
    if (layer.kind === "text") return false;
    const { width, height } = layerSize(layer, size);
    return width > NEARLY_ALL * size.width || height > NEARLY_ALL * size.height;
  });

/** Whether something that the editor placed there may look like bars. */
const mayLookBarred = (shown: Composition): boolean =>
  (shown.backdrop !== null && isEven(shown.backdrop.look)) || shown.panes.some(({ own }) => own) || reachesOver(shown);

/** A range of the file in which the film does not move in front of an even backdrop. */
interface EvenRange extends FrameRange {
  shown: Composition;
  pane: Box;
  /** Its frames in the film. */
  source: FrameRange;
}

/** Such ranges, in frames of the file; those covered by something else are left out. */
function evenRanges(frames: readonly number[], shownAt: ShownAt): EvenRange[] {
  const ranges: EvenRange[] = [];
  frames.forEach((frame, i) => {
    const shown = shownAt(frame);
    const [pane, ...others] = filmPanes(shown);
    const isWanted = shown.backdrop && isEven(shown.backdrop.look) && others.length === 0 && !shown.layers;
    if (!pane || !isWanted) return;
    const last = ranges.at(-1);
    const goesOn =
      last?.end === i &&
      last.source.end === frame &&
      sameBox(last.pane, pane.target) &&
      last.shown.backdrop!.look === shown.backdrop!.look;
    if (goesOn) {
      last.end = i + 1;
      last.source.end = frame + 1;
    } else {
      const source = { start: frame, end: frame + 1 };
      ranges.push({ start: i, end: i + 1, shown, pane: pane.target, source });
    }
  });
  return ranges.slice(0, MOST_RANGES);
}

/** The colour of a backdrop at a row of the frame; null where it has no even one. */
function colourAt(look: Backdrop, row: number, height: number): readonly number[] | null {
  if (look.kind === "colour") return yuvOf(look.colour);
  if (look.kind !== "gradient") return null;
  const [top, foot] = [yuvOf(look.top), yuvOf(look.foot)];
  return top.map((level, i) => level + ((row + 0.5) / height) * (foot[i]! - level));
}

/** Places along the borders of a frame that show the backdrop, well away from the film. */
function placesBehind({ width, height }: Size, pane: Box): { x: number; y: number }[] {
  const wide = grownBox(pane, 2 * NEAR_EDGE);
  const across = [NEAR_EDGE, width / 2, width - NEAR_EDGE];
  const down = [NEAR_EDGE, height / 2, height - NEAR_EDGE];
  return across
    .flatMap((x) => down.map((y) => ({ x: 2 * Math.floor(x / 2), y: 2 * Math.floor(y / 2) })))
    .filter(({ x, y }) => !boxContains(wide, { x, y, width: 0, height: 0 }));
}

/** Whether a 4:2:0 frame has the backdrop's colours where nothing else is. */
function hasBackdrop(data: Uint8Array, size: Size, { shown, pane }: EvenRange): boolean {
  const { width, height } = size;
  return placesBehind(size, pane).every(({ x, y }) => {
    const wanted = colourAt(shown.backdrop!.look, y, height);
    if (!wanted) return true;
    const chroma = (plane: number) =>
      data[width * height + (plane * width * height) / 4 + (y / 2) * (width / 2) + x / 2]!;
    const seen = [data[y * width + x]!, chroma(0), chroma(1)];
    return seen.every((level, i) => Math.abs(level - wanted[i]!) <= COLOUR_TOLERANCE);
  });
}

async function backdropFault(file: FilmFile, ranges: readonly EvenRange[], signal?: AbortSignal) {
  for (const even of ranges) {
    const middle = Math.floor((even.start + even.end) / 2);
    const range = { start: middle, end: middle + 1 };
    for await (const data of decodeFrames(file, { range, signal }))
      if (!hasBackdrop(data, file.info.picture, even)) return "a backdrop does not have the colour that was asked for";
  }
  return null;
}

/** A box without the pixels along the borders that it shares with its surroundings; null if too little is left. */
function insideOf({ x, y, width, height }: Box, frame: Size): Box | null {
  const from = (start: number) => 2 * Math.ceil((Math.max(0, start) + 2) / 2);
  const to = (end: number, most: number) => 2 * Math.floor((Math.min(most, end) - 2) / 2);
  const box = { x: from(x), y: from(y), width: 0, height: 0 };
  box.width = to(x + width, frame.width) - box.x;
  box.height = to(y + height, frame.height) - box.y;
  return box.width > 4 * NEAR_EDGE && box.height > 4 * NEAR_EDGE ? box : null;
}

type Checked = FilmFile & { target: Size; shown: ShownAt };

/**
 * Checks a finished file for bars.
 * @param written its frames, each as the frame of the film
 * @returns what is wrong, in words; bars of the source do not count
 */
export async function barFaults(
  file: string,
  { target, shown, ...film }: Checked,
  written: readonly RetimedFrame[],
  signal?: AbortSignal,
): Promise<string[]> {
  const frames = written.map(({ frame }) => frame);
  const covered = joinRanges(
    frames.flatMap((frame, i) => (mayLookBarred(shown(frame)) ? [] : [{ start: i, end: i + 1 }])),
  );
  const even = evenRanges(frames, shown);
  const { picture } = film.info;
  let isBarred =
    covered.length > 0 &&
    (await hasBars(file, target, { signal, ranges: covered })) &&
    !(await hasBars(film.file, picture, { signal }));
  for (const range of even.filter(({ shown: { panes } }) => isPlain(panes[0]!.edge ?? { look: "none", corner: 0 }))) {
    if (isBarred) break;
    const inner = insideOf(range.pane, target);
    // A shot may be black at its own edges, as a title is.
    isBarred =
      inner !== null &&
      (await hasBars(file, inner, { signal, ranges: [range], area: inner })) &&
      !(await hasBars(film.file, picture, { signal, ranges: [range.source] }));
  }
  const faults = isBarred ? ["there are black bars at the edges"] : [];
  // A shadow reaches far over the backdrop.
  const clear = even.filter(({ shown: { panes } }) => panes[0]!.edge?.look !== "shadow");
  if (clear.length > 0) {
    const fault = await backdropFault({ file, name: film.name, info: await probeFilm(file, film.name) }, clear, signal);
    if (fault) faults.push(fault);
  }
  return faults;
}
