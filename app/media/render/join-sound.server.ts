import { frameToSeconds } from "~/core/time/rate";
import { REC709_TAGS, startFfmpeg, writing } from "../film-tool.server";
import type { OwnPictures } from "../own/own-pictures.server";
import { outputOf, type RenderPlan } from "./plan";
import { withSound } from "./sound.server";

/** Number of input files in arguments. */
const inputsIn = (args: readonly string[]): number => args.filter((arg) => arg === "-i").length;

/**
 * Writes a plan's file from its encoded picture, its sound and its captions.
 * @param picture input of the picture, which is copied without encoding
 * @param folder for a temporary sound file while it is measured
 */
export async function joinSound(
  plan: RenderPlan,
  picture: readonly string[],
  target: string,
  own: OwnPictures,
  folder: string,
  signal?: AbortSignal,
): Promise<void> {
  const { format, frames, rate } = outputOf(plan);
  const { captions } = plan;
  const track = captions !== undefined && format.captions !== null;
  const write = async (sound: { input: readonly string[]; output: readonly string[] }) => {
    const tool = startFfmpeg(
      plan.name,
      [
        ...["-y", ...picture, ...sound.input, ...(track ? ["-f", "srt", "-i", writing(captions)] : [])],
        ...["-map", "0:v:0", "-c:v", "copy", ...REC709_TAGS, ...sound.output],
        ...(track ? ["-map", `${1 + inputsIn(sound.input)}:s:0`, "-c:s", format.captions!] : []),
        ...["-t", String(frameToSeconds(frames.length, rate)), ...format.muxer, writing(target)],
      ],
      signal,
    );
    tool.stdout.resume();
    await tool.done;
  };
  await withSound(plan, format, own, folder, write, signal);
}
