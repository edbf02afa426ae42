import type { Box, Size } from "~/core/geometry/box";
import { type BitDepth, bytesPerSample, pixelFormat } from "~/core/image/bit-depth";
import type { FrameRange } from "~/core/time/rate";
import { FilmError, startFfmpeg } from "./film-tool.server";
import type { FilmInfo, GridInFile } from "~/core/film/film-info";
import type { FilmFile } from "./film-file";
import { onGrid, readFrom, seekSecondsFor } from "./on-grid.server";
import { REMARKS } from "./tool.server";
import { wholeBuffers } from "./whole-buffers";
import { filmErrors } from "~/texts/film-errors";

const t = filmErrors.decoding;

export interface DecodeOptions {
  /** Size of the frames; left out, they have the displayed size. */
  size?: Size;
  /** The colours to show them with; left out for frames of another size, they are as stored, which is quicker. */
  colours?: "Rec.709";
  /** Bits of a sample; 8 if left out. Samples of 10 bits have two bytes each. */
  depth?: BitDepth;
  /** Size of a second, smaller copy of each frame, which is stacked under it. */
  copy?: Size;
  /** Reduces the frames once more, by the mean of each block of pixels, to what is then given instead. */
  reduceTo?: Size;
  /** Whether the key picture before a frame will do for it, which is found much sooner. */
  keyPicturesDo?: boolean;
  /**
   * Whether the edges of a codec's blocks may stay unsmoothed in pictures between those that the rest is decoded from,
   * which saves a tenth of the decoding or more. Much reduced, a picture does not show them.
   */
  blocksMayShow?: boolean;
  /** The part of the picture that the copy, or what is reduced, is of; all of it if null or left out. */
  of?: Box | null;
  /** Frames wanted; the whole film if left out. */
  range?: FrameRange;
  /**
   * Frames that may wait, small ones only, for whoever takes them to be done with something longer. Without it the decoder
   * stops after the few that are in its pipe.
   */
  waiting?: number;
  /** From each frame that is wanted to the next; every frame if left out. */
  every?: number;
  /** Takes the time of each picture that could be decoded, in seconds of the file's own time. */
  onDecoded?: (seconds: number) => void;
  signal?: AbortSignal;
}

/** Lets ffmpeg write a remark for each picture that it has decoded. */
const REMARK_PICTURES = `metadata=mode=add:key=decoded:value=1,metadata=mode=print:direct=1:file='pipe\\:${REMARKS}'`;

/** Matrices of standard definition and of early HDTV. */
const OTHER_MATRICES = new Set(["smpte170m", "bt470bg", "fcc", "smpte240m"]);
/** Lines of the largest picture that is of standard definition, and so of Rec.601 where it does not say. */
const STANDARD_LINES = 576;

/** What ffmpeg is told of a film's matrix: what the file says, or what players take a file for that does not. */
function matrixOf({ colour, picture }: FilmInfo): { other: boolean; input: string } {
  const unsaid = colour.matrix === "unknown" && picture.height <= STANDARD_LINES;
  return { other: unsaid || OTHER_MATRICES.has(colour.matrix), input: unsaid ? "in_color_matrix=bt601:" : "" };
}

/** The same where what comes out of the scaler has no matrix, as RGB. */
export const inputMatrix = ({ colour, picture }: FilmInfo): string =>
  `in_color_matrix=${colour.matrix !== "unknown" ? "auto" : picture.height <= STANDARD_LINES ? "bt601" : "bt709"}`;

const isHdr = (info: FilmInfo) => info.colour.transfer === "smpte2084" || info.colour.transfer === "arib-std-b67";

/** PQ or HLG to Rec.709 at a reference white of 203 cd/m² (ITU-R BT.2408). */
const TONE_MAP =
  "zscale=t=linear:npl=203,format=gbrpf32le,zscale=p=bt709,tonemap=tonemap=mobius:desat=0,zscale=t=bt709:m=bt709:r=tv";

/** Filters that reduce what is in a part of the frames, given in the film's displayed pixels. */
function reduction(info: FilmInfo, { size = info.picture, of }: DecodeOptions, { width, height }: Size): string {
  const steps = [`scale=${width}:${height}:flags=area`, "setsar=1"];
  if (of) {
    const scale = { x: size.width / info.picture.width, y: size.height / info.picture.height };
    // Not a line of what is beside the part.
    const [left, top] = [Math.ceil(of.x * scale.x), Math.ceil(of.y * scale.y)];
    const [right, bottom] = [Math.floor((of.x + of.width) * scale.x), Math.floor((of.y + of.height) * scale.y)];
    steps.unshift(`crop=${right - left}:${bottom - top}:${left}:${top}:exact=1`);
  }
  return steps.join(",");
}

