import { formatBytes } from "~/core/numbers/bytes";
import type { FileFigures } from "~/core/film/film-status";
import { exportsTexts } from "~/texts/exports";

const t = exportsTexts.figuresLine;

/** Measurements of a finished file. */
export function FiguresLine({ figures }: { figures: FileFigures }) {
  const { width, height, frames, rate, durationSeconds, soundSeconds, bytes, loudness } = figures;
  const sound = soundSeconds === null ? t.noSound : t.soundS(soundSeconds);
  return (
    <p className="text-xs text-soft">
      {t.figures(width, height, frames, rate, durationSeconds, sound, formatBytes(bytes))}
      {figures.bitDepth > 8 && t.bits(figures.bitDepth)}
      {figures.hasCaptions && t.withTextTrack}
      {loudness !== null && t.lufs(loudness)}
    </p>
  );
}
