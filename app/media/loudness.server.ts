import { writing } from "./film-tool.server";
import { startTool } from "./tool.server";

/** Loudness of a sound, after EBU R 128. */
export interface Loudness {
  /** Integrated loudness, in LUFS. */
  loudness: number;
  /** The highest true peak, in dBTP. */
  peak: number;
}

/** Silence by ITU-R BS.1770. */
const SILENT = -69;

/** @returns null for a file that is silent, or has no sound */
export async function measureLoudness(file: string, signal?: AbortSignal): Promise<Loudness | null> {
  const tool = startTool(
    "ffmpeg",
    [
      ...["-hide_banner", "-nostdin", "-nostats", "-v", "info", "-i", writing(file), "-map", "0:a:0"],
      ...["-af", "ebur128=peak=true:framelog=verbose", "-f", "null", "-"],
    ],
    signal,
  );
  tool.stdin.end();
  tool.stdout.resume();
  await tool.done;
  const said = tool.said();
  const summary = said.slice(said.lastIndexOf("Summary:"));
  const value = (name: string) => Number(new RegExp(`${name}:\\s+(-?[\\d.]+|-?inf)`).exec(summary)?.[1] ?? "-Infinity");
  const [loudness, peak] = [value("I"), value("Peak")];
  return loudness > SILENT && Number.isFinite(peak) ? { loudness, peak } : null;
}
