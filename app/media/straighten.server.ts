import { writeAside } from "~/disk/write-aside.server";
import { reading, startFfmpeg, writing } from "./film-tool.server";

/**
 * Rewrites a film whose times start over, as in a capture of a broadcast, with continuous ones: the same pictures and
 * sounds without encoding, in a Matroska file.
 */
export async function straighten(file: string, name: string, target: string, signal?: AbortSignal): Promise<void> {
  await writeAside(target, async (aside) => {
    // Without "-copyts" ffmpeg itself closes the breaks.
    const streams = ["-map", "0:V:0", "-map", "0:a?", "-c", "copy", "-sn", "-dn"];
    const tool = startFfmpeg(name, ["-y", ...reading(file), ...streams, "-f", "matroska", writing(aside)], signal);
    tool.stdin.end();
    tool.stdout.resume();
    await tool.done;
  });
}
