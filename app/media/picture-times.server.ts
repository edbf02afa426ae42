import { createInterface } from "node:readline";
import { reading } from "./film-tool.server";
import { startTool } from "./tool.server";

export interface FoundTimes {
  /** Seconds at which pictures are shown, in the file's own time and in order. */
  times: Float64Array;
  /** Seconds from one key picture to the next, at the most. */
  longestKeyGap: number;
  /** Whether the times start over, or leap, in the order in which pictures are decoded. */
  breaks: boolean;
}

/** Seconds by which times that are decoded one after the other go back or on, and are no longer of one piece. */
const BREAK_SECONDS = { back: 0.5, on: 10 };

/** What is read of a time that is not there. */
const seconds = (text: string | undefined): number => (text ? Number(text) : NaN);

/**
 * Reads when each of a film's pictures is shown, from its packets and without decoding them. Packets that are there only
 * to decode others, as before an edit list's beginning, do not count. A packet without a time to be shown at has the
 * one at which it is decoded.
 *
 * @throws ToolError if the file cannot be read at all
 */
export async function pictureTimes(file: string, signal?: AbortSignal): Promise<FoundTimes> {
  const entries = ["-select_streams", "V:0", "-show_entries", "packet=pts_time,dts_time,flags", "-of", "csv=p=0"];
  const tool = startTool("ffprobe", ["-v", "error", ...entries, ...reading(file)], signal);
  tool.stdin.end();
  const times: number[] = [];
  let lastKey = NaN;
  let longestKeyGap = 0;
  let breaks = false;
  let lastDecoded = NaN;
  const lines = createInterface({ input: tool.stdout });
  lines.on("line", (line) => {
    const [shown, decoded, flags = ""] = line.split(",");
    const time = Number.isNaN(seconds(shown)) ? seconds(decoded) : seconds(shown);
    if (!Number.isFinite(time)) return;
    const step = seconds(decoded) - lastDecoded;
    if (step < -BREAK_SECONDS.back || step > BREAK_SECONDS.on) breaks = true;
    if (!Number.isNaN(seconds(decoded))) lastDecoded = seconds(decoded);
    if (flags.includes("K")) {
      if (time - lastKey > longestKeyGap) longestKeyGap = time - lastKey;
      lastKey = time;
    }
    if (!flags.includes("D")) times.push(time);
  });
  const closed = new Promise<void>((resolve) => lines.once("close", resolve));
  // What can be read of a damaged file counts, also where reading it ends in failure.
  await tool.done.catch((error: unknown) => {
    if (times.length === 0) throw error;
  });
  await closed;
  return { times: Float64Array.from(times).sort(), longestKeyGap, breaks };
}

/** Seconds, in the file's own time, at which the last packet of a sound begins; -Infinity if there is none. */
export async function endOfSound(file: string, index: number): Promise<number> {
  const entries = ["-select_streams", `a:${index}`, "-show_entries", "packet=pts_time", "-of", "csv=p=0"];
  const tool = startTool("ffprobe", ["-v", "error", ...entries, ...reading(file)]);
  tool.stdin.end();
  let end = -Infinity;
  const lines = createInterface({ input: tool.stdout });
  for await (const line of lines) {
    const time = seconds(line);
    if (time > end) end = time;
  }
  await tool.done.catch(() => {});
  return end;
}
