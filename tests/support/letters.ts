/** Letters of five by seven dots, for pictures with text in them. */
const LETTERS: Record<string, readonly string[]> = {
  A: [".###.", "#...#", "#...#", "#####", "#...#", "#...#", "#...#"],
  E: ["#####", "#....", "#....", "####.", "#....", "#....", "#####"],
  H: ["#...#", "#...#", "#...#", "#####", "#...#", "#...#", "#...#"],
  L: ["#....", "#....", "#....", "#....", "#....", "#....", "#####"],
  N: ["#...#", "##..#", "##..#", "#.#.#", "#..##", "#..##", "#...#"],
  O: [".###.", "#...#", "#...#", "#...#", "#...#", "#...#", ".###."],
  T: ["#####", "..#..", "..#..", "..#..", "..#..", "..#..", "..#.."],
};
const DOT = 2;

/** Size of a line in pixels. */
export const lineSize = (text: string) => ({ width: text.length * 6 * DOT, height: 7 * DOT });

/** Whether a pixel is of the letters of a line that begins at a place. */
export function isInk(text: string, left: number, top: number, x: number, y: number): boolean {
  const [column, row] = [Math.floor((x - left) / DOT), Math.floor((y - top) / DOT)];
  if (column < 0 || row < 0 || row >= 7) return false;
  return LETTERS[text[Math.floor(column / 6)] ?? ""]?.[row]?.[column % 6] === "#";
}
