/** Fits clips of different sizes and rates into one grid and one picture. */
import type { Box, Size } from "../geometry/box";
import { type Rate, framesPerSecond } from "../time/rate";

/** The facts needed of a clip. */
export interface ClipSource {
  picture: Size;
  rate: Rate;
  frames: number;
}

export interface PlacedClip {
  /** Frames of the film. */
  start: number;
  end: number;
  /** Place in the film's picture: as large as fits, centred. */
  area: Box;
}

export interface ClipPlan {
  picture: Size;
  rate: Rate;
  clips: PlacedClip[];
}

const even = (pixels: number): number => 2 * Math.round(pixels / 2);
const evenUp = (pixels: number): number => 2 * Math.ceil(pixels / 2);
/** A film has at least two frames. */
const LEAST_FRAMES = 2;

const secondsOf = ({ frames, rate }: ClipSource): number => frames / framesPerSecond(rate);

/** The rate of most of the clips' time; of several such, the first clip's. */
function usualRate(clips: readonly ClipSource[]): Rate {
  const seconds = (rate: Rate) =>
    clips
      .filter((clip) => clip.rate.num * rate.den === rate.num * clip.rate.den)
      .reduce((sum, clip) => sum + secondsOf(clip), 0);
  return clips.map(({ rate }) => rate).reduce((best, rate) => (seconds(rate) > seconds(best) ? rate : best));
}

/** As large as fits the picture, centred, on even pixels for 4:2:0 chroma. */
function areaIn(picture: Size, { width, height }: Size): Box {
  const scale = Math.min(picture.width / width, picture.height / height);
  const size = {
    width: Math.min(picture.width, even(width * scale)),
    height: Math.min(picture.height, even(height * scale)),
  };
  return { x: even((picture.width - size.width) / 2), y: even((picture.height - size.height) / 2), ...size };
}

/**
 * Places clips in the film that they form. The picture is as wide as the widest and as high as the highest, so that none is
 * scaled down, and an upright one beside a wide one keeps every pixel.
 * @param rate of the film; that of most of the clips' time if left out
 */
export function planClips(clips: readonly ClipSource[], rate = usualRate(clips)): ClipPlan {
  const picture = {
    width: evenUp(Math.max(...clips.map((clip) => clip.picture.width))),
    height: evenUp(Math.max(...clips.map((clip) => clip.picture.height))),
  };
  let start = 0;
  const placed = clips.map((clip) => {
    const frames = Math.max(LEAST_FRAMES, Math.round(secondsOf(clip) * framesPerSecond(rate)));
    const range = { start, end: start + frames };
    start = range.end;
    return { ...range, area: areaIn(picture, clip.picture) };
  });
  return { picture, rate, clips: placed };
}
