import { type FrameRange, framesPerSecond, type Rate } from "~/core/time/rate";
import { readFile } from "node:fs/promises";
import { tmpdir } from "node:os";
import type { Size } from "~/core/geometry/box";
import { withScratchFile } from "~/disk/write-aside.server";
import { reading, writing } from "./film-tool.server";
import { type SmallLuma, smallSize } from "./small-luma";
import { runTool } from "./tool.server";

/** What is wanted of the file. */
export interface Through {
  /** Frames per second, and the size of the picture. */
  rate: Rate;
  size: Size;
  /** Frames to return, reduced; in order. */
  frames?: readonly number[];
  signal?: AbortSignal | undefined;
}

/** Result of decoding a whole file once. */
export interface Decoded {
  /** The requested frames, as far as they exist. */
  pictures: ReadonlyMap<number, SmallLuma>;
  frames: number;
  /** Ranges that are black. */
  black: FrameRange[];
  /** Ranges in which the picture does not change. */
  frozen: FrameRange[];
}

/** Shortest range of each kind, in seconds. */
const LEAST = { black: 0.04, frozen: 1 };
/** Mean difference below which two pictures are the same, apart from encoding noise, in dB of full scale. */
const SAME_PICTURE = -60;

const print = (key: string): string => `metadata=mode=print:key=${key}:file=-:direct=1`;

/** Decodes a file from its first frame to its last. */
export const decodeThrough = (file: string, wanted: Through): Promise<Decoded> =>
  withScratchFile(tmpdir(), ".gray", (pictures) => decodeInto(pictures, file, wanted));

async function decodeInto(pictures: string, file: string, { rate, size, frames: wanted = [], signal }: Through) {
  const keys = [
    "lavfi.black_start",
    "lavfi.black_end",
    "lavfi.freezedetect.freeze_start",
    "lavfi.freezedetect.freeze_end",
  ];
  const looked = [
    `blackdetect=d=${LEAST.black}:pix_th=0.08:pic_th=0.995`,
    `freezedetect=n=${SAME_PICTURE}dB:d=${LEAST.frozen}`,
    ...keys.map(print),
  ].join(",");
  const small = smallSize(size);
  const taken = `select='${wanted.map((frame) => `eq(n,${frame})`).join("+") || "0"}',scale=${small.width}:${small.height}:flags=area:out_color_matrix=bt709:out_range=tv,format=yuv420p,extractplanes=y`;
  const said = await runTool(
    "ffmpeg",
    [
      ...["-y", "-v", "error", "-nostdin", "-progress", "pipe:1", ...reading(file), "-an", "-sn"],
      ...["-filter_complex", `[0:v:0]split[a][b];[a]${looked}[looked];[b]${taken}[taken]`],
      ...["-map", "[looked]", "-f", "null", "-"],
      ...["-map", "[taken]", "-vsync", "passthrough", "-c:v", "rawvideo", "-f", "rawvideo", writing(pictures)],
    ],
    signal,
  );
  const fps = framesPerSecond(rate);
  const frames = Number([...said.matchAll(/^frame=(\d+)$/gm)].at(-1)?.[1] ?? 0);
  const values = (key: string) =>
    [...said.matchAll(new RegExp(`^${key.replaceAll(".", "\\.")}=([\\d.]+)$`, "gm"))].map((match) => Number(match[1]));
  const ranges = (start: string, end: string): FrameRange[] => {
    const ends = values(end);
    return values(start).map((from, i) => ({
      start: Math.round(from * fps),
      // A range that lasts to the end of the file has no end of its own.
      end: Math.min(frames, ends[i] === undefined ? frames : Math.round(ends[i] * fps)),
    }));
  };
  const bytes = await readFile(pictures);
  const each = small.width * small.height;
  const there = wanted.filter((frame) => frame < frames);
  return {
    pictures: new Map(there.map((frame, i) => [frame, Uint8Array.from(bytes.subarray(i * each, (i + 1) * each))])),
    frames,
    black: ranges(keys[0]!, keys[1]!),
    frozen: ranges(keys[2]!, keys[3]!),
  };
}
