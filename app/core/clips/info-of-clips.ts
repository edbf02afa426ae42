/** What is known of a film of clips before any of it exists. */
import type { FilmInfo } from "../film/film-info";
import { depthFor } from "../image/bit-depth";
import { frameToSeconds } from "../time/rate";
import type { ClipPlan } from "./plan-clips";

/** How the parts of such a film are encoded, and read. */
export interface ClipFormat {
  videoCodec: string;
  soundCodec: string;
  container: string;
  /** Time units per second. */
  timescale: number;
  /** Seconds before a picture at which reading begins. */
  seekMargin: number;
}

/**
 * The facts of a film of clips.
 * @param infos of the clips, in order
 */
export function infoOfClips(
  { picture, rate, clips }: ClipPlan,
  infos: readonly FilmInfo[],
  format: ClipFormat,
): FilmInfo {
  const frames = clips.at(-1)!.end;
  const sound = { codec: format.soundCodec, index: 0, start: 0 };
  const hasSound = infos.some(({ audio }) => audio !== null);
  return {
    picture,
    rate,
    frames,
    cutOff: 0,
    timeBreaks: false,
    nonSquarePixels: false,
    interlaced: false,
    fields: false,
    grid: {
      origin: 0,
      fileStart: 0,
      lastPicture: frameToSeconds(frames - 1, rate),
      even: true,
      held: 0,
      longHolds: [],
      seekMargin: format.seekMargin,
      timeBase: 1 / format.timescale,
      late: 0,
    },
    audio: hasSound ? sound : null,
    sounds: hasSound ? [{ ...sound, channels: 2, language: null, title: null }] : [],
    startTimecode: null,
    colour: { transfer: "bt709", matrix: "bt709", range: "tv" },
    bitDepth: depthFor(Math.max(...infos.map(({ bitDepth }) => bitDepth))),
    videoCodec: format.videoCodec,
    container: format.container,
    bytes: infos.reduce((sum, { bytes }) => sum + bytes, 0),
  };
}