/** Filters that bring a film to the wanted size, to 4:2:0, to its frame grid, and to Rec.709 where it differs. */
function filters(info: FilmInfo, range: FrameRange, options: DecodeOptions): string {
  const { size, colours, copy, reduceTo, every = 1, depth = 8 } = options;
  const chain: string[] = [...(options.onDecoded ? [REMARK_PICTURES] : []), onGrid(info, range)];
  if (every > 1) chain.push(`select=not(mod(n\\,${every}))`);
  const { width, height } = size ?? info.picture;
  if (size && !colours) chain.push(`scale=${width}:${height}:flags=fast_bilinear:out_range=tv`);
  else {
    const { other, input } = matrixOf(info);
    const flags = size ? "fast_bilinear" : "bicubic";
    // Fewer pixels first: tone mapping is slow.
    if (size && isHdr(info)) chain.push(`scale=${width}:${height}:flags=${flags}`);
    if (isHdr(info)) chain.push(TONE_MAP);
    if (size || info.nonSquarePixels || other || info.colour.range === "pc") {
      chain.push(`scale=${width}:${height}:flags=${flags}:${input}out_color_matrix=bt709:out_range=tv`);
    }
  }
  chain.push("setsar=1", `format=${pixelFormat(depth)}`);
  if (reduceTo) chain.push(reduction(info, options, reduceTo));
  if (!copy) return chain.join(",");
  const stacked = stackedSize({ width, height }, copy);
  return [
    `${chain.join(",")},split[whole][again]`,
    `[again]${reduction(info, options, copy)},pad=${stacked.width}:${copy.height}[copy]`,
    `[whole]pad=${stacked.width}:ih[wide]`,
    "[wide][copy]vstack",
  ].join(";");
}

/** Size of a frame with a copy under it. */
export const stackedSize = (frame: Size, copy: Size): Size => ({
  width: Math.max(frame.width, copy.width),
  height: frame.height + copy.height,
});

const bytesPerFrame = ({ width, height }: Size, depth: BitDepth): number =>
  (width * height + 2 * Math.ceil(width / 2) * Math.ceil(height / 2)) * bytesPerSample(depth);

/** Where a film cannot be read from the place that was meant, it is read from so many seconds earlier, or its beginning. */
const EARLIER_SECONDS = 30;

/** "frame:12   pts:6144   pts_time:0.4": the time that is written out is rounded. */
function readRemark(line: string, { timeBase, late }: GridInFile, onDecoded: (seconds: number) => void): void {
  const stamp = /^frame:\d+\s+pts:(-?\d+)/.exec(line)?.[1];
  if (stamp !== undefined) onDecoded(Number(stamp) * timeBase - late);
}

/** Where frames go as they are; small ones, which may wait, are not worth more than one thread to filter. */
const rawVideo = ({ waiting }: DecodeOptions): string[] =>
  waiting
    ? [
        ...["-filter_threads", "1", "-filter_complex_threads", "1", "-c:v", "rawvideo"],
        ...["-f", "fifo", "-fifo_format", "rawvideo", "-queue_size", String(waiting), "pipe:1"],
      ]
    : ["-f", "rawvideo", "pipe:1"];

/** Frames of a range, as ffmpeg gives them when it reads from a number of seconds after the file's beginning. */
async function* framesFrom(
  film: FilmFile,
  input: string[],
  range: FrameRange,
  options: DecodeOptions,
): AsyncGenerator<Buffer> {
  const { info } = film;
  const { onDecoded, every = 1, depth = 8 } = options;
  const count = Math.ceil((range.end - range.start) / every);
  const tool = startFfmpeg(
    film.name,
    [
      // A thread for each of several pictures only delays the first.
      ...(options.keyPicturesDo ? ["-skip_frame", "nokey", "-threads", "1"] : []),
      ...(options.blocksMayShow ? ["-skip_loop_filter", "bidir"] : []),
      ...[...input, "-map", "0:V:0", "-an", "-sn", "-dn", "-vf", filters(info, range, options)],
      ...["-frames:v", String(count), "-fps_mode", "passthrough", ...rawVideo(options)],
    ],
    options.signal,
    onDecoded && { onRemark: (line) => readRemark(line, info.grid, onDecoded) },
  );
  tool.stdin.end();
  const whole = options.reduceTo ?? options.size ?? info.picture;
  const length = bytesPerFrame(options.copy ? stackedSize(whole, options.copy) : whole, depth);
  let given = 0;
  try {
    for await (const frame of wholeBuffers(tool.stdout as AsyncIterable<Buffer>, length)) {
      yield frame;
      given++;
      // Remarks on the last pictures may still be on their way.
      if (given === count && !onDecoded) return;
    }
    await tool.done;
  } finally {
    tool.kill();
  }
}

/**
 * Decodes frames of the film's grid in order, one buffer each, as planes of 4:2:0. Each buffer is the caller's to keep.
 * A picture that is not there, or cannot be decoded, is the one before.
 *
 * @throws FilmError if nothing of the film can be decoded
 */
export async function* decodeFrames(film: FilmFile, options: DecodeOptions): AsyncGenerator<Buffer> {
  const { start, end } = options.range ?? { start: 0, end: film.info.frames };
  const seek = seekSecondsFor(film.info, start);
  let next = start;
  // A part of the film that is damaged may hold no picture to begin with; then an earlier one stands.
  for (const earlier of [0, EARLIER_SECONDS, Infinity]) {
    const input = readFrom(film, start === 0 ? 0 : Math.max(0, seek - earlier));
    for await (const frame of framesFrom(film, input, { start: next, end }, options)) {
      next += options.every ?? 1;
      yield frame;
    }
    if (next >= end) return;
    if (start === 0 || seek - earlier <= 0) break;
  }
  throw new FilmError(`${film.name}: ${next === 0 ? t.nothingDecodes : t.stopsAt(next)}`);
}
