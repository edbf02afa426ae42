import type { Box, Point, Size } from "../geometry/box";
import { aspectRatio, clampWindow, largestWindowHeight, windowBox } from "../geometry/crop-window";
import type { HandKey } from "./hand-key";

/**
 * A hand key of one version, for another of another aspect ratio: with the same zoom, and with the subject at the same
 * share of the window's width and height; around the same centre where there is no subject.
 */
export function copyKey(key: HandKey, from: Size, to: Size, area: Box, subject: Point | null): HandKey {
  const [a, b] = [aspectRatio(from), aspectRatio(to)];
  const height = (key.height / largestWindowHeight(area, a)) * largestWindowHeight(area, b);
  const window = windowBox(key, a);
  const other = { width: height * b, height };
  const place = subject ?? key;
  const across = (place.x - window.x) / window.width;
  const down = (place.y - window.y) / window.height;
  const x = place.x + (0.5 - across) * other.width;
  const y = place.y + (0.5 - down) * other.height;
  return { ...key, ...clampWindow({ x, y, height }, area, b) };
}
