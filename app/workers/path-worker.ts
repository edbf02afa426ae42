/** Solves paths off the interface's thread. */
import type { Size } from "~/core/geometry/box";
import type { CropWindow } from "~/core/geometry/crop-window";
import { type FramedShot, frameShot, type ShotFraming } from "~/core/path/solve-version";
import type { Rate } from "~/core/time/rate";

export interface PathRequest {
  key: string;
  shotId: string;
  framing: ShotFraming;
  picture: Size;
  target: Size;
  rate: Rate;
  /** Where the shot before leaves the window, if it goes on from there. */
  startAt: CropWindow | null;
}

export interface PathReply {
  key: string;
  shotId: string;
  framed: FramedShot;
}

self.addEventListener("message", ({ data }: MessageEvent<PathRequest>) => {
  const { key, shotId, framing, picture, target, rate, startAt } = data;
  const reply: PathReply = { key, shotId, framed: frameShot(framing, picture, target, rate, startAt) };
  self.postMessage(reply);
});
