import { framesPerSecond, type Rate } from "./rate";

/**
 * SMPTE timecode (ST 12-1), HH:MM:SS:FF. Rates of 30000/1001 and 60000/1001 use drop-frame counting, written with a
 * semicolon, in which frame *numbers* 0 and 1 (0 to 3 at 59.94) are skipped at the start of every minute but each tenth, so
 * that the count stays with the clock.
 */

const nominalRate = (rate: Rate): number => Math.max(1, Math.round(framesPerSecond(rate)));

/** Whether the rate is counted in drop-frame timecode. */
export const isDropFrame = (rate: Rate): boolean => rate.den === 1001 && nominalRate(rate) % 30 === 0;

/** How a film's frames are counted. */
export interface Clock {
  rate: Rate;
  /** The count at the film's first frame: films from a camera begin with the time of day, others with an hour. */
  first: number;
  /** Whether it is drop-frame timecode. */
  drop: boolean;
}

/** The timecode of a frame counted from 0. */
export function formatTimecode(frame: number, rate: Rate, drop = isDropFrame(rate)): string {
  const nominal = nominalRate(rate);
  let count = Math.max(0, Math.round(frame));
  if (drop) {
    const dropped = nominal / 15;
    const perMinute = nominal * 60 - dropped;
    const perTenMinutes = perMinute * 10 + dropped;
    const tens = Math.floor(count / perTenMinutes);
    const rest = count % perTenMinutes;
    count += dropped * 9 * tens + (rest > dropped ? dropped * Math.floor((rest - dropped) / perMinute) : 0);
  }
  const pad = (value: number) => String(value).padStart(2, "0");
  const seconds = Math.floor(count / nominal);
  const hours = Math.floor(seconds / 3600);
  const minutes = Math.floor(seconds / 60) % 60;
  return `${pad(hours)}:${pad(minutes)}:${pad(seconds % 60)}${drop ? ";" : ":"}${pad(count % nominal)}`;
}

/**
 * Reads a timecode as people type it: "01:02:03:04", "3:04" (seconds and frames), "1204" (a bare number is a
 * frame). Returns the frame, or null when the text is none of these or names a frame that does not exist.
 */
export function parseTimecode(text: string, rate: Rate, drop = isDropFrame(rate)): number | null {
  const trimmed = text.trim();
  if (/^\d+$/.test(trimmed)) return Number(trimmed);
  if (!/^\d+([:;.]\d+){1,3}$/.test(trimmed)) return null;
  const parts = trimmed.split(/[:;.]/).map(Number);
  while (parts.length < 4) parts.unshift(0);
  const [hours, minutes, seconds, frames] = parts as [number, number, number, number];
  const nominal = nominalRate(rate);
  if (minutes > 59 || seconds > 59 || frames >= nominal) return null;
  const count = ((hours * 60 + minutes) * 60 + seconds) * nominal + frames;
  if (!drop) return count;
  const dropped = nominal / 15;
  const totalMinutes = hours * 60 + minutes;
  if (seconds === 0 && frames < dropped && minutes % 10 !== 0) return null;
  return count - dropped * (totalMinutes - Math.floor(totalMinutes / 10));
}

/** A film's clock, by its file's start timecode; from 0 where that is missing or invalid. */
export function clockOf(rate: Rate, start: string | null): Clock {
  const drop = start === null ? isDropFrame(rate) : isDropFrame(rate) && /[;.]\d+$/.test(start);
  return { rate, first: (start !== null && parseTimecode(start, rate, drop)) || 0, drop };
}

/** The timecode of a film's frame. */
export const timecodeAt = (frame: number, { rate, first, drop }: Clock): string =>
  formatTimecode(frame + first, rate, drop);

/**
 * Parses what people type to seek a frame: a timecode of the film's clock, a shorter one from the film's start, or a frame
 * number. Returns null when it is none of these or lies before the film.
 */
export function frameAt(text: string, { rate, first, drop }: Clock): number | null {
  const count = parseTimecode(text, rate, drop);
  const isWhole = text.trim().split(/[:;.]/).length === 4;
  if (count === null || !isWhole) return count;
  return count >= first ? count - first : null;
}
