/** A place on the page, in pixels. */
export interface Place {
  x: number;
  y: number;
}

export const middle = ({ x, y, width, height }: Place & { width: number; height: number }): Place => ({
  x: x + width / 2,
  y: y + height / 2,
});
