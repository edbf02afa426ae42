import { framesPerSecond, type Rate } from "../time/rate";
import type { CaptionText } from "./caption";

/**
 * A frame as hours, minutes, seconds and milliseconds.
 * @param point separator before the milliseconds
 */
function clockOf(frame: number, rate: Rate, point: "," | "."): string {
  const milliseconds = Math.round((frame / framesPerSecond(rate)) * 1000);
  const part = (unit: number, digits: number, base: number) =>
    String(Math.floor(milliseconds / unit) % base).padStart(digits, "0");
  return `${part(3_600_000, 2, Infinity)}:${part(60_000, 2, 60)}:${part(1000, 2, 60)}${point}${part(1, 3, 1000)}`;
}

const ESCAPES: Record<string, string> = { "&": "&amp;", "<": "&lt;", ">": "&gt;" };
const escaped = (text: string): string => text.replaceAll(/[&<>]/g, (character) => ESCAPES[character]!);

/** Captions as SubRip (SRT): numbered, without markup. */
export const writeSrt = (captions: readonly CaptionText[], rate: Rate): string =>
  captions
    .map(
      ({ start, end, text }, i) => `${i + 1}\n${clockOf(start, rate, ",")} --> ${clockOf(end, rate, ",")}\n${text}\n`,
    )
    .join("\n");

/** Captions as WebVTT, with speakers where known. */
export const writeVtt = (captions: readonly CaptionText[], rate: Rate): string => {
  const cues = captions.map(({ start, end, text, speaker }) => {
    const voice = speaker === null ? "" : `<v ${escaped(speaker)}>`;
    return `${clockOf(start, rate, ".")} --> ${clockOf(end, rate, ".")}\n${voice}${escaped(text)}\n`;
  });
  return `WEBVTT\n\n${cues.join("\n")}`;
};
