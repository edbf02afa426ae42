import { fill, type ShownAt } from "~/core/composition/composition";
import type { FilmState, Version, VersionState } from "~/core/version/film-state";
import type { Size } from "~/core/geometry/box";
import { aspectRatio, centredWindow } from "~/core/geometry/crop-window";
import { MOVEMENT_TEXT, type Movement } from "~/core/path/movement";
import { areaAt } from "./windows";
import type { DeskShot } from "./desk-types";
import { applied } from "./edit-session";
import { framingCommands } from "./shot-commands";
import { compareTexts } from "~/texts/compare";

const t = compareTexts.comparison;

/** What the present version is compared with. */
export type Comparison =
  | { kind: "centre" }
  /** The shot on screen in other movements. */
  | { kind: "movements"; movements: readonly Movement[] }
  | { kind: "versions"; versionIds: readonly string[] }
  | { kind: "state"; checkpointId: string; name: string }
  /** The film as it was a moment ago. */
  | { kind: "earlier"; name: string; state: FilmState };

/** More than these beside the version would be too small to compare. */
export const MOST_BESIDE = 2;

export const COMPARISON_VIEWS = ["beside", "split", "flip"] as const;
export type ComparisonView = (typeof COMPARISON_VIEWS)[number];

/** One side of the comparison. */
export interface Side {
  key: string;
  name: string;
  /** Size of its frame. */
  size: Size;
  /** What it is framed from; null for a plain crop of the picture's centre. */
  framedFrom: { state: FilmState; version: VersionState } | null;
}

/**
 * The sides of a comparison.
 * @param shot the one on screen
 * @param then the film's state at a checkpoint; null while it has not loaded
 */
export function sidesOf(
  comparison: Comparison,
  { state, version }: { state: FilmState; version: Version },
  shot: DeskShot | undefined,
  then: FilmState | null,
): Side[] {
  const { width, height } = version;
  const size = { width, height };
  switch (comparison.kind) {
    case "centre":
      return [{ key: "centre", name: t.centreCrop, size, framedFrom: null }];
    case "movements":
      return comparison.movements.flatMap((movement) => {
        if (!shot) return [];
        const commands = framingCommands([shot], version.id, { movement });
        const other = applied(state, { type: "batch", commands });
        const framedFrom = { state: other, version: other.versions.find(({ id }) => id === version.id)! };
        return [{ key: movement, name: MOVEMENT_TEXT[movement].name, size, framedFrom }];
      });
    case "versions":
      return state.versions
        .filter(({ id }) => comparison.versionIds.includes(id) && id !== version.id)
        .map((other) => ({
          key: other.id,
          name: other.name,
          size: { width: other.width, height: other.height },
          framedFrom: { state, version: other },
        }));
    case "state":
    case "earlier": {
      const earlier = comparison.kind === "state" ? then : comparison.state;
      const other = earlier?.versions.find(({ id }) => id === version.id);
      if (!earlier || !other) return [];
      return [{ key: "earlier", name: comparison.name, size: other, framedFrom: { state: earlier, version: other } }];
    }
  }
}

/** A plain crop of the picture's centre, or of its centre without the letterbox. */
export const centreShown =
  (shots: readonly DeskShot[], picture: Size, size: Size): ShownAt =>
  (frame) =>
    fill(centredWindow(areaAt(shots, frame, picture), aspectRatio(size)), size);

/** Whether two frames have the same aspect ratio, so that one can lie over the other. */
export const isSameShape = (a: Size, b: Size): boolean => a.width * b.height === b.width * a.height;
