import type { FilmInfo } from "~/core/film/film-info";

/** What is known of a film that stands in for a real one. */
export const INFO: FilmInfo = {
  picture: { width: 1920, height: 1080 },
  rate: { num: 30, den: 1 },
  frames: 300,
  cutOff: 0,
  timeBreaks: false,
  grid: {
    origin: 0,
    fileStart: 0,
    lastPicture: 299 / 30,
    even: true,
    held: 0,
    longHolds: [],
    seekMargin: 0.5,
    timeBase: 1 / 15360,
    late: 0,
  },
  nonSquarePixels: false,
  interlaced: false,
  fields: false,
  audio: null,
  sounds: [],
  startTimecode: null,
  colour: { transfer: "bt709", matrix: "bt709", range: "tv" },
  bitDepth: 8,
  videoCodec: "h264",
  container: "mov,mp4,m4a,3gp,3g2,mj2",
  bytes: 1,
};
