/** Renders to a file with a size limit, in two passes: the first finds out what is hard to encode. */
import { stat } from "node:fs/promises";
import { join } from "node:path";
import { frameToSeconds } from "~/core/time/rate";
import { withFolderBeside } from "~/disk/write-aside.server";
import { FilmError, writing } from "../film-tool.server";
import type { FrameMaker } from "../frame-maker.server";
import { counting, pipeAll, type RenderOptions, startEncoder } from "./encode.server";
import { joinSound } from "./join-sound.server";
import { outputOf, type RenderPlan } from "./plan";
import { filmErrors } from "~/texts/film-errors";

const t = filmErrors.encoding;

/** Share reserved for the container and for an encoder that exceeds its target. */
const SPARE = 0.03;
/** Most bits of sound per second. */
const SOUND_BITS = 200_000;
/** Bits per pixel below which nothing is recognisable. */
const LEAST_BITS_PER_PIXEL = 0.004;
/** Number of attempts for a file that is too large. */
const TRIES = 3;

/** Options for a bit rate instead of a quality: encoders take one or the other. */
const atRate = (bits: number): string[] => [
  "-b:v",
  String(Math.round(bits)),
  "-maxrate",
  String(Math.round(2 * bits)),
  "-bufsize",
  String(Math.round(4 * bits)),
];

/**
 * @param mostMegabytes of a million bytes each
 * @throws FilmError if that is too little for a film of this length and size
 */
export async function renderWithin(
  plan: RenderPlan,
  target: string,
  maker: FrameMaker,
  mostMegabytes: number,
  options: RenderOptions,
): Promise<void> {
  const output = outputOf(plan);
  const { format, frames, rate } = output;
  const { signal, onProgress } = options;
  const seconds = frameToSeconds(frames.length, rate);
  const most = mostMegabytes * 1e6;
  const soundBits = format.sound && (plan.info.audio || plan.heard) ? SOUND_BITS : 0;
  const { width, height } = plan.target;
  let bits = ((1 - SPARE) * 8 * most) / seconds - soundBits;
  if (bits < (LEAST_BITS_PER_PIXEL * width * height * frames.length) / seconds) {
    throw new FilmError(`${plan.name}: ${t.sizeTooSmall(mostMegabytes, seconds, width, height)}`);
  }
  await withFolderBeside(target, async (folder) => {
    const [log, picture] = [join(folder, "passes"), join(folder, "picture.nut")];
    const pass = (number: 1 | 2, share: (done: number) => number) =>
      pipeAll(
        plan,
        maker,
        startEncoder(plan, output, number === 1 ? "/dev/null" : picture, {
          more: [...atRate(bits), ...format.passes!(number, log)],
          muxer: ["-f", number === 1 ? "null" : "nut"],
          isAtRate: true,
          signal,
        }),
        counting(output, { signal, onProgress: (done) => onProgress?.(share(done)) }),
      );
    await pass(1, (done) => done / 2);
    for (let attempt = 0; attempt < TRIES; attempt++) {
      await pass(2, (done) => (1 + done) / 2);
      await joinSound(plan, ["-f", "nut", "-i", writing(picture)], target, maker.pictures, folder, signal);
      const { size } = await stat(target);
      if (size <= most) return;
      // Everything except the picture keeps its size.
      const pictureBytes = (await stat(picture)).size;
      bits *= ((1 - SPARE / 2) * (most - (size - pictureBytes))) / pictureBytes;
    }
    throw new FilmError(`${plan.name}: ${t.sizeNotReached(mostMegabytes)}`);
  });
}
