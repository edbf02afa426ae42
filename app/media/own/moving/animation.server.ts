/** Converts animated pictures, and numbered pictures, to lossless films: ffmpeg reads neither directly. */
import sharp from "sharp";
import type { Size } from "~/core/geometry/box";
import { formatRate, type Rate } from "~/core/time/rate";
import { pipedIn, startFfmpeg, writing } from "../../film-tool.server";
import { writeTo } from "../../tool.server";
import { OwnFileError } from "../own-file";
import { ownFileErrors } from "~/texts/own-file-errors";

const t = ownFileErrors.picture;

/** Most pixels of all frames together, which are in memory at once. */
const MOST_PIXELS = 250_000_000;
/** Milliseconds per frame of an animation without delays, as in browsers. */
const USUAL_DELAY = 100;
/** Highest frame rate of a converted animation. */
const MOST_RATE = 60;

/** Whether a file is an animated WebP picture, by the flag in its header (RFC 9649). */
export const isAnimatedWebp = (bytes: Buffer): boolean =>
  bytes.toString("latin1", 12, 16) === "VP8X" && (bytes[20]! & 0b10) !== 0;

/** Writes straight RGBA frames as PNG pictures in a QuickTime file. */
async function writeFilm(
  frames: AsyncIterable<Buffer>,
  size: Size,
  rate: Rate,
  name: string,
  target: string,
): Promise<void> {
  const encoder = startFfmpeg(name, [
    ...["-y", ...pipedIn(size, "rgba", rate), "-c:v", "png", "-pred", "mixed", "-f", "mov", writing(target)],
  ]);
  encoder.stdout.resume();
  try {
    for await (const frame of frames) await writeTo(encoder, frame);
    encoder.stdin.end();
    await encoder.done;
  } finally {
    encoder.kill();
  }
}

/** Number of times that each frame of an animation is repeated at an even rate. */
export function evenly(delays: readonly number[]): { rate: Rate; times: number[] } {
  const told = delays.map((delay) => (delay > 10 ? delay : USUAL_DELAY));
  const fps = Math.min(MOST_RATE, Math.round(1000 / Math.min(...told)));
  let passed = 0;
  let written = 0;
  const times = told.map((delay) => {
    passed += delay;
    const count = Math.max(0, Math.round((passed * fps) / 1000) - written);
    written += count;
    return count;
  });
  return { rate: { num: Math.max(1, fps), den: 1 }, times };
}

/**
 * Makes a film of an animated picture.
 * @throws OwnFileError if it is damaged or too large
 */
export async function animationToFilm(bytes: Buffer, name: string, target: string): Promise<void> {
  const {
    width = 0,
    pages = 1,
    pageHeight = 0,
    delay = [],
  } = await sharp(bytes, { animated: true })
    .metadata()
    .catch(() => {
      throw new OwnFileError(`${name}: ${t.animationDamaged}`);
    });
  if (width * pageHeight * pages > MOST_PIXELS) {
    throw new OwnFileError(`${name}: ${t.animationTooLarge}`);
  }
  const { data } = await sharp(bytes, { animated: true, limitInputPixels: MOST_PIXELS })
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
    .catch(() => {
      throw new OwnFileError(`${name}: ${t.animationDamaged}`);
    });
  const length = 4 * width * pageHeight;
  const { rate, times } = evenly(Array.from({ length: pages }, (_, page) => delay[page] ?? USUAL_DELAY));
  async function* frames() {
    for (const [page, count] of times.entries()) {
      const frame = data.subarray(page * length, (page + 1) * length);
      for (let i = 0; i < count; i++) yield frame;
    }
  }
  await writeFilm(frames(), { width, height: pageHeight }, rate, name, target);
}

/** The numbered pictures of a sequence, in order. */
export const inSequence = <T extends { name: string }>(files: readonly T[]): T[] =>
  [...files].sort((a, b) => a.name.localeCompare(b.name, "en", { numeric: true }));

/**
 * Makes a film of pictures of one size, a frame each.
 * @param rate of the film that it is for
 * @throws OwnFileError if one is damaged, or has another size than the first
 */
export async function sequenceToFilm(
  files: readonly { name: string; bytes: Buffer }[],
  rate: Rate,
  target: string,
): Promise<void> {
  const [first] = files;
  const read = ({ name, bytes }: { name: string; bytes: Buffer }) =>
    sharp(bytes)
      .ensureAlpha()
      .toColourspace("srgb")
      .raw({ depth: "uchar" })
      .toBuffer({ resolveWithObject: true })
      .catch(() => {
        throw new OwnFileError(`${name}: ${t.damaged}`);
      });
  const { width, height } = (await read(first!)).info;
  async function* frames() {
    for (const file of files) {
      const { data, info } = await read(file);
      if (info.width !== width || info.height !== height) {
        const is = `${info.width} × ${info.height}`;
        throw new OwnFileError(`${file.name}: ${t.otherSize(is, first!.name, `${width} × ${height}`)}`);
      }
      yield data;
    }
  }
  await writeFilm(frames(), { width, height }, rate, `${first!.name} (${formatRate(rate)} frames per second)`, target);
}
