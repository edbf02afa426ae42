import type { Size } from "~/core/geometry/box";

/** The largest size of an aspect ratio that fits a room, in whole pixels. */
export function fitInto(shape: Size, room: Size): Size {
  const height = Math.floor(Math.min(room.height, (room.width * shape.height) / shape.width));
  return { width: Math.floor((height * shape.width) / shape.height), height };
}

/** Fits several frames into one room, side by side or one above the other, whichever makes them larger. */
export function arrange(shapes: readonly Size[], room: Size, gap: number): { isRow: boolean; sizes: Size[] } {
  const gaps = gap * (shapes.length - 1);
  const [row, column] = [true, false].map((isRow) => {
    const cell = isRow
      ? { width: (room.width - gaps) / shapes.length, height: room.height }
      : { width: room.width, height: (room.height - gaps) / shapes.length };
    const sizes = shapes.map((shape) => fitInto(shape, cell));
    return { isRow, sizes, area: sizes.reduce((sum, { width, height }) => sum + width * height, 0) };
  }) as [Arranged, Arranged];
  return row.area >= column.area ? row : column;
}

interface Arranged {
  isRow: boolean;
  sizes: Size[];
  area: number;
}
