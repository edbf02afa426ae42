/** Light by chance over an endless ground, 0 to 1, smooth from one whole place to the next; the same each time (value noise). */
export function smoothNoise(x: number, y: number, seed: number): number {
  const chance = (i: number, j: number) => {
    const value = 43758.5453 * Math.sin(12.9898 * i + 78.233 * j + 37.719 * seed);
    return value - Math.floor(value);
  };
  const [i, j] = [Math.floor(x), Math.floor(y)];
  const along = (row: number) => (1 - (x - i)) * chance(i, row) + (x - i) * chance(i + 1, row);
  return (1 - (y - j)) * along(j) + (y - j) * along(j + 1);
}
