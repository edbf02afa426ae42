import { median } from "../numbers/median";
import { type FrameRange, framesPerSecond, Rate } from "./rate";

/**
 * A film's own grid of frames, made from the time stamps of its pictures. Frame n is the picture that a player shows at n /
 * rate; where there is none, the one before is held.
 */
export interface FilmGrid {
  rate: Rate;
  /** Length in frames, to the end of picture and sound. */
  frames: number;
  /** Seconds, in the file's own time, at which frame 0 begins. */
  origin: number;
  /** Seconds, in the file's own time, at which the file begins. */
  fileStart: number;
  /** Seconds, in the file's own time, of the last picture. */
  lastPicture: number;
  /** Whether each frame has a picture of its own, at its own time. */
  even: boolean;
  /** Number of frames without a picture of their own. */
  held: number;
  /** Where one picture is held for long, without its first frame. */
  longHolds: FrameRange[];
}

export interface PictureTimes {
  /** Presentation times in seconds, in the file's own time, in order. */
  times: Float64Array;
  /** The rates that the file declares: the coarsest grid that fits all of its times, and the mean. */
  declared: { base: Rate | null; average: Rate | null };
  fileStart: number;
  /** Of the whole file, picture and sound; null if it is not given. */
  durationSeconds: number | null;
  /** Whether that is counted from zero, and not from the file's start. */
  durationFromZero: boolean;
}

const rate = (num: number, den = 1): Rate => ({ num, den });

/** Rates of cameras, editing programs and screen recorders. */
const COMMON_RATES: Rate[] = [
  ...[10, 12, 15, 20, 24, 25, 30, 48, 50, 60, 90, 100, 120, 240].map((fps) => rate(fps)),
  rate(25, 2),
  ...[15, 24, 30, 48, 60, 120, 240].map((fps) => rate(fps * 1000, 1001)),
];

/** Deviation, as a share of a frame, within which a time is on the grid: Matroska counts milliseconds. */
const ON_GRID = 0.15;
/** Share of the times that must be on a grid for it to be the film's. */
const MOST = 0.97;
/** Multiples of the typical step above which steps are pauses, and no evidence of the rate. */
const PAUSE_STEPS = 8;
/** Relative deviation within which a rate is meant to be a common one. */
const SAME_RATE = 0.004;
/** The same for a rate that only fits on average. */
const LIKE_RATE = 0.06;
const MAX_RATE = 240;
/** Seconds above which a held picture is long. */
const LONG_SECONDS = 0.4;
const MAX_LONG_HOLDS = 1000;

const distance = (a: number, b: number): number => Math.abs(Math.log(a / b));

const nearestCommon = (fps: number): Rate =>
  COMMON_RATES.reduce((best, one) =>
    distance(framesPerSecond(one), fps) < distance(framesPerSecond(best), fps) ? one : best,
  );

/** Share of the times on a grid through the first of them. */
function shareOnGrid(times: Float64Array, fps: number): number {
  let on = 0;
  for (const time of times) {
    const place = (time - times[0]!) * fps;
    if (Math.abs(place - Math.round(place)) <= ON_GRID) on++;
  }
  return on / times.length;
}

/** Pictures per second where they follow one another steadily, by the steps between them; 0 where that is unknown. */
function steadyRate(times: Float64Array): number {
  const steps = times.subarray(1).map((time, i) => time - times[i]!);
  const positive = steps.filter((step) => step > 0);
  if (positive.length === 0) return 0;
  const usual = median([...positive]);
  let [count, seconds] = [0, 0];
  for (const step of positive) {
    if (step > PAUSE_STEPS * usual) continue;
    count += Math.max(1, Math.round(step / usual));
    seconds += step;
  }
  return count / seconds;
}

/**
 * Rates for which a sparse film may be made, the coarsest first: that declared by its file, whole or divided, or the common
 * ones where that is merely the unit of its clock.
 * @param steady pictures per second as they follow one another: a coarser grid has no room for them
 */
