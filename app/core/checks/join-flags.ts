/** Flags at cuts: windows that still move, and eye-trace jumps. */
import { filmPanes, type ShownAt } from "../composition/composition";
import { mapBox, type Point } from "../geometry/box";
import { boxAt, type Track } from "../subjects/tracking/track";
import { flagsTexts } from "../../texts/flags";
import type { CheckedShot } from "./checked-shot";
import { type Flag, severityOf } from "./flag";
import { movingAt } from "./window-flags";

const t = flagsTexts.joinFlags;

/** Height of the eyes in a face's box, from its top. */
const EYES = 0.4;

/** State of a shot's start or end, for comparison across a cut. */
export interface ShotSide {
  /** Its first or last shown frame. */
  frame: number;
  /** Places of people's eyes, by person, as shares of the frame. */
  eyes: readonly (readonly [string, Point])[];
  moving: Flag | null;
}

/** Both ends of a shot; null where nothing of it is shown. */
export type ShotSides = { first: ShotSide; last: ShotSide } | null;

function eyesAt(tracks: readonly Track[], shown: ShownAt, frame: number): ShotSide["eyes"] {
  const { size, panes } = shown(frame);
  const [pane] = filmPanes({ panes });
  if (!pane) return [];
  return tracks.flatMap((track) => {
    const box = track.kind === "face" ? boxAt(track, frame) : null;
    if (!box || !track.who) return [];
    const face = mapBox(box, pane.source, pane.target);
    const eyes = { x: (face.x + face.width / 2) / size.width, y: (face.y + EYES * face.height) / size.height };
    const isShown = eyes.x >= 0 && eyes.x <= 1 && eyes.y >= 0 && eyes.y <= 1;
    return isShown ? [[track.who, eyes] as const] : [];
  });
}

/** @param subject followed in the shot's first pane */
export function sidesOf(shot: CheckedShot, subject: Track | null, shown: ShownAt): ShotSides {
  const { kept, tracks } = shot;
  const [first, last] = [kept[0], kept.at(-1)];
  if (!first || !last) return null;
  const side = (which: "start" | "end", frame: number): ShotSide => ({
    frame,
    eyes: eyesAt(tracks, shown, frame),
    moving: movingAt(which, shot, subject, shown),
  });
  return { first: side("start", first.start), last: side("end", last.end - 1) };
}

/** A shot and its neighbours; null for one that does not exist, or is not framed yet. */
export interface Joined {
  before: ShotSides;
  shot: ShotSides;
  /** Whether it continues the shot before, and continues into the next. */
  goesOn: { from: boolean; into: boolean };
}

/**
 * Flags at a shot's start and end.
 * @param jolt limit for jumps of eyes, as a share of the frame
 */
export function joinFlags({ before, shot, goesOn }: Joined, jolt: number): Flag[] {
  if (!shot) return [];
  const { first, last } = shot;
  return [
    ...(goesOn.from ? [] : [first.moving]),
    ...(goesOn.into ? [] : [last.moving]),
    before && !goesOn.from ? jump(before.last, first, jolt) : null,
  ].filter((flag) => flag !== null);
}

/** A jump of somebody in both shots beyond the limit; a range left out between them separates the shots anyway. */
function jump(from: ShotSide, to: ShotSide, limit: number): Flag | null {
  if (from.frame + 1 !== to.frame) return null;
  const places = new Map(to.eyes);
  const jumps = from.eyes.map(([who, a]) => {
    const b = places.get(who);
    return b ? Math.max(Math.abs(a.x - b.x), Math.abs(a.y - b.y)) : 0;
  });
  const farthest = Math.max(0, ...jumps);
  if (farthest <= limit) return null;
  const range = { start: to.frame, end: to.frame + 1 };
  const severity = severityOf("jolt", 0.4 + (farthest - limit) / (1 - limit));
  return { kind: "jolt", range, frame: to.frame, text: t.eyeTraceJump(farthest), severity };
}
