import bezier from "bezier-easing";
import { z } from "zod";

/** The named easings from a key to the next one. */
export const EASINGS = ["hold", "linear", "ease-in", "ease-out", "ease"] as const;
type NamedEasing = (typeof EASINGS)[number];

/** A curve of the editor's own, in the notation of CSS Easing Functions Level 1. */
export type Curve = `cubic-bezier(${number}, ${number}, ${number}, ${number})`;

/** How the window gets from a key to the next one. */
export type Easing = NamedEasing | Curve;

/** The two handles of a curve: a share of the time and a share of the distance each. */
export type CurveHandles = readonly [x1: number, y1: number, x2: number, y2: number];

/** The curve with these handles, all within 0 to 1, so that the window never overshoots its keys. */
export const curveOf = ([x1, y1, x2, y2]: CurveHandles): Curve => `cubic-bezier(${x1}, ${y1}, ${x2}, ${y2})`;

/** The handles of a curve; null for a named easing, and for text that is no curve within 0 to 1. */
export function handlesOf(easing: string): CurveHandles | null {
  const values = /^cubic-bezier\((.+)\)$/.exec(easing)?.[1]?.split(",").map(Number);
  const areShares = values?.length === 4 && values.every((value) => value >= 0 && value <= 1);
  return areShares ? (values as [number, number, number, number]) : null;
}

/** The named easings as curves: polynomials of second and third degree are Bézier curves with handles at thirds. */
const AS_CURVES: Record<Exclude<NamedEasing, "hold">, CurveHandles> = {
  linear: [1 / 3, 1 / 3, 2 / 3, 2 / 3],
  "ease-in": [1 / 3, 0, 2 / 3, 1 / 3],
  "ease-out": [1 / 3, 2 / 3, 2 / 3, 1],
  ease: [1 / 3, 0, 2 / 3, 1],
};

/** The handles of an easing; null for one that holds. */
export function curveHandles(easing: Easing): CurveHandles | null {
  if (easing === "hold") return null;
  return isCurve(easing) ? handlesOf(easing) : AS_CURVES[easing];
}

export const isCurve = (easing: unknown): easing is Curve => typeof easing === "string" && handlesOf(easing) !== null;

export const Easing = z.union([
  z.enum(EASINGS),
  z.custom<Curve>(isCurve, {
    error: "An easing has a name or is cubic-bezier(x1, y1, x2, y2), with each of the four from 0 to 1",
  }),
]);

function functionOf(curve: Curve): (t: number) => number {
  const handles = handlesOf(curve);
  if (!handles) throw new Error(`unknown easing ${curve}`);
  return bezier(...handles);
}

/** The last curve that was used: a path is read frame by frame. */
let last: { curve: Curve; at: (t: number) => number } | null = null;

function curveAt(curve: Curve, t: number): number {
  if (last?.curve !== curve) last = { curve, at: functionOf(curve) };
  return last.at(t);
}

/** Share of the distance covered after a share `t` of the time, both 0 to 1. */
export function ease(easing: Easing, t: number): number {
  switch (easing) {
    case "hold":
      return t < 1 ? 0 : 1;
    case "linear":
      return t;
    case "ease-in":
      return t * t;
    case "ease-out":
      return t * (2 - t);
    case "ease":
      return t * t * (3 - 2 * t);
    default:
      return curveAt(easing, t);
  }
}
