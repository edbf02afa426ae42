import type { Size } from "~/core/geometry/box";
import { type FrameRange, framesPerSecond } from "~/core/time/rate";
import { FilmError, reading, startFfmpeg } from "./film-tool.server";
import type { FilmInfo } from "./film-file";

export interface DecodeOptions {
  /** Size of the frames, for looking at; left out, they have the displayed size and the colours to render with. */
  size?: Size;
  /** Size of a second, smaller copy of each frame, which is stacked under it. */
  copy?: Size;
  /** Reduces the frames once more, by the mean of each block of pixels, to what is then given instead. */
  reduceTo?: Size;
  /** Frames wanted; the whole film if left out. */
  range?: FrameRange;
  signal?: AbortSignal;
}

const isHdr = (info: FilmInfo) => info.colour.transfer === "smpte2084" || info.colour.transfer === "arib-std-b67";

/** PQ or HLG to Rec.709 at a reference white of 203 cd/m² (ITU-R BT.2408). */
const TONE_MAP =
  "zscale=t=linear:npl=203,format=gbrpf32le,zscale=p=bt709,tonemap=tonemap=mobius:desat=0,zscale=t=bt709:m=bt709:r=tv";

const reduction = ({ width, height }: Size) => `scale=${width}:${height}:flags=area`;

/** Filters that bring a film to the wanted size, to 4:2:0, to its frame grid, and to Rec.709 where it differs. */
function filters(info: FilmInfo, { size, copy, reduceTo }: DecodeOptions): string {
  const chain: string[] = [];
  if (info.variableRate) chain.push(`fps=${info.rate.num}/${info.rate.den}`);
  if (size) chain.push(`scale=${size.width}:${size.height}:flags=fast_bilinear:out_range=tv`);
  else {
    const other = ["smpte170m", "bt470bg", "fcc", "smpte240m"].includes(info.colour.matrix);
    if (isHdr(info)) chain.push(TONE_MAP);
    if (info.nonSquarePixels || other || info.colour.range === "pc") {
      const { width, height } = info.picture;
      chain.push(`scale=${width}:${height}:flags=bicubic:out_color_matrix=bt709:out_range=tv`);
    }
  }
  chain.push("setsar=1", "format=yuv420p");
  if (reduceTo) chain.push(`${reduction(reduceTo)},setsar=1`);
  if (!copy) return chain.join(",");
  const { width } = stackedSize(size ?? info.picture, copy);
  return [
    `${chain.join(",")},split[whole][again]`,
    `[again]${reduction(copy)},setsar=1,pad=${width}:${copy.height}[copy]`,
    `[whole]pad=${width}:ih[wide]`,
    "[wide][copy]vstack",
  ].join(";");
}

/** Size of a frame with a copy under it. */
export const stackedSize = (frame: Size, copy: Size): Size => ({
  width: Math.max(frame.width, copy.width),
  height: frame.height + copy.height,
});

const bytesPerFrame = ({ width, height }: Size): number =>
  width * height + 2 * Math.ceil(width / 2) * Math.ceil(height / 2);

/**
 * Seconds to seek to so that the first frame that comes out is `frame`: half a frame early. A film of variable
 * rate is read from its beginning, because its grid is made by the filter.
 */
function seekArguments(info: FilmInfo, frame: number): string[] {
  if (frame === 0 || info.variableRate) return [];
  return ["-ss", String(info.videoStart + (frame - 0.5) / framesPerSecond(info.rate))];
}

/**
 * Decodes frames in order, one buffer each, as planes of 4:2:0. Each buffer is the caller's to keep.
 *
 * @throws FilmError if the film ends before the range does
 */
export async function* decodeFrames(
  file: string,
  name: string,
  info: FilmInfo,
  options: DecodeOptions,
): AsyncGenerator<Buffer> {
  const range = options.range ?? { start: 0, end: info.frames };
  const tool = startFfmpeg(
    name,
    [
      ...[...seekArguments(info, range.start), ...reading(file), "-map", "0:v:0", "-an", "-sn"],
      ...["-vf", filters(info, options), "-fps_mode", "passthrough", "-f", "rawvideo", "pipe:1"],
    ],
    options.signal,
  );
  tool.stdin.end();
  const whole = options.reduceTo ?? options.size ?? info.picture;
  const length = bytesPerFrame(options.copy ? stackedSize(whole, options.copy) : whole);
  let skip = info.variableRate ? range.start : 0;
  let given = 0;
  let frame = Buffer.allocUnsafe(length);
  let filled = 0;
  try {
    for await (const chunk of tool.stdout as AsyncIterable<Buffer>) {
      for (let at = 0; at < chunk.length;) {
        const count = Math.min(length - filled, chunk.length - at);
        chunk.copy(frame, filled, at, at + count);
        filled += count;
        at += count;
        if (filled < length) continue;
        filled = 0;
        if (skip > 0) {
          skip--;
          continue;
        }
        yield frame;
        frame = Buffer.allocUnsafe(length);
        given++;
        if (given === range.end - range.start) return;
      }
    }
    await tool.done;
    throw new FilmError(
      `${name}: the film ends after frame ${range.start + given} of ${info.frames}; it is cut off or damaged. Copy or export it again.`,
    );
  } finally {
    tool.kill();
  }
}
