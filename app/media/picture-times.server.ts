import { createInterface } from "node:readline";
import { reading } from "./film-tool.server";
import { startTool } from "./tool.server";

export interface FoundTimes {
  /** Presentation times in seconds, in the file's own time, in order. */
  times: Float64Array;
  /** Most seconds between key frames. */
  longestKeyGap: number;
  /** Whether pictures are only counted, in decoding order. */
  counted: boolean;
  /** Whether the times start over, or leap, in decoding order. */
  breaks: boolean;
}

/** Steps in seconds between consecutive decoding times at which they start over or leap. */
const BREAK_SECONDS = { back: 0.5, on: 10 };

/** A missing time is NaN. */
const seconds = (text: string | undefined): number => (text ? Number(text) : NaN);

/** Reads the packets of one of a file's streams without decoding them; rejects where reading ends in failure. */
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
 * Presentation times of a film's pictures, from its packets without decoding them. Packets that are only there for decoding
 * others, as before the start of an edit list, do not count. A packet without a presentation time has its decoding time.
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
  // The readable part of a damaged file counts, even if reading ends in failure.
  await readPackets(file, "V:0", "pts_time,dts_time,flags", take, signal).catch((error: unknown) => {
    if (times.length === 0) throw error;
  });
  return { times: Float64Array.from(times).sort(), longestKeyGap, counted, breaks };
}

/** Start of the last packet of a sound in seconds, in the file's own time; -Infinity if there is none. */
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
