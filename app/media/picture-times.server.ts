import { createInterface } from "node:readline";
import { reading } from "./film-tool.server";
import { startTool } from "./tool.server";

export interface FoundTimes {
  /** Seconds at which pictures are shown, in the file's own time and in order. */
  times: Float64Array;
  /** Seconds from one key picture to the next, at the most. */
  longestKeyGap: number;
  /** Whether pictures are only counted, in the order in which they are decoded. */
  counted: boolean;
  /** Whether the times start over, or leap, in the order in which pictures are decoded. */
  breaks: boolean;
}

/** Seconds by which times that are decoded one after the other go back or on, and are no longer of one piece. */
const BREAK_SECONDS = { back: 0.5, on: 10 };

/** What is read of a time that is not there. */
const seconds = (text: string | undefined): number => (text ? Number(text) : NaN);

/** Goes through the packets of one of a file's streams without decoding them; rejects where reading them ends in failure. */
async function readPackets(
  file: string,
  stream: string,
  fields: string,
  onPacket: (...values: string[]) => void,
  signal?: AbortSignal,
): Promise<void> {
  const entries = ["-select_streams", stream, "-show_entries", `packet=${fields}`, "-of", "csv=p=0"];
  const tool = startTool("ffprobe", ["-v", "error", ...entries, ...reading(file)], signal);
  tool.stdin.end();
  const lines = createInterface({ input: tool.stdout });
  lines.on("line", (line) => onPacket(...line.split(",")));
  const closed = new Promise<void>((resolve) => lines.once("close", resolve));
  await Promise.allSettled([tool.done, closed]);
  await tool.done;
}

/**
 * Reads when each of a film's pictures is shown, from its packets and without decoding them. Packets that are there only
 * to decode others, as before an edit list's beginning, do not count. A packet without a time to be shown at has the
 * one at which it is decoded.
 *
 * @throws ToolError if the file cannot be read at all
 */
export async function pictureTimes(file: string, signal?: AbortSignal): Promise<FoundTimes> {
  const times: number[] = [];
  let lastKey = NaN;
  let longestKeyGap = 0;
  let breaks = false;
  let counted = false;
  let lastDecoded = NaN;
  const take = (shown?: string, decoded?: string, flags = "") => {
    const time = Number.isNaN(seconds(shown)) ? seconds(decoded) : seconds(shown);
    if (!Number.isFinite(time)) return;
    if (Number.isNaN(seconds(shown))) counted = true;
    const step = seconds(decoded) - lastDecoded;
    if (step < -BREAK_SECONDS.back || step > BREAK_SECONDS.on) breaks = true;
    if (!Number.isNaN(seconds(decoded))) lastDecoded = seconds(decoded);
    if (flags.includes("K")) {
      if (time - lastKey > longestKeyGap) longestKeyGap = time - lastKey;
      lastKey = time;
    }
    if (!flags.includes("D")) times.push(time);
  };
  // What can be read of a damaged file counts, also where reading it ends in failure.
  await readPackets(file, "V:0", "pts_time,dts_time,flags", take, signal).catch((error: unknown) => {
    if (times.length === 0) throw error;
  });
  return { times: Float64Array.from(times).sort(), longestKeyGap, counted, breaks };
}

/** Seconds, in the file's own time, at which the last packet of a sound begins; -Infinity if there is none. */
export async function endOfSound(file: string, index: number): Promise<number> {
  let end = -Infinity;
  const take = (shown?: string) => {
    if (seconds(shown) > end) end = seconds(shown);
  };
  await readPackets(file, `a:${index}`, "pts_time", take).catch(() => {
    // What can be read of a damaged file counts.
  });
  return end;
}
