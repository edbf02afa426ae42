import type { Box, Size } from "~/core/geometry/box";
import { type BitDepth, pixelFormat } from "~/core/image/bit-depth";
import { framesPerSecond, frameToSeconds, type Rate } from "~/core/time/rate";
import { writeAside } from "~/disk/write-aside.server";
import { decodeFrames } from "./decode.server";
import type { FilmFile } from "./film-file";
import { pipedIn, REC709_TAGS, startFfmpeg, writing } from "./film-tool.server";
import { readFrom, soundOnGrid, soundStream } from "./on-grid.server";
import { readAhead } from "./read-ahead";
import { writeTo } from "./tool.server";

/** The format to which a clip is conformed. */
export interface Grid {
  picture: Size;
  rate: Rate;
  frames: number;
  /** Bits per sample. */
  depth: BitDepth;
  /** Place of the clip in the picture; the black around it is outside the clip's picture area. */
  area: Box;
}

export const CONFORMED_SOUND = { codec: "pcm_s16le", sampleRate: 48_000 };
const DECODED_AHEAD = 4;
/** Time units of MOV per frame, so that a frame is a whole number of them. */
const UNITS_PER_FRAME = 1000;
const LARGEST_TIMESCALE = 90_000;

/** Time units per second with which every frame begins at a whole one. */
export const timescaleOf = ({ num }: Rate): number =>
  num * UNITS_PER_FRAME <= LARGEST_TIMESCALE ? num * UNITS_PER_FRAME : num;

/** The clip's sound, or silence, exactly as long as its picture. */
function soundOf(film: FilmFile, { frames, rate }: Grid): { input: string[]; output: string[] } {
  const { sampleRate, codec } = CONFORMED_SOUND;
  const samples = Math.round(frameToSeconds(frames, rate) * sampleRate);
  const encode = ["-c:a", codec, "-ac", "2"];
  if (!film.info.audio) {
    return {
      input: ["-f", "lavfi", "-i", `anullsrc=r=${sampleRate}:cl=stereo,atrim=end_sample=${samples}`],
      output: ["-map", "1:a:0", ...encode],
    };
  }
  const onGrid = soundOnGrid(film.info, { start: 0, end: film.info.frames }, sampleRate);
  return {
    input: readFrom(film, 0),
    output: ["-map", soundStream(1, film.info), "-af", `${onGrid},apad,atrim=end_sample=${samples}`, ...encode],
  };
}

/**
 * Writes a clip as part of a film: at the film's rate, in its place in the film's picture, in Rec.709, with no visible loss
 * (H.264 at a constant quality of 10), and with sound of exactly the same length, so that such files can be read
 * consecutively without a seam.
 * @param onProgress 0 to 1
 * @throws FilmError if the clip cannot be decoded; CancelledError if the signal is aborted
 */
export async function conform(
  film: FilmFile,
  grid: Grid,
  target: string,
  { onProgress, signal }: { onProgress?: (share: number) => void; signal?: AbortSignal } = {},
): Promise<void> {
  const { info, name } = film;
  const { picture, rate, frames, area, depth } = grid;
  const sound = soundOf(film, grid);
  const fits = area.width === info.picture.width && area.height === info.picture.height;
  const filters = [
    ...(fits ? [] : [`scale=${area.width}:${area.height}:flags=lanczos`]),
    "setsar=1",
    `fps=${rate.num}/${rate.den}:round=near`,
    "tpad=stop=-1:stop_mode=clone",
    `pad=${picture.width}:${picture.height}:${area.x}:${area.y}:black`,
  ];
  await writeAside(target, async (aside) => {
    const encoder = startFfmpeg(
      name,
      [
        ...["-y", ...pipedIn(info.picture, pixelFormat(depth), info.rate), ...sound.input],
        ...["-map", "0:v:0", "-vf", filters.join(","), "-frames:v", String(frames)],
        ...["-c:v", "libx264", "-preset", "veryfast", "-crf", "10", "-pix_fmt", pixelFormat(depth), "-bf", "0"],
        ...["-g", String(Math.round(framesPerSecond(rate))), ...REC709_TAGS, ...sound.output],
        ...["-video_track_timescale", String(timescaleOf(rate)), "-f", "mov", writing(aside)],
      ],
      signal,
    );
    encoder.stdout.resume();
    let done = 0;
    try {
      for await (const frame of readAhead(decodeFrames(film, { depth, signal }), DECODED_AHEAD)) {
        await writeTo(encoder, frame);
        onProgress?.(++done / info.frames);
      }
      encoder.stdin.end();
      await encoder.done;
    } finally {
      encoder.kill();
    }
  });
}
