/** Overlays on the picture, as SVG paths in source pixels. */
import { type SafeArea, safeBox } from "~/core/composition/layers/safe-area";
import type { Box } from "~/core/geometry/box";
import type { DeskShot } from "../../model/desk-types";

/** Half the length of the centre cross's arms, as a share of the window's shorter side. */
const ARM = 0.03;

/** Thirds of a window, and a cross at its centre. */
export function guidesIn({ x, y, width, height }: Box): string {
  const thirds = [1 / 3, 2 / 3].map(
    (share) => `M${x + share * width} ${y}v${height}M${x} ${y + share * height}h${width}`,
  );
  const arm = ARM * Math.min(width, height);
  const [middleX, middleY] = [x + width / 2, y + height / 2];
  return `${thirds.join("")}M${middleX - arm} ${middleY}h${2 * arm}M${middleX} ${middleY - arm}v${2 * arm}`;
}

/** The eye line of a window. */
export const eyeLineIn = ({ x, y, width, height }: Box, share: number): string =>
  `M${x} ${y + share * height}h${width}`;

/** The safe area of a window that fills the frame. */
export function safeAreaIn(window: Box, area: SafeArea): string {
  const box = safeBox(area, window);
  return `M${window.x + box.x} ${window.y + box.y}h${box.width}v${box.height}h${-box.width}Z`;
}

/** Most points of a trail. */
const MOST_POINTS = 400;

/** The path of the window's centre over a shot. */
export function trailOf({ framed }: Pick<DeskShot, "framed">): string {
  const windows = framed?.windows ?? [];
  const step = Math.max(1, Math.floor(windows.length / MOST_POINTS));
  return windows
    .filter((_, i) => i % step === 0 || i === windows.length - 1)
    .map(({ x, y }, i) => `${i === 0 ? "M" : "L"}${x.toFixed(1)} ${y.toFixed(1)}`)
    .join("");
}
