/** Single pixels of what a version shows: on the desk, and in a file. */
import { execFileSync } from "node:child_process";
import type { Page } from "@playwright/test";

/** Red, green and blue of the result on the desk, at a place in shares of it. */
export const resultAt = (page: Page, x: number, y: number): Promise<number[]> =>
  page.getByRole("img", { name: /shows$/ }).evaluate(
    (canvas: HTMLCanvasElement, [across, down]) => {
      const place = [Math.floor(across! * canvas.width), Math.floor(down! * canvas.height)] as const;
      return [...canvas.getContext("2d")!.getImageData(...place, 1, 1).data].slice(0, 3);
    },
    [x, y],
  );

/** The same of frames of a file, from one on. */
export function framesAt(file: string, from: number, count: number, x: number, y: number): number[][] {
  const filters = `select=gte(n\\,${from}),crop=2:2:${x}*iw:${y}*ih,scale=1:1:in_color_matrix=bt709`;
  const args = ["-v", "error", "-i", file, "-vf", filters, "-fps_mode", "passthrough", "-frames:v", String(count)];
  const bytes = execFileSync("ffmpeg", [...args, "-pix_fmt", "rgb24", "-f", "rawvideo", "-"]);
  return Array.from({ length: bytes.length / 3 }, (_, i) => [...bytes.subarray(3 * i, 3 * i + 3)]);
}

/** The same of one frame. */
export const fileAt = (file: string, frame: number, x: number, y: number): number[] =>
  framesAt(file, frame, 1, x, y)[0]!;
