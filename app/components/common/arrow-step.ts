/** Direction in which each arrow key points on the screen; other keys have none. */
const DIRECTIONS: Partial<Record<string, readonly [x: number, y: number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

export const arrowDirection = (key: string): readonly [x: number, y: number] | undefined => DIRECTIONS[key];
