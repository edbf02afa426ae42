/** Where an arrow key points on the screen, by the key's name; nowhere for any other key. */
const DIRECTIONS: Partial<Record<string, readonly [x: number, y: number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

export const arrowDirection = (key: string): readonly [x: number, y: number] | undefined => DIRECTIONS[key];
