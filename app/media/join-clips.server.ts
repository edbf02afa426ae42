import { type Rate } from "~/core/time/rate";
import type { ClipFormat } from "~/core/clips/info-of-clips";
import { writeAside } from "~/disk/write-aside.server";
import { CONFORMED_SOUND, timescaleOf } from "./conform.server";
import { reading, startFfmpeg, writing } from "./film-tool.server";

/** Facts of a list of conformed clips, as if it were one file. */
export const clipFormat = (rate: Rate): ClipFormat => ({
  videoCodec: "h264",
  soundCodec: CONFORMED_SOUND.codec,
  container: "concat",
  timescale: timescaleOf(rate),
  seekMargin: 0.5,
});

/** Writes the clips of a list into one file without encoding. */
export async function joinIntoOne(list: string, name: string, target: string, signal?: AbortSignal): Promise<void> {
  await writeAside(target, async (aside) => {
    const tool = startFfmpeg(name, ["-y", ...reading(list), "-c", "copy", "-f", "mov", writing(aside)], signal);
    tool.stdin.end();
    tool.stdout.resume();
    await tool.done;
  });
}
