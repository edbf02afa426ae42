import { FORMAT_IDS, type FormatId, outputFormat } from "~/core/formats/output-formats";
import { runTool } from "./tool.server";

const shared = globalThis as { gladPanEncoders?: Promise<ReadonlySet<string>> };

/** The encoders of this machine's ffmpeg, by name. */
const encoders = (): Promise<ReadonlySet<string>> =>
  (shared.gladPanEncoders ??= runTool("ffmpeg", ["-hide_banner", "-encoders"]).then(
    (text) => new Set([...text.matchAll(/^ [A-Z.]{6} (\S+)/gm)].map((match) => match[1]!)),
  ));

/** The formats that can be rendered on this machine. */
export async function offeredFormats(): Promise<FormatId[]> {
  const there = await encoders();
  return FORMAT_IDS.filter((id) => there.has(outputFormat(id).encoder));
}
