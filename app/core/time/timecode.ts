import { framesPerSecond, type Rate } from "./rate";

/**
 * SMPTE timecode (ST 12-1), HH:MM:SS:FF. Rates of 30000/1001 and 60000/1001 use drop-frame counting, written
 * with a semicolon, in which frame *numbers* 0 and 1 (0 to 3 at 59.94) are left out at the start of every
 * minute but each tenth, so that the count stays with the clock.
 */

const nominalRate = (rate: Rate): number => Math.max(1, Math.round(framesPerSecond(rate)));

/** Whether the rate is counted in drop-frame timecode. */
export const isDropFrame = (rate: Rate): boolean => rate.den === 1001 && nominalRate(rate) % 30 === 0;

/** The timecode of a frame counted from 0. */
export function formatTimecode(frame: number, rate: Rate): string {
  const nominal = nominalRate(rate);
  const drop = isDropFrame(rate);
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
export function parseTimecode(text: string, rate: Rate): number | null {
  const trimmed = text.trim();
  if (/^\d+$/.test(trimmed)) return Number(trimmed);
  if (!/^\d+([:;.]\d+){1,3}$/.test(trimmed)) return null;
  const parts = trimmed.split(/[:;.]/).map(Number);
  while (parts.length < 4) parts.unshift(0);
  const [hours, minutes, seconds, frames] = parts as [number, number, number, number];
  const nominal = nominalRate(rate);
  if (minutes > 59 || seconds > 59 || frames >= nominal) return null;
  const count = ((hours * 60 + minutes) * 60 + seconds) * nominal + frames;
  if (!isDropFrame(rate)) return count;
  const dropped = nominal / 15;
  const totalMinutes = hours * 60 + minutes;
  if (seconds === 0 && frames < dropped && minutes % 10 !== 0) return null;
  return count - dropped * (totalMinutes - Math.floor(totalMinutes / 10));
}
