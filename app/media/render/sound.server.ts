/** The sound of a render, in sync with its picture, at the wanted loudness. */
import { frameToSeconds } from "~/core/time/rate";
import type { OutputFormat } from "~/core/formats/output-formats";
import { withScratchFile } from "~/disk/write-aside.server";
import { reading, startFfmpeg, writing } from "../film-tool.server";
import { mixedSound } from "../mixed-sound";
import { readFrom, soundBeginsWithPicture, soundOnGrid, soundSeekSecondsFor, soundStream } from "../on-grid.server";
import type { OwnPictures } from "../own/own-pictures.server";
import { measureLoudness } from "../loudness.server";
import type { RenderPlan } from "./plan";

/** Input and output arguments of a sound whose inputs follow one for the picture; empty output for none. */
export interface SoundArguments {
  input: readonly string[];
  output: readonly string[];
}

/** The sound of several ranges, one after the other. */
function joinedSound({ info, ranges }: RenderPlan, sampleRate: number): string {
  const whole = soundOnGrid(info, { start: 0, end: info.frames }, sampleRate);
  const outputs = ranges.map((_, i) => `[all${i}]`).join("");
  const parts = ranges.map(({ start, end }, i) => {
    const [from, to] = [start, end].map((frame) => frameToSeconds(frame, info.rate).toFixed(6));
    return `[all${i}]atrim=${from}:${to},asetpts=PTS-STARTPTS[part${i}]`;
  });
  const labels = ranges.map((_, i) => `[part${i}]`).join("");
  const split = `[${soundStream(1, info)}]${whole},asplit=${ranges.length}${outputs}`;
  return [split, ...parts, `${labels}concat=n=${ranges.length}:v=0:a=1[sound]`].join(";");
}

/** The sound for a format, without a change of loudness. */
function plainSound(plan: RenderPlan, format: OutputFormat, { moving }: OwnPictures): SoundArguments {
  const { file, info, ranges, heard } = plan;
  const { sound, sampleRate } = format;
  if (!sound) return { input: [], output: ["-an"] };
  if (heard) {
    const { input, filter } = mixedSound(plan, heard, moving, sampleRate);
    return { input, output: ["-filter_complex", filter, "-map", "[sound]", ...sound] };
  }
  if (!info.audio) return { input: [], output: ["-an"] };
  if (ranges.length > 1) {
    const output = ["-filter_complex", joinedSound(plan, sampleRate), "-map", "[sound]", ...sound];
    return { input: readFrom(plan, 0), output };
  }
  const range = ranges[0]!;
  const map = ["-map", soundStream(1, info)];
  const whole = range.start === 0 && range.end === info.frames;
  // Copied from the film where nothing has to be moved.
  const copy =
    whole && soundBeginsWithPicture(info) && format.soundsAsTheyAre.has(info.audio.codec) && info.grid.fileStart === 0;
  if (copy) return { input: reading(file), output: [...map, "-c:a", "copy"] };
  return {
    input: readFrom(plan, soundSeekSecondsFor(info, range.start)),
    output: [...map, "-af", soundOnGrid(info, range, sampleRate), ...sound],
  };
}

/** Highest true peak of amplified sound, in dB of full scale. */
const MOST_PEAK = -1;
/** Sample rate at which true peaks are samples. */
const OVERSAMPLED = 192_000;

/** Filters that set the loudness of a sound by one constant gain, as in EBU R 128; a limiter holds peaks above −1 dBTP. */
export function levelling(wanted: number, { loudness, peak }: { loudness: number; peak: number }, sampleRate: number) {
  const gain = wanted - loudness;
  const limit = 10 ** (MOST_PEAK / 20);
  return [
    `volume=${gain.toFixed(2)}dB`,
    ...(peak + gain > MOST_PEAK
      ? [
          `aresample=${OVERSAMPLED}`,
          `alimiter=limit=${limit.toFixed(4)}:attack=5:release=50:level=false`,
          `aresample=${sampleRate}`,
        ]
      : []),
  ].join(",");
}

/**
 * Gives `work` the arguments of a plan's sound. For a set loudness it is first written to a file and measured.
 * @param folder for that temporary file
 */
export async function withSound<T>(
  plan: RenderPlan,
  format: OutputFormat,
  own: OwnPictures,
  folder: string,
  work: (sound: SoundArguments) => Promise<T>,
  signal?: AbortSignal,
): Promise<T> {
  const { loudness } = plan.output;
  const isHeard = format.sound !== null && (plan.info.audio !== null || Boolean(plan.heard));
  if (loudness === null || !isHeard) return work(plainSound(plan, format, own));
  const exact = { ...format, sound: ["-c:a", "pcm_f32le"], soundsAsTheyAre: new Set<string>() };
  return withScratchFile(folder, ".w64", async (file) => {
    const { input, output } = plainSound(plan, exact, own);
    // The arguments count their inputs from 1: the picture, which is not needed here, is 0.
    const nothing = ["-f", "lavfi", "-i", "nullsrc=s=16x16:d=0.1"];
    const written = startFfmpeg(
      plan.name,
      ["-y", ...nothing, ...input, "-vn", ...output, "-f", "w64", writing(file)],
      signal,
    );
    written.stdout.resume();
    await written.done;
    const measured = await measureLoudness(file, signal);
    // Silence has no loudness to be changed.
    const filter = measured ? ["-af", levelling(loudness, measured, format.sampleRate)] : [];
    return work({ input: ["-f", "w64", "-i", writing(file)], output: ["-map", "1:a:0", ...filter, ...format.sound!] });
  });
}
