import type Konva from "konva";
import type { Box } from "~/core/geometry/box";
import type { FrameRange } from "~/core/time/rate";
import type { LaneGeometry } from "./lane-geometry";

type Along = Pick<LaneGeometry, "axis" | "pxPerFrame">;

/** Canvas box of a range along a lane, with its offset and width across. */
export function boxAlong({ axis, pxPerFrame }: Along, { start, end }: FrameRange, across: number, width: number): Box {
  const [at, length] = [start * pxPerFrame, (end - start) * pxPerFrame];
  return axis === "x"
    ? { x: across, y: at, width, height: length }
    : { x: at, y: across, width: length, height: width };
}

/** The frame under the pointer, with its fraction, for what scrolls with the lane. */
export function frameUnder({ axis, pxPerFrame }: Along, { target }: Konva.KonvaEventObject<PointerEvent>): number {
  const point = target.getStage()!.getPointerPosition()!;
  const local = target.getParent()!.getAbsoluteTransform().copy().invert().point(point);
  return (axis === "x" ? local.y : local.x) / pxPerFrame;
}
