/** The places that the shots are played in, and what several of them share. */
import type { SKRSContext2D } from "@napi-rs/canvas";
import type { HeadPose } from "./people";
import { ramp, wander } from "./random";
import { cloudTile, drawClouds, drawSky, EVENING, NOON, type Palette, paintLand, paintWorkshop } from "./scenery";
import { type Camera, HEIGHT, once, through, WIDTH } from "./stage";

export const MARGIN = 500;
export const HORIZON = 640;
export const noonLand = once(() => paintLand(WIDTH + 2 * MARGIN, HEIGHT + 320, HORIZON, NOON, 11));
export const longLand = once(() => paintLand(WIDTH + 4 * MARGIN, HEIGHT + 320, HORIZON, NOON, 23));
export const eveningLand = once(() => paintLand(WIDTH + 2 * MARGIN, HEIGHT + 320, HORIZON, EVENING, 17));
export const noonClouds = once(() => cloudTile(2048, 620, 5, 0.5, NOON.cloud));
export const eveningClouds = once(() => cloudTile(2048, 620, 8, 0.55, EVENING.cloud));
export const bigClouds = once(() => cloudTile(2048, 1400, 31, 0.62, NOON.cloud));
export const workshop = once(() => paintWorkshop(WIDTH + 400, HEIGHT + 200));

export const blinkAt = (seconds: number, seed: number) => ((seconds + seed * 1.7) % 3.4 < 0.13 ? 1 : 0);

export function talking(seconds: number, mouth: number, seed: number): HeadPose {
  return {
    mouth,
    blink: blinkAt(seconds, seed),
    yaw: wander(seconds * 0.6, seed) * 0.35,
    tilt: wander(seconds * 0.8, seed + 4) * 0.05 + mouth * 0.012,
  };
}

export function meadow(
  g: SKRSContext2D,
  camera: Camera,
  palette: Palette,
  land: () => ReturnType<typeof noonLand>,
  clouds: () => ReturnType<typeof noonClouds>,
  seconds: number,
): void {
  through(g, camera, 0.15, () => {
    drawSky(g, palette, -MARGIN, WIDTH + 2 * MARGIN, HORIZON);
    drawClouds(g, clouds(), seconds * 14, -40, -MARGIN, WIDTH + MARGIN);
  });
  through(g, camera, 1, () => g.drawImage(land(), (WIDTH - land().width) / 2, 0));
}

export function lowerThird(
  g: SKRSContext2D,
  frame: number,
  from: number,
  to: number,
  name: string,
  role: string,
): void {
  const shown = ramp(from, from + 12, frame) * (1 - ramp(to - 12, to, frame));
  if (shown <= 0) return;
  g.save();
  g.globalAlpha = shown;
  const x = 130 - (1 - shown) * 60;
  g.fillStyle = "rgba(18,22,30,0.82)";
  g.fillRect(x, 850, 620, 128);
  g.fillStyle = "#e3c25a";
  g.fillRect(x, 850, 10, 128);
  g.fillStyle = "#ffffff";
  g.font = "600 50px 'DejaVu Sans'";
  g.fillText(name, x + 38, 908);
  g.font = "32px 'DejaVu Sans'";
  g.fillStyle = "#d8dde4";
  g.fillText(role, x + 38, 956);
  g.restore();
}
