/**
 * Renders the picture of a plan in parts that are joined without encoding: split at borders of shots, and within long ones.
 * Each begins with a key frame, so that an existing part need not be made again.
 */
import { createHash } from "node:crypto";
import { existsSync } from "node:fs";
import { mkdir, readdir, rm, stat, utimes, writeFile } from "node:fs/promises";
import { join, resolve } from "node:path";
import { pictureArguments } from "~/core/formats/output-settings";
import { framesPerSecond } from "~/core/time/rate";
import type { RetimedFrame } from "~/core/time/retime";
import { isAside, writeAside } from "~/disk/write-aside.server";
import type { FrameMaker } from "../frame-maker.server";
import { madeFrames } from "./made-frames.server";
import { pictureFilters, startEncoder } from "./encode.server";
import type { Output, RenderPlan } from "./plan";
import { writeTo } from "../tool.server";

/** Shots are combined up to the first duration in seconds; a longer one is split after the second. */
const LEAST_SECONDS = 2;
const MOST_SECONDS = 20;

/** A part of the output: its first frame, and the one after its last. */
export interface Part {
  from: number;
  to: number;
}

/** Borders of an output's parts. */
export function partsOf({ cuts = [] }: Pick<RenderPlan, "cuts">, { frames, rate }: Pick<Output, "frames" | "rate">) {
  const fps = framesPerSecond(rate);
  const [least, most] = [Math.round(LEAST_SECONDS * fps), Math.round(MOST_SECONDS * fps)];
  const starts = new Set(cuts);
  const parts: Part[] = [];
  let from = 0;
  frames.forEach(({ frame }, i) => {
    if (i === 0) return;
    const before = frames[i - 1]!.frame;
    // A range left out between two frames is a border as well.
    const isBorder = frame > before + 1 || (frame > before && starts.has(frame));
    const length = i - from;
    if ((isBorder && length >= least) || length >= most) {
      parts.push({ from, to: i });
      from = i;
    }
  });
  parts.push({ from, to: frames.length });
  return parts;
}

/** Version of rendering and encoding: parts of another one are made again. */
const RENDER_VERSION = 1;

/** A digest of everything that determines a part: equal digests stand for equal pictures. */
export function digestOf(
  plan: RenderPlan,
  { rate, depth }: Pick<Output, "rate" | "depth">,
  frames: readonly RetimedFrame[],
  film: string,
) {
  const hash = createHash("sha256");
  const { info, target, output, shown } = plan;
  hash.update(
    JSON.stringify([
      RENDER_VERSION,
      film,
      info,
      target,
      rate,
      depth,
      pictureArguments(output, depth),
      pictureFilters(plan),
    ]),
  );
  let last = -1;
  for (const { frame, mixed } of frames) {
    hash.update(JSON.stringify([frame, mixed]));
    for (const each of mixed ? [frame, mixed.frame] : [frame]) {
      if (each > last) hash.update(JSON.stringify(shown(each)));
      last = Math.max(last, each);
    }
  }
  return hash.digest("hex").slice(0, 40);
}

export interface PartsOptions {
  /** Folder of the parts. */
  folder: string;
  /** Identifies the film's file. */
  film: string;
  /** Called with the number of frames done. */
  onProgress: (frames: number) => void;
  signal?: AbortSignal | undefined;
  /** Which of the parts to make, by index; all of them if left out. */
  only?: ((place: number) => boolean) | undefined;
}

/**
 * Makes the missing parts. Consecutive ones are decoded in one go.
 * @returns the files of all parts, in order, and how many of them were made
 */
export async function makeParts(
  plan: RenderPlan,
  output: Output,
  maker: FrameMaker,
  { folder, film, onProgress, signal, only = () => true }: PartsOptions,
): Promise<{ files: { file: string; frames: number }[]; made: number }> {
  await mkdir(folder, { recursive: true });
  const parts = partsOf(plan, output).map(({ from, to }) => {
    const frames = output.frames.slice(from, to);
    return { frames, file: join(folder, `${digestOf(plan, output, frames, film)}.nut`) };
  });
  const missing = parts.map(({ file }, place) => only(place) && !existsSync(file));
  let done = parts.reduce((sum, { frames }, i) => sum + (missing[i] ? 0 : frames.length), 0);
  onProgress(done);
  const onFrame = () => onProgress(++done);
  for (let i = 0; i < parts.length; i++) {
    if (!missing[i]) continue;
    let end = i;
    while (end < parts.length && missing[end]) end++;
    await makeRun(plan, output, maker, parts.slice(i, end), { onFrame, signal });
    i = end;
  }
  // Parts used last are kept longest.
  const now = new Date();
  const there = parts.filter((_, place) => only(place));
  await Promise.all(there.map(({ file }) => utimes(file, now, now)));
  const files = parts.map(({ file, frames }) => ({ file, frames: frames.length }));
  return { files, made: missing.filter(Boolean).length };
}

/** Makes consecutive parts. */
async function makeRun(
  plan: RenderPlan,
  output: Output,
  maker: FrameMaker,
  parts: readonly { frames: readonly RetimedFrame[]; file: string }[],
  { onFrame, signal }: { onFrame: () => void; signal?: AbortSignal | undefined },
): Promise<void> {
  const frames = madeFrames(
    plan,
    parts.flatMap((part) => part.frames),
    maker,
    signal,
  );
  try {
    for (const part of parts) {
      await writeAside(part.file, async (aside) => {
        const encoder = startEncoder(plan, output, aside, { muxer: ["-f", "nut"], signal });
        encoder.stdout.resume();
        try {
          for (let i = 0; i < part.frames.length; i++) {
            const next = await frames.next();
            if (next.done) throw new Error(`${plan.name}: it ends earlier than it should`);
            await writeTo(encoder, next.value);
            onFrame();
          }
          encoder.stdin.end();
          await encoder.done;
        } finally {
          encoder.kill();
        }
      });
    }
  } finally {
    await frames.return(undefined);
  }
}

/** A file's name in a list: absolute, since names in a list are relative to its folder; in quotes. */
const quoted = (file: string): string => `'${resolve(file).replaceAll("'", "'\\''")}'`;

/** Writes the list of parts for ffmpeg's concat demuxer. */
export async function writePartList(
  list: string,
  files: readonly { file: string; frames: number }[],
  { rate }: Pick<Output, "rate">,
): Promise<void> {
  const lines = files.map(
    ({ file, frames }) => `file ${quoted(file)}\nduration ${((frames * rate.den) / rate.num).toFixed(9)}`,
  );
  await writeFile(list, ["ffconcat version 1.0", ...lines, ""].join("\n"));
}

/** Removes parts that have not been used for some time. */
export async function forgetParts(folder: string, keptMs: number, now = Date.now()): Promise<void> {
  for (const name of await readdir(folder).catch(() => [])) {
    const file = join(folder, name);
    if (!isAside(name) && now - (await stat(file)).mtimeMs > keptMs) await rm(file, { force: true });
  }
}
