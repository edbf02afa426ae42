/** What decides the paths of a version, from what the editor has set and what was found. */
import type { HandKey } from "../path/hand-key";
import type { ShotFraming } from "../path/shot-framing";
import type { Shot } from "../shots/shot";
import type { Track } from "../subjects/tracking/track";
import type { FrameRange } from "../time/rate";
import type { VersionState } from "./film-state";
import { settle, type ShotInVersion } from "./shot-in-version";

/** What is set for a shot in a version: all of its framing but what was found in it. */
export interface ShotSettings {
  shot: Shot;
  /** What the version says of it; undefined for nothing. */
  inVersion: ShotInVersion | undefined;
  /** The version's hand keys in it. */
  handKeys: readonly HandKey[];
}

/** How a shot is to be framed. Desk, server and command line all have what the solver is given from here. */
export function shotFraming({ shot, inVersion, handKeys }: ShotSettings, tracks: readonly Track[]): ShotFraming {
  const { settings, follow, protect } = settle(shot, inVersion);
  const { start, end, carry, active, begins } = shot;
  const atTurn = begins === "turn";
  return { range: { start, end }, settings, rule: follow, protect, active, carry, atTurn, handKeys, tracks };
}

/** What lies in each of several ranges; both are in order, and the ranges lie apart. */
export function byRange<T extends { frame: number }>(items: readonly T[], ranges: readonly FrameRange[]): T[][] {
  let at = 0;
  return ranges.map(({ start, end }) => {
    while (at < items.length && items[at]!.frame < start) at++;
    const from = at;
    while (at < items.length && items[at]!.frame < end) at++;
    return items.slice(from, at);
  });
}

/** What is set for each of a film's shots in a version. */
export function shotSettings(shots: readonly Shot[], version: VersionState): ShotSettings[] {
  const handKeys = byRange(version.handKeys, shots);
  return shots.map((shot, i) => ({ shot, inVersion: version.shots.get(shot.id), handKeys: handKeys[i]! }));
}
