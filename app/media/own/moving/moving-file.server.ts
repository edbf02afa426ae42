/** Moving pictures as they are read, with their alpha. */
import { z } from "zod";
import { MOST_MOVING_BYTES, MOST_MOVING_SECONDS, type Picture } from "~/core/composition/picture";
import { frameToSeconds, type FrameRange } from "~/core/time/rate";
import type { Size } from "~/core/geometry/box";
import { inputMatrix } from "../../decode.server";
import type { FilmFile } from "../../film-file";
import { FilmError, probe, startFfmpeg } from "../../film-tool.server";
import { onGrid, readFrom, seekSecondsFor } from "../../on-grid.server";
import { probeFilm } from "../../probe.server";
import { wholeBuffers } from "../../whole-buffers";
import { OwnFileError } from "../own-file";
import { ownFileErrors } from "~/texts/own-file-errors";

const t = ownFileErrors.film;

export interface MovingFile extends FilmFile {
  /** Whether it has transparency. */
  hasAlpha: boolean;
  /** Decoder arguments of ffmpeg: its own decoder of some formats ignores alpha. */
  decoder: string[];
}

const Streams = z.object({
  streams: z
    .array(
      z.object({
        codec_name: z.string().optional(),
        pix_fmt: z.string().optional(),
        tags: z.record(z.string(), z.string()).optional(),
      }),
    )
    .min(1),
});

/** Pixel formats with alpha, by ffmpeg's names. */
const WITH_ALPHA = /^(yuva|rgba|bgra|argb|abgr|gbrap|ya\d|pal8)/;
const VPX: Record<string, string> = { vp8: "libvpx", vp9: "libvpx-vp9" };

async function alphaOf(file: string): Promise<Pick<MovingFile, "hasAlpha" | "decoder">> {
  const entries = "stream=codec_name,pix_fmt:stream_tags=alpha_mode";
  const json = await probe(file, ["-select_streams", "V:0", "-show_entries", entries, "-of", "json"]);
  const { codec_name = "", pix_fmt = "", tags = {} } = Streams.parse(JSON.parse(json)).streams[0]!;
  const beside = Object.entries(tags).some(([name, value]) => name.toLowerCase() === "alpha_mode" && value === "1");
  const reader = beside ? VPX[codec_name] : undefined;
  return {
    hasAlpha: reader !== undefined || WITH_ALPHA.test(pix_fmt),
    decoder: reader ? ["-c:v", reader] : [],
  };
}

/** @throws OwnFileError if it cannot be used */
export async function openMoving(file: string, name: string): Promise<MovingFile> {
  try {
    return { file, name, info: await probeFilm(file, name), ...(await alphaOf(file)) };
  } catch (error) {
    if (error instanceof FilmError) throw new OwnFileError(error.message);
    throw error;
  }
}

/**
 * Facts about a moving picture for layers, backdrops and panes.
 * @throws OwnFileError if it is too large or too long
 */
export function pictureOf({ name, info }: MovingFile, id: string): Picture {
  const { picture, frames, rate, audio, bytes } = info;
  if (bytes > MOST_MOVING_BYTES) {
    throw new OwnFileError(`${name}: ${t.tooManyBytes(MOST_MOVING_BYTES / 2 ** 30)}`);
  }
  if (frameToSeconds(frames, rate) > MOST_MOVING_SECONDS) {
    throw new OwnFileError(`${name}: ${t.tooLong(MOST_MOVING_SECONDS / 60)}`);
  }
  return { id, name, ...picture, moving: { frames, rate, sound: audio !== null } };
}

/**
 * Decodes frames in order as straight RGBA, four bytes per pixel.
 * @param size of the frames
 */
export async function* decodeRgba(
  moving: MovingFile,
  { width, height }: Size,
  range: FrameRange,
  signal?: AbortSignal,
): AsyncGenerator<Buffer> {
  const { info, decoder, name } = moving;
  const scaled = `scale=${width}:${height}:flags=bicubic:${inputMatrix(info)}`;
  const tool = startFfmpeg(
    name,
    [
      ...[...decoder, ...readFrom(moving, seekSecondsFor(info, range.start)), "-map", "0:V:0", "-an"],
      ...["-vf", `${onGrid(info, range)},${scaled},format=rgba`, "-frames:v", String(range.end - range.start)],
      ...["-fps_mode", "passthrough", "-f", "rawvideo", "pipe:1"],
    ],
    signal,
  );
  tool.stdin.end();
  try {
    yield* wholeBuffers(tool.stdout as AsyncIterable<Buffer>, 4 * width * height);
    await tool.done;
  } finally {
    tool.kill();
  }
}
