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
  /** Size of the frames; the displayed size if left out. */
  size?: Size;
  /** Colours of the frames; if left out, frames of another size have them as stored, which is faster. */
  colours?: "Rec.709";
  /** Bits per sample; 8 if left out. 10-bit samples have two bytes each. */
  depth?: BitDepth;
  /** Size of a second, smaller copy of each frame, which is stacked below it. */
  copy?: Size;
  /** Reduces the frames further, by the mean of each block of pixels; only the result is returned. */
  reduceTo?: Size;
  /** Whether the key frame before a frame is good enough, which is found much faster. */
  keyPicturesDo?: boolean;
  /**
   * Whether deblocking may be skipped in pictures on which no others depend, which saves a tenth of the decoding or more.
   * In much reduced pictures it does not show.
   */
  blocksMayShow?: boolean;
  /** The part of the picture of the copy, or of the reduced frames; all of it if null or left out. */
  area?: Box | null;
  /** Frames wanted; the whole film if left out. */
  range?: FrameRange;
  /**
   * Number of frames, only of small ones, that are buffered while their reader is busy. Without it the decoder pauses after
   * the few that fit its pipe.
   */
  waiting?: number;
  /** Step between wanted frames; 1 if left out. */
  every?: number;
  /** Called with the time of each decoded picture, in seconds of the file's own time. */
  onDecoded?: (seconds: number) => void;
  signal?: AbortSignal;
}

/** Makes ffmpeg print a line for each picture it has decoded. */
const REMARK_PICTURES = `metadata=mode=add:key=decoded:value=1,metadata=mode=print:direct=1:file='pipe\\:${REMARKS}'`;

/** Matrices of standard definition and early HDTV. */
const OTHER_MATRICES = new Set(["smpte170m", "bt470bg", "fcc", "smpte240m"]);
/** Most lines of a standard definition picture, which has Rec.601 unless it says otherwise. */
const STANDARD_LINES = 576;

/** ffmpeg's name of a film's matrix: that in the file, or the one players assume. */
function matrixOf({ colour, picture }: FilmInfo): { other: boolean; input: string } {
  const unsaid = colour.matrix === "unknown" && picture.height <= STANDARD_LINES;
  return { other: unsaid || OTHER_MATRICES.has(colour.matrix), input: unsaid ? "in_color_matrix=bt601:" : "" };
}

/** The same where the output of the scaler has no matrix, as with RGB. */
export const inputMatrix = ({ colour, picture }: FilmInfo): string =>
  `in_color_matrix=${colour.matrix !== "unknown" ? "auto" : picture.height <= STANDARD_LINES ? "bt601" : "bt709"}`;

const isHdr = (info: FilmInfo) => info.colour.transfer === "smpte2084" || info.colour.transfer === "arib-std-b67";

/** From PQ or HLG to Rec.709 at a reference white of 203 cd/m² (ITU-R BT.2408). */
const TONE_MAP =
  "zscale=t=linear:npl=203,format=gbrpf32le,zscale=p=bt709,tonemap=tonemap=mobius:desat=0,zscale=t=bt709:m=bt709:r=tv";

/** Filters that reduce a part of the frames, given in the film's displayed pixels. */
function reduction(info: FilmInfo, { size = info.picture, area }: DecodeOptions, { width, height }: Size): string {
  const steps = [`scale=${width}:${height}:flags=area`, "setsar=1"];
  if (area) {
    const scale = { x: size.width / info.picture.width, y: size.height / info.picture.height };
    // Without any line from beside the part.
    const [left, top] = [Math.ceil(area.x * scale.x), Math.ceil(area.y * scale.y)];
    const [right, bottom] = [Math.floor((area.x + area.width) * scale.x), Math.floor((area.y + area.height) * scale.y)];
    steps.unshift(`crop=${right - left}:${bottom - top}:${left}:${top}:exact=1`);
  }
  return steps.join(",");
}

/** Filters that convert a film to the wanted size, to 4:2:0, to its frame grid, and to Rec.709 where it differs. */
function filters(info: FilmInfo, range: FrameRange, options: DecodeOptions): string {
  const { size, colours, copy, reduceTo, every = 1, depth = 8 } = options;
  const chain: string[] = [...(options.onDecoded ? [REMARK_PICTURES] : []), onGrid(info, range)];
  if (every > 1) chain.push(`select=not(mod(n\\,${every}))`);
  const { width, height } = size ?? info.picture;
  if (size && !colours) chain.push(`scale=${width}:${height}:flags=fast_bilinear:out_range=tv`);
  else {
    const { other, input } = matrixOf(info);
    const flags = size ? "fast_bilinear" : "bicubic";
    // Scaled down first, because tone mapping is slow.
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

/** Size of a frame with a copy below it. */
export const stackedSize = (frame: Size, copy: Size): Size => ({
  width: Math.max(frame.width, copy.width),
  height: frame.height + copy.height,
});

const bytesPerFrame = ({ width, height }: Size, depth: BitDepth): number =>
  (width * height + 2 * Math.ceil(width / 2) * Math.ceil(height / 2)) * bytesPerSample(depth);

/** Seconds by which reading begins earlier where it fails at the intended place; then at the file's start. */
const EARLIER_SECONDS = 30;

/** "frame:12 pts:6144 pts_time:0.4": the printed time is rounded. */
function readRemark(line: string, { timeBase, late }: GridInFile, onDecoded: (seconds: number) => void): void {
  const stamp = /^frame:\d+\s+pts:(-?\d+)/.exec(line)?.[1];
  if (stamp !== undefined) onDecoded(Number(stamp) * timeBase - late);
}

/** Output arguments; small buffered frames are not worth more than one filter thread. */
const rawVideo = ({ waiting }: DecodeOptions): string[] =>
  waiting
    ? [
        ...["-filter_threads", "1", "-filter_complex_threads", "1", "-c:v", "rawvideo"],
        ...["-f", "fifo", "-fifo_format", "rawvideo", "-queue_size", String(waiting), "pipe:1"],
      ]
    : ["-f", "rawvideo", "pipe:1"];

/** Frames of a range, read by ffmpeg from some seconds after the file's start. */
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
      // A thread per picture would only delay the first.
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
      // Lines about the last pictures may still be on their way.
      if (given === count && !onDecoded) return;
    }
    await tool.done;
  } finally {
    tool.kill();
  }
}

/**
 * Decodes frames of the film's grid in order, one buffer each, as 4:2:0 planes. The caller owns each buffer. A missing or
 * undecodable picture is replaced by the one before.
 * @throws FilmError if nothing of the film can be decoded
 */
export async function* decodeFrames(film: FilmFile, options: DecodeOptions): AsyncGenerator<Buffer> {
  const { start, end } = options.range ?? { start: 0, end: film.info.frames };
  const seek = seekSecondsFor(film.info, start);
  let next = start;
  // A damaged part may contain no picture to begin with; then an earlier one is held.
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
