import type { Box } from "../geometry/box";
import type { TrackKind } from "./detection";

/** One thing followed through one shot. */
export interface Track {
  id: string;
  kind: TrackKind;
  /** Frame of the film that `boxes[0]` belongs to. */
  start: number;
  /** Where it is, frame by frame; null while it is not to be seen. */
  boxes: (Box | null)[];
  /** Mean confidence of what the detectors saw of it, 0 to 1. */
  confidence: number;
  label?: string;
  /** For a face: the id of the person it belongs to. */
  personId?: string;
}

export const boxAt = (track: Track, frame: number): Box | null => track.boxes[frame - track.start] ?? null;

export const visibleFrames = (track: Track): number => track.boxes.reduce((count, box) => count + (box ? 1 : 0), 0);
