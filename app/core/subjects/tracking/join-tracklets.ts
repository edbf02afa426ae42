/** Joins tracklets of one thing across gaps: occluded, turned away, or missed. */
import { munkres } from "munkres";
import { boxCentre, type Point } from "../../geometry/box";
import { hasOtherFace, type Tracklet, unlikeness } from "./associate";
import { meanSignature } from "../detecting/signature";
import type { Detection } from "../detecting/detection";

export interface JoinRules {
  /** Longest gap, in frames. */
  maxGapFrames: number;
  /** Longest distance, in multiples of its size, at once and per second. */
  reach: number;
  reachPerSecond: number;
  /** Greatest difference in appearance, 0 to 1. */
  maxUnlikeness: number;
  fps: number;
}

const FORBIDDEN = 1e6;

/** Place of a tracklet at one of its ends, with its overall appearance: at its ends it may be half hidden. */
function endLook(tracklet: Tracklet, end: "first" | "last"): Detection {
  const { sightings } = tracklet;
  const nearest = (end === "first" ? sightings[0] : sightings.at(-1))!.detection;
  const signature = meanSignature(
    sightings.flatMap(({ detection }) => (detection.signature ? [detection.signature] : [])),
  );
  return { kind: nearest.kind, box: nearest.box, score: nearest.score, ...(signature ? { signature } : {}) };
}

/** Velocity of a tracklet at one of its ends, in pixels per frame, from its outermost sightings. */
function endVelocity({ sightings }: Tracklet, end: "first" | "last"): Point {
  const some = end === "first" ? sightings.slice(0, 3) : sightings.slice(-3);
  const [from, to] = [some[0]!, some.at(-1)!];
  const frames = to.frame - from.frame;
  if (frames === 0) return { x: 0, y: 0 };
  const [a, b] = [boxCentre(from.detection.box), boxCentre(to.detection.box)];
  return { x: (b.x - a.x) / frames, y: (b.y - a.y) / frames };
}

/** Distance between an end and a start: as they are, or where they meet if both continue their movement. */
function distanceOver(gap: number, before: Tracklet, after: Tracklet, a: Point, b: Point): number {
  const [va, vb] = [endVelocity(before, "last"), endVelocity(after, "first")];
  const half = gap / 2;
  const going = Math.hypot(a.x + va.x * half - b.x + vb.x * half, a.y + va.y * half - b.y + vb.y * half);
  return Math.min(Math.hypot(a.x - b.x, a.y - b.y), going);
}

function cost(before: Tracklet, after: Tracklet, rules: JoinRules): number {
  const gap = after.sightings[0]!.frame - before.sightings.at(-1)!.frame;
  if (gap <= 0 || gap > rules.maxGapFrames) return FORBIDDEN;
  const face = after.sightings.find(({ detection }) => detection.faceId);
  if (face && hasOtherFace(before, face.detection)) return FORBIDDEN;
  const [a, b] = [endLook(before, "last"), endLook(after, "first")];
  const unlike = unlikeness(a, b);
  if (unlike > rules.maxUnlikeness) return FORBIDDEN;
  const size = Math.sqrt(a.box.width * a.box.height);
  const growth = Math.abs(Math.log((b.box.width * b.box.height) / (a.box.width * a.box.height))) / Math.log(5);
  const [p, q] = [boxCentre(a.box), boxCentre(b.box)];
  const reach = size * (rules.reach + (rules.reachPerSecond * gap) / rules.fps);
  const distance = distanceOver(gap, before, after, p, q) / reach;
  return distance > 1 || growth > 1 ? FORBIDDEN : 0.5 * distance + unlike + 0.2 * growth;
}

/** Joins ends to starts at the least total cost, until nothing more can be joined. */
export function joinTracklets(tracklets: readonly Tracklet[], rules: JoinRules): Tracklet[] {
  let pieces = [...tracklets];
  while (pieces.length > 1) {
    const costs = pieces.map((before) => pieces.map((after) => cost(before, after, rules)));
    const pairs = munkres(costs).filter(([row, column]) => costs[row]![column]! < FORBIDDEN);
    if (pairs.length === 0) return pieces;
    // Chains grow by one piece per round, so that each joint is a choice between whole pieces.
    const [row, column] = pairs.reduce((best, pair) =>
      costs[pair[0]]![pair[1]]! < costs[best[0]]![best[1]]! ? pair : best,
    );
    const joined = { ...pieces[row]!, sightings: [...pieces[row]!.sightings, ...pieces[column]!.sightings] };
    pieces = pieces.map((piece, i) => (i === row ? joined : piece)).filter((_, i) => i !== column);
  }
  return pieces;
}
