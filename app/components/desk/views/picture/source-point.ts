import type { Point, Size } from "~/core/geometry/box";

/** Source pixels for a pixel of the screen, on what shows all of the picture. */
export const sourceScale = (shown: Element, picture: Size): number =>
  picture.width / shown.getBoundingClientRect().width;

/** Where a pointer is, in source pixels, on what shows all of the picture. */
export function sourcePoint(
  { clientX, clientY }: { clientX: number; clientY: number },
  shown: Element,
  picture: Size,
): Point {
  const { left, top } = shown.getBoundingClientRect();
  const scale = sourceScale(shown, picture);
  return { x: (clientX - left) * scale, y: (clientY - top) * scale };
}
