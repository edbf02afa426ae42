/** Reads an incomplete file, of which only the beginning is there. */
import { z } from "zod";
import { FilmError, probe, reading, startFfmpeg } from "./film-tool.server";
import { CancelledError, ToolError } from "./tool.server";

const Length = z.object({ format: z.object({ duration: z.coerce.number().positive() }) });

/**
 * Duration of a film in seconds, from its beginning.
 * @returns null where its container has an index only at its end, or no duration
 */
export async function lengthOf(file: string): Promise<number | null> {
  const json = await probe(file, ["-show_entries", "format=duration", "-of", "json"]).catch((error: unknown) => {
    if (error instanceof ToolError) return "{}";
    throw error;
  });
  const length = Length.safeParse(JSON.parse(json || "{}"));
  return length.success ? length.data.format.duration : null;
}

/** The picture at some second, as a small JPEG; null if it has not been received, or depends on missing data. */
export async function pictureAt(
  file: string,
  name: string,
  seconds: number,
  signal?: AbortSignal,
): Promise<Buffer | null> {
  const tool = startFfmpeg(
    name,
    [
      ...["-ss", seconds.toFixed(3), ...reading(file), "-map", "0:V:0", "-frames:v", "1"],
      ...["-vf", "scale=iw*sar:ih,scale=480:480:force_original_aspect_ratio=decrease,setsar=1"],
      ...["-q:v", "5", "-f", "mjpeg", "pipe:1"],
    ],
    signal,
  );
  tool.stdin.end();
  const parts: Buffer[] = [];
  tool.stdout.on("data", (part: Buffer) => parts.push(part));
  await tool.done.catch((error: unknown) => {
    if (!(error instanceof FilmError || error instanceof CancelledError)) throw error;
  });
  return parts.length > 0 ? Buffer.concat(parts) : null;
}
