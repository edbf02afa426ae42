/**
 * Brings in films of every kind whose pictures carry their number, and tells which of the frames are right on the desk's
 * copy, in the analysis (whole, and from random places) and in the render (whole, and a range), and how far the sound
 * is off.
 *
 *   ./glad-pan bench import [--only WORD] [--json OUT.json]
 */
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { USUAL_OUTPUT } from "~/core/formats/output-settings";
import { fill } from "~/core/composition/composition";
import { pieceCount, pieceRange } from "~/core/time/pieces";
import { framesIn, framesPerSecond, type FrameRange, frameToSeconds } from "~/core/time/rate";
import { Undecoded } from "~/core/time/undecoded";
import { decodeFrames } from "~/media/decode.server";
import type { FilmFile } from "~/media/film-file";
import { pictureTimes } from "~/media/picture-times.server";
import { withFields } from "~/media/film-choices";
import { probeFilm } from "~/media/probe.server";
import { decodeLight } from "~/media/decode-light.server";
import { makePieces, makeProxy, pieceFile } from "~/media/proxy.server";
import { renderFilm } from "~/media/render/render.server";
import { straighten } from "~/media/straighten.server";
import { decodeSmall } from "~/media/small-frames.server";
import { seeded } from "../../demo/film/random";
import type { Kind } from "./kind-maker";
import { Kinds } from "./kinds";
import { numberIn, toneBegins } from "./numbered";

/** Milliseconds that sound may be off. */
const IN_STEP_MS = 20;
const RANDOM_STARTS = 5;

interface Row {
  kind: string;
  frames: string;
  copy: string;
  analysis: string;
  render: string;
  undecoded: number | string;
  soundMs: string;
  /** Until the first piece of the copy can be played. */
  seconds: string;
  right: boolean;
}

async function numbers(film: FilmFile, range: FrameRange, decode = decodeSmall): Promise<number[]> {
  const found: number[] = [];
  for await (const { image } of decode(film, range)) found.push(numberIn(image));
  return found;
}

/** Seconds at which the tone begins in the pieces of a copy. */
function toneInPieces(folder: string, { info }: FilmFile): number | null {
  for (let piece = 0; piece < pieceCount(info); piece++) {
    const begins = toneBegins(pieceFile(folder, piece));
    if (begins !== null) return frameToSeconds(pieceRange(piece, info).start, info.rate) + begins;
  }
  return null;
}

const { values } = parseArgs({ options: { only: { type: "string" }, json: { type: "string" } } });

/** How many frames of a film have pictures that cannot be decoded. */
async function undecodedFrames(film: FilmFile): Promise<number> {
  const { info } = film;
  const undecoded = new Undecoded((await pictureTimes(film.file)).times, { ...info, origin: info.grid.origin });
  const options = { size: { width: 64, height: 36 }, onDecoded: (seconds: number) => undecoded.decoded(seconds) };
  for await (const frame of decodeFrames(film, options)) if (frame.length === 0) throw new Error("an empty frame");
  return framesIn(undecoded.within({ start: 0, end: info.frames }));
}

