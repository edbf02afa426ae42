import type { HeardIn } from "~/core/composition/heard";
import type { ShownAt } from "~/core/composition/composition";
import type { Size } from "~/core/geometry/box";
import type { OutputFormat } from "~/core/formats/output-formats";
import { type FrameRange, framesIn, frameToSeconds } from "~/core/time/rate";
import { decodeFrames } from "./decode.server";
import type { FilmFile } from "./film-file";
import { mixedSound } from "./mixed-sound";
import { readAhead } from "./read-ahead";
import { FrameMaker } from "./frame-maker.server";
import { NOTHING_OWN, type OwnContents } from "./own/load-pictures.server";
import type { OwnPictures } from "./own/own-pictures.server";
import { reading, REC709_TAGS, startFfmpeg, writing } from "./film-tool.server";
import { readFrom, soundBeginsWithPicture, soundOnGrid, soundSeekSecondsFor, soundStream } from "./on-grid.server";
import { writeTo } from "./tool.server";

export interface RenderOptions {
  /** 0 to 1. */
  onProgress?: (share: number) => void;
  signal?: AbortSignal;
}

export interface RenderPlan extends FilmFile {
  /** Size of the picture to write; both sides even. */
  target: Size;
  /** The parts of the film to render, in order and apart from each other. */
  ranges: readonly FrameRange[];
  /** What is shown at each frame of the ranges. */
  shown: ShownAt;
  /** What of the editor's own is in it. */
  own?: OwnContents;
  /** A SubRip file whose captions go along as a track of text that players can show. */
  captions?: string;
  /** What is heard in the ranges; null or left out where it is the film alone. */
  heard?: readonly HeardIn[] | null;
  format: OutputFormat;
}

/** Frames that are decoded while an earlier one is scaled and encoded; each has some megabytes. */
const DECODED_AHEAD = 4;

/** The sound of several ranges, one after the other. */
function joinedSound({ info, ranges, format }: RenderPlan): string {
  const whole = soundOnGrid(info, { start: 0, end: info.frames }, format.sampleRate);
  const outputs = ranges.map((_, i) => `[all${i}]`).join("");
  const parts = ranges.map(({ start, end }, i) => {
    const [from, to] = [start, end].map((frame) => frameToSeconds(frame, info.rate).toFixed(6));
    return `[all${i}]atrim=${from}:${to},asetpts=PTS-STARTPTS[part${i}]`;
  });
  const labels = ranges.map((_, i) => `[part${i}]`).join("");
  const split = `[${soundStream(1, info)}]${whole},asplit=${ranges.length}${outputs}`;
  return [split, ...parts, `${labels}concat=n=${ranges.length}:v=0:a=1[sound]`].join(";");
}

/** Input and codec arguments for the sound, in step with a picture that begins at 0. */
function soundArguments(plan: RenderPlan, { moving }: OwnPictures): { input: string[]; output: string[] } {
  const { file, info, ranges, format, heard } = plan;
  if (heard) {
    const { input, filter } = mixedSound(plan, heard, moving, format.sampleRate);
    return { input, output: ["-filter_complex", filter, "-map", "[sound]", ...format.sound] };
  }
  if (!info.audio) return { input: [], output: ["-an"] };
  if (ranges.length > 1) {
    const output = ["-filter_complex", joinedSound(plan), "-map", "[sound]", ...format.sound];
    return { input: readFrom(plan, 0), output };
  }
  const range = ranges[0]!;
  const map = ["-map", soundStream(1, info)];
  const whole = range.start === 0 && range.end === info.frames;
  // As it is in the film, where nothing has to be moved.
  const copy =
    whole && soundBeginsWithPicture(info) && format.soundsAsTheyAre.has(info.audio.codec) && info.grid.fileStart === 0;
  if (copy) return { input: reading(file), output: [...map, "-c:a", "copy"] };
  return {
    input: readFrom(plan, soundSeekSecondsFor(info, range.start)),
    output: [...map, "-af", soundOnGrid(info, range, format.sampleRate), ...format.sound],
  };
}

/** How many files arguments have ffmpeg read. */
const inputsIn = (args: readonly string[]): number => args.filter((arg) => arg === "-i").length;

/** Frames of one range after the other, with their numbers in the film. */
async function* decodeRanges(plan: RenderPlan, signal?: AbortSignal): AsyncGenerator<{ frame: number; data: Buffer }> {
  for (const range of plan.ranges) {
    let frame = range.start;
    for await (const data of decodeFrames(plan, { range, signal })) yield { frame: frame++, data };
  }
}

/**
 * Renders ranges of a film into a file: every frame is composed of its panes, each at its own sub-pixel place, and encoded
 * as the format says, with square pixels and Rec.709 tags; the sound goes along.
 *
 * @returns when the file is complete; `target` is overwritten
 */
export async function renderFilm(
  plan: RenderPlan,
  target: string,
  { onProgress, signal }: RenderOptions = {},
): Promise<void> {
  const { info, ranges, shown, format } = plan;
  const frames = framesIn(ranges);
  const { width, height } = plan.target;
  if (width % 2 || height % 2) throw new Error("the sides of the target must be even");
  const rate = `${info.rate.num}/${info.rate.den}`;
  const { captions } = plan;
  const maker = await FrameMaker.open(info.picture, plan.target, plan.own ?? NOTHING_OWN);
  const sound = soundArguments(plan, maker.pictures);
  const encoder = startFfmpeg(
    plan.name,
    [
      ...["-y", "-f", "rawvideo", "-pix_fmt", "yuv420p", "-s", `${width}x${height}`, "-r", rate, "-i", "pipe:0"],
      ...sound.input,
      ...(captions ? ["-f", "srt", "-i", `file:${captions}`] : []),
      ...["-map", "0:v:0", "-vf", "setsar=1", ...format.picture],
      ...REC709_TAGS,
      ...sound.output,
      ...(captions ? ["-map", `${1 + inputsIn(sound.input)}:s:0`, "-c:s", "mov_text"] : []),
      ...["-t", String(frameToSeconds(frames, info.rate)), ...format.muxer, writing(target)],
    ],
    signal,
  );
  encoder.stdout.resume();
  let done = 0;
  try {
    for await (const { frame, data } of readAhead(decodeRanges(plan, signal), DECODED_AHEAD)) {
      // The stream may hold on to what it is given, and the maker's frame is written again for the next one.
      await writeTo(encoder, Buffer.from(await maker.make(data, shown(frame))));
      done++;
      onProgress?.(done / frames);
    }
    encoder.stdin.end();
    await encoder.done;
  } finally {
    encoder.kill();
    await maker.close();
  }
}
