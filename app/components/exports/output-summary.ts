import { outputFormat } from "~/core/formats/output-formats";
import type { OutputSettings } from "~/core/formats/output-settings";
import { formatRate } from "~/core/time/rate";
import { exportsTexts } from "~/texts/exports";

const t = exportsTexts.outputSummary;

/** "MP4 (H.264), good, 60 fps": a version's export settings, as far as they differ from the usual ones. */
export function outputSummary({
  format: id,
  quality,
  mostMegabytes,
  depth,
  rate,
  loudness,
  sharpening,
}: OutputSettings): string {
  const { name, quality: scale, depths, oneQualityAt } = outputFormat(id);
  return [
    name,
    ...(scale && mostMegabytes === null && (depth === null || depth !== oneQualityAt)
      ? [typeof quality === "number" ? t.number(scale.name, quality) : t.quality[quality]]
      : []),
    ...(mostMegabytes === null ? [] : [t.most(mostMegabytes)]),
    ...(depth !== null && depths.length > 1 ? [t.bits(depth)] : []),
    ...(rate ? [t.fps(formatRate(rate))] : []),
    ...(loudness === null ? [] : [t.lufs(loudness)]),
    ...(sharpening > 0 ? [t.sharpened] : []),
  ].join(", ");
}
