import { aspectRatio } from "~/core/geometry/crop-window";
import { joinRanges } from "~/core/time/ranges";
import { deskSelector } from "./desk-selector";
import { freeAxes, windowOfShots } from "./windows";

/** What follows from the version's window, and from what has been analysed. */
export const windowFacts = () => ({
  /** Width over height of the version. */
  aspect: deskSelector([(desk) => desk.version], (version) => aspectRatio(version)),
  /** The axes on which the window can move anywhere in the film. */
  free: deskSelector([(desk) => desk.shots, (desk) => desk.film.picture, (desk) => desk.version], freeAxes),
  /** The window at a frame, for whoever moves it. */
  windowAt: deskSelector(
    [(desk) => desk.shots, (desk) => desk.film.picture, (desk) => desk.version, (desk) => desk.steering],
    (shots, picture, version, steering) => (frame: number) =>
      windowOfShots(shots, frame, picture, version, steering.at),
  ),
  /** The ranges of the film that have been analysed. */
  analysed: deskSelector([(desk) => desk.findings.analysed], (ranges) => joinRanges(ranges)),
});
