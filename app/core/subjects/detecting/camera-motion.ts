/** The camera's own motion between two pictures: a similarity, fitted robustly to the optical flow. */
import { type Flow, isBlind } from "./optical-flow";

/** (x, y) → (a·x − b·y + tx, b·x + a·y + ty), in the units of the flow. */
export interface Similarity {
  a: number;
  b: number;
  tx: number;
  ty: number;
}

export interface CameraMotion extends Similarity {
  /** Share of the points that move with the camera, 0 to 1. */
  share: number;
}

/** The camera's motion from the step before to a frame of a film, in pixels of its picture. */
export interface CameraStep extends CameraMotion {
  frame: number;
}

export const STILL: CameraMotion = { a: 1, b: 0, tx: 0, ty: 0, share: 0 };

/** The inverse of a similarity. */
export function inverseOf({ a, b, tx, ty }: Similarity): Similarity {
  const scale = a * a + b * b;
  const [ia, ib] = [a / scale, -b / scale];
  return { a: ia, b: ib, tx: -ia * tx + ib * ty, ty: -ib * tx - ia * ty };
}

const TRIALS = 48;
/** Distance of a point from where the camera's motion takes it within which it moves along, in samples … */
const TOLERANCE = 0.5;
/** … and as a share of its displacement. */
const RELATIVE_TOLERANCE = 0.06;
const LEAST_POINTS = 12;
const LEAST_SHARE = 0.25;
/**
 * Weight of the centre: of two fits the one with more points wins, and points at the border, where people are rarest, count
 * more.
 */
const CENTRE_WEIGHT = 0.6;

/** Pseudorandom numbers in [0, 1), the same each time (Park and Miller 1988). */
function minimalStandard(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48271) % 2147483647) / 2147483647;
}

function fitTwo(flow: Flow, i: number, j: number): Similarity | null {
  const ux = flow.x[j]! - flow.x[i]!;
  const uy = flow.y[j]! - flow.y[i]!;
  const length = ux * ux + uy * uy;
  if (length < 400) return null;
  const vx = ux + flow.dx[j]! - flow.dx[i]!;
  const vy = uy + flow.dy[j]! - flow.dy[i]!;
  const a = (ux * vx + uy * vy) / length;
  const b = (ux * vy - uy * vx) / length;
  const tx = flow.x[i]! + flow.dx[i]! - a * flow.x[i]! + b * flow.y[i]!;
  const ty = flow.y[i]! + flow.dy[i]! - b * flow.x[i]! - a * flow.y[i]!;
  return { a, b, tx, ty };
}

/** Squared distance of a point's destination from where a similarity takes it. */
function departure(flow: Flow, i: number, { a, b, tx, ty }: Similarity): number {
  const ex = a * flow.x[i]! - b * flow.y[i]! + tx - flow.x[i]! - flow.dx[i]!;
  const ey = b * flow.x[i]! + a * flow.y[i]! + ty - flow.y[i]! - flow.dy[i]!;
  return ex * ex + ey * ey;
}

/** Weighted least squares over the points. */
function fitMany(flow: Flow, inside: readonly number[]): Similarity | null {
  let [sx, sy, su, sv] = [0, 0, 0, 0];
  for (const i of inside) {
    sx += flow.x[i]!;
    sy += flow.y[i]!;
    su += flow.x[i]! + flow.dx[i]!;
    sv += flow.y[i]! + flow.dy[i]!;
  }
  const count = inside.length;
  const [mx, my, mu, mv] = [sx / count, sy / count, su / count, sv / count];
  let [dot, cross, spread] = [0, 0, 0];
  for (const i of inside) {
    const [x, y] = [flow.x[i]! - mx, flow.y[i]! - my];
    const [u, v] = [flow.x[i]! + flow.dx[i]! - mu, flow.y[i]! + flow.dy[i]! - mv];
    dot += x * u + y * v;
    cross += x * v - y * u;
    spread += x * x + y * y;
  }
  if (spread < 1) return null;
  const [a, b] = [dot / spread, cross / spread];
  return { a, b, tx: mu - a * mx + b * my, ty: mv - b * mx - a * my };
}

/**
 * Fits the motion that most points share (random sample consensus, Fischler and Bolles 1981, with a fixed seed), then
 * refines it on all points that share it by least squares. Standing still is one of the hypotheses, so that a still camera
 * is found to be still.
 * @param size of the plane of the flow's points
 */
export function cameraMotion(flow: Flow, size: { width: number; height: number }): CameraMotion {
  if (flow.corners < LEAST_POINTS || isBlind(flow)) return STILL;
  const weights = new Float32Array(flow.corners);
  const tolerances = new Float32Array(flow.corners);
  for (let i = 0; i < flow.corners; i++) {
    const away = Math.max(Math.abs(flow.x[i]! / size.width - 0.5), Math.abs(flow.y[i]! / size.height - 0.5));
    weights[i] = CENTRE_WEIGHT + 2 * (1 - CENTRE_WEIGHT) * away;
    tolerances[i] = (TOLERANCE + RELATIVE_TOLERANCE * Math.hypot(flow.dx[i]!, flow.dy[i]!)) ** 2;
  }
  const all = weights.reduce((sum, weight) => sum + weight, 0);
  const random = minimalStandard(1 + flow.corners);
  let best: Similarity = STILL;
  let most = 0;
  const consider = (guess: Similarity) => {
    let agreeing = all;
    for (let i = 0; i < flow.corners; i++) {
      if (departure(flow, i, guess) < tolerances[i]!) continue;
      agreeing -= weights[i]!;
      // Most hypotheses are wrong, and are discarded after few points.
      if (agreeing <= most) return;
    }
    if (agreeing > most) [best, most] = [guess, agreeing];
  };
  consider(STILL);
  for (let trial = 0; trial < TRIALS; trial++) {
    const guess = fitTwo(flow, Math.floor(random() * flow.corners), Math.floor(random() * flow.corners));
    if (guess && guess.a > 0.7 && guess.a < 1.4 && Math.abs(guess.b) < 0.3) consider(guess);
  }
  const inside = Array.from({ length: flow.corners }, (_, i) => i).filter(
    (i) => departure(flow, i, best) < tolerances[i]!,
  );
  const share = inside.length / flow.corners;
  // After a cut, or where everything moves independently, no motion is the camera's.
  if (share < LEAST_SHARE) return { ...STILL, share };
  const fitted = inside.length >= LEAST_POINTS ? fitMany(flow, inside) : null;
  return { ...(fitted ?? best), share };
}
