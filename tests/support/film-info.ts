import type { StoredInfo } from "~/db/films.server";

/** What is known of a film that stands in for a real one. */
export const INFO: StoredInfo = {
  picture: { width: 1920, height: 1080 },
  rate: { num: 30, den: 1 },
  frames: 300,
  variableRate: false,
  nonSquarePixels: false,
  videoStart: 0,
  audio: null,
  colour: { transfer: "bt709", matrix: "bt709", range: "tv" },
  videoCodec: "h264",
  container: "mov,mp4,m4a,3gp,3g2,mj2",
  bytes: 1,
};
