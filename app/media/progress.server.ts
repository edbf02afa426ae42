import { createInterface } from "node:readline";
import type { RunningTool } from "./tool.server";

/** Follows ffmpeg's `-progress pipe:1` to its end; calls back with the share of `frames` done. */
export async function readProgress(
  tool: RunningTool,
  frames: number,
  onProgress?: (share: number) => void,
): Promise<void> {
  const lines = createInterface({ input: tool.stdout });
  lines.on("line", (line) => {
    const frame = /^frame=(\d+)$/.exec(line)?.[1];
    if (frame) onProgress?.(Math.min(1, Number(frame) / frames));
  });
  await tool.done;
}
