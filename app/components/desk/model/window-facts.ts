import { aspectRatio } from "~/core/geometry/crop-window";
import { joinRanges } from "~/core/time/ranges";
import { deskSelector } from "./desk-selector";
import { shotAt } from "./desk-types";
import { freeAxes, windowAspect, windowOfShots } from "./windows";

/** What follows from the version's window and the analysis. */
export const windowFacts = () => ({
  /** Aspect ratio of the version, width over height. */
  aspect: deskSelector([(desk) => desk.version], (version) => aspectRatio(version)),
  /** Axes on which the window can move somewhere in the film. */
  free: deskSelector([(desk) => desk.shots, (desk) => desk.film.picture, (desk) => desk.version], freeAxes),
  /** The window at a frame, from which moves begin. */
  windowAt: deskSelector(
    [(desk) => desk.shots, (desk) => desk.film.picture, (desk) => desk.version, (desk) => desk.steering],
    (shots, picture, version, steering) => (frame: number) =>
      windowOfShots(shots, frame, picture, version, steering.at),
  ),
  /** Aspect ratio of the window at a frame, width over height: that of the selected pane. */
  aspectAt: deskSelector(
    [(desk) => desk.shots, (desk) => desk.film.picture, (desk) => desk.version],
    (shots, picture, version) => (frame: number) => windowAspect(shotAt(shots, frame), picture, version),
  ),
  /** The analysed ranges of the film. */
  analysed: deskSelector([(desk) => desk.findings.analysed], (ranges) => joinRanges(ranges)),
});
