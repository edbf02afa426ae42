/** Solves paths off the interface's thread. */
import type { Size } from "~/core/geometry/box";
import { type FramedShot, frameShot, type ShotBefore, type ShotFraming } from "~/core/path/solve-version";
import { SolvedProblems } from "~/core/path/solved-problems";
import type { Rate } from "~/core/time/rate";

export interface PathRequest {
  shotId: string;
  framing: ShotFraming;
  picture: Size;
  target: Size;
  rate: Rate;
  /** What the shot before leaves to it. */
  before: ShotBefore;
}

export type PathReply = { shotId: string; framed: FramedShot } | { shotId: string; error: string };

/** What was solved for each shot, so that a moved key costs only the stretches beside it. */
const solvedFor = new Map<string, SolvedProblems>();

self.addEventListener("message", ({ data }: MessageEvent<PathRequest>) => {
  const { shotId, framing, picture, target, rate, before } = data;
  const solved = solvedFor.get(shotId) ?? new SolvedProblems();
  solvedFor.set(shotId, solved);
  const answer = (): PathReply => {
    try {
      return { shotId, framed: frameShot(framing, picture, target, rate, before, solved) };
    } catch (error) {
      return { shotId, error: error instanceof Error ? error.message : String(error) };
    }
  };
  self.postMessage(answer());
});