function sparseRates(base: Rate | null, steady: number): Rate[] {
  if (!base || framesPerSecond(base) > MAX_RATE) {
    return COMMON_RATES.filter((one) => framesPerSecond(one) > steady).sort(
      (a, b) => framesPerSecond(a) - framesPerSecond(b),
    );
  }
  const parts = Math.max(1, Math.floor(framesPerSecond(base) / steady));
  return Array.from({ length: parts }, (_, i) => rate(base.num, base.den * (parts - i)));
}

/** Chooses the rate of the grid: the declared one if the times are on it, or else the closest. */
export function chooseRate({
  times,
  declared: { base, average },
}: Pick<PictureTimes, "times" | "declared">): Rate | null {
  // Two pictures a tick apart have a mean rate that no film has.
  const mean = average && Rate.safeParse(average).success ? average : null;
  const declared = base && framesPerSecond(base) <= MAX_RATE ? base : mean;
  if (times.length < 3) return declared;
  const steady = steadyRate(times);
  const fits = (one: Rate) => shareOnGrid(times, framesPerSecond(one)) >= MOST;
  const snapped = (one: Rate): Rate => {
    const common = nearestCommon(framesPerSecond(one));
    const near = distance(framesPerSecond(common), framesPerSecond(one)) < SAME_RATE;
    return near && fits(common) ? common : one;
  };
  // A grid much finer than the pictures is merely the unit of their clock.
  if (base && framesPerSecond(base) <= Math.min(MAX_RATE, 2.5 * steady) && fits(base)) return snapped(base);
  if (steady <= 0) return declared;
  const common = nearestCommon(Math.min(MAX_RATE, steady));
  const isLike = distance(framesPerSecond(common), steady) < LIKE_RATE;
  const fitting = [...(isLike ? [common] : []), ...sparseRates(base, steady)].find(fits);
  if (fitting) return snapped(fitting);
  return isLike ? common : rate(Math.round(Math.min(MAX_RATE, steady) * 1000), 1000);
}

/** Frames without a picture of their own, and long runs of them. */
function holds(places: Int32Array, frames: number, longest: number): Pick<FilmGrid, "held" | "longHolds"> {
  let held = 0;
  const longHolds: FrameRange[] = [];
  let next = 0;
  const gap = (to: number) => {
    const count = Math.max(0, Math.min(frames, to) - next);
    held += count;
    if (count >= longest && longHolds.length < MAX_LONG_HOLDS) longHolds.push({ start: next, end: next + count });
  };
  for (const place of places) {
    gap(place);
    next = Math.max(next, place + 1);
  }
  gap(frames);
  return { held, longHolds };
}

/**
 * Makes a film's grid. It begins with the file, so that a picture that starts later than the sound leaves room for it; it
 * ends where the last picture or the sound does.
 * @returns null if there is no picture, or the rate is unknown
 */
export function makeGrid(film: PictureTimes): FilmGrid | null {
  const { times, fileStart, durationSeconds, durationFromZero } = film;
  const chosen = chooseRate(film);
  if (times.length === 0 || !chosen) return null;
  const fps = framesPerSecond(chosen);
  const first = times[0]!;
  const last = times[times.length - 1]!;
  const before = Math.max(0, Math.round((first - fileStart) * fps));
  const origin = first - before / fps;
  const end = Math.max(last + 1 / fps, (durationFromZero ? 0 : fileStart) + (durationSeconds ?? 0));
  const frames = Math.max(1, Math.round((end - origin) * fps));
  const places = Int32Array.from(times, (time) => Math.round((time - origin) * fps));
  const { held, longHolds } = holds(places, frames, LONG_SECONDS * fps);
  const even = held === 0 && times.length === frames && shareOnGrid(times, fps) === 1;
  return { rate: chosen, frames, origin, fileStart, lastPicture: last, even, held, longHolds };
}
