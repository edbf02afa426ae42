import type { Size } from "../geometry/box";
import type { CropWindow } from "../geometry/crop-window";
import { type FrameRange, inRange } from "../time/rate";
import { compose, type ShownAt } from "./composition";
import type { LaidOut } from "./layout";
import { layersAt } from "./layers/layer-at";
import type { Layer } from "./layers/layer";
import { groundOf } from "./layers/draw-layer";
import type { SafeArea } from "./layers/safe-area";

/** A shot with its path. */
export interface ShownShot {
  range: FrameRange;
  /** One window per frame of the shot: of its first pane, and of the others. */
  windows: readonly CropWindow[];
  others?: readonly { windows: readonly CropWindow[] }[];
  laidOut: LaidOut;
}

/**
 * What a version of some size shows at the frames of shots, in order of time.
 * @param fps frames per second of the film, for moving pictures
 * @throws Error, from what it returns, for a frame that is in none of the shots
 */
export function shownIn(shots: readonly ShownShot[], size: Size, fps: number): ShownAt {
  // Frames are mostly asked for in order.
  let at = 0;
  return (frame) => {
    const isIn = (shot: ShownShot | undefined) => shot !== undefined && inRange(frame, shot.range);
    if (!isIn(shots[at])) at = shots.findIndex(isIn);
    const shot = shots[at];
    if (!shot) throw new Error(`frame ${frame} is in no shot`);
    const windows = [shot, ...(shot.others ?? [])].map((pane) => pane.windows[frame - shot.range.start]!);
    return compose(windows, shot.laidOut, size, { film: frame / fps, shot: (frame - shot.range.start) / fps });
  };
}

/** Layers above a version. */
export interface VersionLayers {
  layers: readonly Layer[];
  safeArea: SafeArea | null;
  /** Size of the version. */
  size: Size;
  /** The ranges of the film that it shows. */
  kept: readonly FrameRange[];
  /** Frames per second. */
  fps: number;
}

/** What a version shows, with its layers. */
export function withLayers(shown: ShownAt, { layers, safeArea, size, kept, fps }: VersionLayers): ShownAt {
  if (layers.length === 0) return shown;
  const ground = groundOf({ ...size, safeArea });
  const whole = { start: kept[0]?.start ?? 0, end: kept.at(-1)?.end ?? 0 };
  return (frame) => {
    const at = layersAt(layers, frame, whole, fps);
    return { ...shown(frame), layers: at.length > 0 ? { ground, at } : null };
  };
}