async function tryKind(kind: Kind, folder: string): Promise<Row> {
  const { name } = kind;
  const copyFolder = join(folder, `copy of ${name}`);
  const broughtIn = performance.now();
  const looked = await probeFilm(kind.file, name);
  const file = looked.timeBreaks ? join(folder, "straight.mkv") : kind.file;
  if (looked.timeBreaks) await straighten(kind.file, name, file);
  const found = await probeFilm(file, name);
  const film: FilmFile = { file, name, info: kind.fields ? withFields(found) : found };
  await makePieces(film, copyFolder, { start: 0, end: 1 });
  const seconds = (performance.now() - broughtIn) / 1000;
  const { frames, rate, picture } = film.info;
  // Where a film was cut off nobody can say beforehand what is left: then all must agree with one another.
  const whole = await numbers(film, { start: 0, end: frames });
  const expected = kind.expected.length > 0 ? kind.expected : whole;
  const random = seeded(9);
  const share = (pairs: [number | undefined, number | undefined][]) => {
    const wrong = pairs.filter(([a, b]) => a !== b).length;
    return wrong === 0 ? "all" : `${pairs.length - wrong} of ${pairs.length}`;
  };
  const compare = (found: number[], start = 0): [number | undefined, number | undefined][] =>
    // The sound's last block may ask for one frame more, which repeats the last one.
    found.map((number, i) => [number, expected[start + i] ?? expected.at(-1)]);

  const undecoded = await undecodedFrames(film);
  const parts = compare(whole);
  for (let i = 0; i < RANDOM_STARTS; i++) {
    const start = 1 + Math.floor(random() * (frames - 4));
    parts.push(...compare(await numbers(film, { start, end: Math.min(frames, start + 6) }), start));
  }
  await makeProxy(film, copyFolder);
  const copy = await numbers(film, { start: 0, end: frames }, decodeLight(copyFolder));

  const render = async (ranges: FrameRange[], to: string) => {
    const count = ranges.reduce((sum, { start, end }) => sum + end - start, 0);
    const window = { x: picture.width / 2, y: picture.height / 2, height: picture.height };
    const target = { width: picture.width & ~1, height: picture.height & ~1 };
    await renderFilm({ ...film, target, ranges, shown: () => fill(window, target), output: USUAL_OUTPUT }, to);
    const info = await probeFilm(to);
    return numbers({ file: to, name, info }, { start: 0, end: count });
  };
  const rendered = join(folder, "render.mp4");
  const all = compare(await render([{ start: 0, end: frames }], rendered));
  const range = { start: Math.floor(frames / 4), end: frames - 3 };
  const part = join(folder, "part.mp4");
  all.push(...compare(await render([range], part), range.start));

  const offsets: number[] = [];
  if (kind.tone !== null) {
    for (const [begins, wanted] of [
      [toneInPieces(copyFolder, film), kind.tone],
      [toneBegins(rendered), kind.tone],
      [toneBegins(part), kind.tone - frameToSeconds(range.start, rate)],
    ] as const) {
      if (wanted > 0.02) offsets.push(1000 * ((begins ?? Infinity) - wanted));
    }
  }
  const worst = offsets.reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a), 0);
  const rateRight = Math.abs(framesPerSecond(rate) - kind.fps) < 1e-6;
  const lengthRight = kind.frames === null || Math.abs(frames - kind.frames) <= 1;
  const row = { copy: share(compare(copy)), analysis: share(parts), render: share(all) };
  const right =
    rateRight &&
    lengthRight &&
    undecoded === (kind.undecoded ?? undecoded) &&
    Object.values(row).every((said) => said === "all") &&
    Math.abs(worst) <= IN_STEP_MS;
  const said = `${frames}${lengthRight ? "" : ` not ${kind.frames}`}${rateRight ? "" : ` at ${framesPerSecond(rate)}`}`;
  return {
    kind: name,
    frames: said,
    ...row,
    undecoded,
    soundMs: offsets.length > 0 ? worst.toFixed(1) : "–",
    seconds: seconds.toFixed(1),
    right,
  };
}

const folder = mkdtempSync(join(tmpdir(), "glad-pan-import-"));
const rows: Row[] = [];
try {
  for (const kind of new Kinds(folder).make()) {
    if (values.only && !kind.name.includes(values.only)) continue;
    const row = await tryKind(kind, folder).catch((error: unknown) => ({
      kind: kind.name,
      frames: error instanceof Error ? error.message : String(error),
      copy: "–",
      analysis: "–",
      render: "–",
      undecoded: "–",
      soundMs: "–",
      seconds: "–",
      right: false,
    }));
    rows.push(row);
    console.error(
      `${row.right ? "right" : "WRONG"}  ${row.kind}: ${row.frames} frames; copy ${row.copy}, analysis ${row.analysis}, render ${row.render}, not decoded ${row.undecoded}, sound ${row.soundMs} ms`,
    );
  }
} finally {
  rmSync(folder, { recursive: true });
}
console.table(
  rows.map(({ kind, frames, copy, analysis, render, undecoded, soundMs, seconds }) => ({
    kind,
    frames,
    "the desk's copy": copy,
    analysis,
    render,
    "not decoded": undecoded,
    "sound ms": soundMs,
    "s to the desk": seconds,
  })),
);
console.log(`${rows.filter(({ right }) => right).length} of ${rows.length} kinds right`);
if (values.json) writeFileSync(values.json, `${JSON.stringify(rows, null, 2)}\n`);
process.exitCode = rows.every(({ right }) => right) ? 0 : 1;
