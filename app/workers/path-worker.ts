/** Solves paths off the interface's thread. */
import type { Size } from "~/core/geometry/box";
import { type FramedShot, frameShot, type ShotBefore, type ShotFraming } from "~/core/path/solve-version";
import type { Rate } from "~/core/time/rate";

export interface PathRequest {
  key: string;
  shotId: string;
  framing: ShotFraming;
  picture: Size;
  target: Size;
  rate: Rate;
  /** What the shot before leaves to it. */
  before: ShotBefore;
}

export interface PathReply {
  key: string;
  shotId: string;
  framed: FramedShot;
}

self.addEventListener("message", ({ data }: MessageEvent<PathRequest>) => {
  const { key, shotId, framing, picture, target, rate, before } = data;
  const reply: PathReply = { key, shotId, framed: frameShot(framing, picture, target, rate, before) };
  self.postMessage(reply);
});
