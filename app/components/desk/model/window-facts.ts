import { aspectRatio, type CropWindow } from "~/core/geometry/crop-window";
import { joinRanges } from "~/core/time/ranges";
import type { FrameRange } from "~/core/time/rate";
import type { DeskGiven } from "./desk-model";
import { deskSelector } from "./desk-selector";
import { freeAxes, windowOfShots } from "./windows";

/** What follows from the version's window, and from what has been analysed. */
export interface WindowFacts {
  /** Width over height of the version. */
  aspect: number;
  /** The axes on which the window can move anywhere in the film. */
  free: { x: boolean; y: boolean };
  /** The window at a frame, for whoever moves it. */
  windowAt: (frame: number) => CropWindow;
  /** The ranges of the film that have been analysed. */
  analysed: readonly FrameRange[];
}

export function windowFacts(): (given: DeskGiven) => WindowFacts {
  const inWindow = deskSelector(
    [(desk) => desk.shots, (desk) => desk.film.picture, (desk) => desk.version, (desk) => desk.steering],
    (shots, picture, version, steering) => ({
      aspect: aspectRatio(version),
      free: freeAxes(shots, picture, version),
      windowAt: (frame: number) => windowOfShots(shots, frame, picture, version, steering.at),
    }),
  );
  const analysed = deskSelector([(desk) => desk.findings.analysed], (ranges) => joinRanges(ranges));
  return (given) => ({ ...inWindow(given), analysed: analysed(given) });
}
