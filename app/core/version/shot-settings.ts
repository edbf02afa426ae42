/** The inputs of a version's paths, from the editor's settings and the findings. */
import { paneCount } from "../composition/layout";
import { PANES } from "../composition/stack";
import type { HandKey } from "../path/hand-key";
import type { ShotFraming } from "../path/shot-framing";
import type { Shot } from "../shots/shot";
import type { AttentionSettings } from "../subjects/attention/attention-settings";
import type { Track } from "../subjects/tracking/track";
import { type FrameRange, rangeKey } from "../time/rate";
import { partsWithin } from "../time/ranges";
import type { FilmState, VersionState } from "./film-state";
import { settle, settledPane, type SettledShot, type ShotInVersion, type UsualInVersion } from "./settle";
import { keptRanges } from "./trim";

/** The settings of a shot in a version: its whole framing except its tracks. */
export interface ShotSettings {
  shot: Shot;
  /** The version's settings of it; undefined for none. */
  inVersion: ShotInVersion | undefined;
  /** The version's settings of all shots. */
  usual: UsualInVersion;
  /** The film's settings for how attention switches. */
  attention: AttentionSettings;
  /** The version's hand keys in it. */
  handKeys: readonly HandKey[];
  /** The ranges of it that the version shows. */
  kept: readonly FrameRange[];
}

/** The settings of a shot in a version. */
export const settledShot = ({ shot, inVersion, usual, attention }: ShotSettings): SettledShot =>
  settle(shot, inVersion, { ...attention, ...usual });

/** All inputs derived from a shot's settings: identical values stand for identical settings. */
export const basisOf = ({ handKeys, kept, ...set }: ShotSettings): readonly unknown[] => [
  set.shot,
  set.inVersion,
  set.usual,
  set.attention,
  kept.map(rangeKey).join(),
  ...handKeys,
];

/** The hand keys of one of a shot's panes. */
export const keysOf = (handKeys: readonly HandKey[], pane: number): HandKey[] =>
  handKeys.filter((key) => key.pane === pane);

/** How a shot is to be framed: the solver's input for desk, server and command line alike. */
export function shotFraming(set: ShotSettings, tracks: readonly Track[]): ShotFraming {
  const { kept } = set;
  const settled = settledShot(set);
  const { protect } = settled;
  const { start, end, carry, active, begins } = set.shot;
  const [first, ...others] = PANES.slice(0, paneCount(settled.settings.layout)).map((pane) => {
    const { settings, follow: rule } = settledPane(settled, pane);
    return { settings, rule, handKeys: keysOf(set.handKeys, pane) };
  });
  return {
    range: { start, end },
    kept,
    ...first!,
    others,
    protect,
    active,
    carry,
    atSwitch: begins === "switch",
    tracks,
  };
}

/** The items in each of several ranges; both are in order, and the ranges are disjoint. */
export function byRange<T extends { frame: number }>(items: readonly T[], ranges: readonly FrameRange[]): T[][] {
  let at = 0;
  return ranges.map(({ start, end }) => {
    while (at < items.length && items[at]!.frame < start) at++;
    const from = at;
    while (at < items.length && items[at]!.frame < end) at++;
    return items.slice(from, at);
  });
}

/** The settings of each of a film's shots in a version. */
export function shotSettings(
  { shots, clips, attention }: Pick<FilmState, "shots" | "clips" | "attention">,
  version: VersionState,
): ShotSettings[] {
  const { usual, trim } = version;
  const handKeys = byRange(version.handKeys, shots);
  const kept = partsWithin(keptRanges(trim, shots.at(-1)?.end ?? 0, { shots, clips }), shots);
  return shots.map((shot, i) => ({
    shot,
    inVersion: version.shots.get(shot.id),
    usual,
    attention,
    handKeys: handKeys[i]!,
    kept: kept[i]!,
  }));
}
