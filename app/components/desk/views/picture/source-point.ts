import type { Point, Size } from "~/core/geometry/box";

/** Source pixels per pixel of the screen, on an element that shows the whole picture. */
export const sourceScale = (shown: Element, picture: Size): number =>
  picture.width / shown.getBoundingClientRect().width;

/** The pointer's place in source pixels, on an element that shows the whole picture. */
export function sourcePoint(
  { clientX, clientY }: { clientX: number; clientY: number },
  shown: Element,
  picture: Size,
): Point {
  const { left, top } = shown.getBoundingClientRect();
  const scale = sourceScale(shown, picture);
  return { x: (clientX - left) * scale, y: (clientY - top) * scale };
}
