import type { ShownAt } from "~/core/composition/composition";
import { paneCount } from "~/core/composition/layout";
import { shownIn } from "~/core/composition/shown";
import { ownIn, PANES } from "~/core/composition/stack";
import type { FilmState } from "~/core/version/film-state";
import { keysOf, settledShot, type ShotSettings } from "~/core/version/shot-settings";
import { settledPane } from "~/core/version/settle";
import type { ShotResult } from "~/core/version/version-framer";
import type { Size } from "~/core/geometry/box";
import { castOf } from "~/core/subjects/choosing/cast";
import type { ThingMark } from "~/core/subjects/marks/marked-things";
import type { Track } from "~/core/subjects/tracking/track";
import type { DeskFlag, DeskShot } from "./desk-types";

/** A shot with its settings, its tracks, and its framing as far as it is known. */
export interface FoundShot {
  set: ShotSettings;
  result: ShotResult | null;
  isAnalysed: boolean;
  /** What it shows; null while it has not been framed. */
  shown: ShownAt | null;
  /** Unpacked at first use. */
  readonly tracks: readonly Track[];
}

export function foundShot(
  set: ShotSettings,
  result: ShotResult | null,
  isAnalysed: boolean,
  { size, fps }: { size: Size; fps: number },
  find: () => readonly Track[],
): FoundShot {
  let tracks: readonly Track[] | undefined;
  return {
    set,
    result,
    isAnalysed,
    shown: result && shownIn([{ range: set.shot, ...result.framed }], size, fps),
    get tracks() {
      return (tracks ??= find());
    },
  };
}

interface OnTheDesk {
  number: number;
  /** Which pane is selected in shots that have it. */
  selectedPane: number;
  marks: readonly ThingMark[];
  flags: readonly DeskFlag[];
  /** Size of the source's picture. */
  picture: Size;
  people: FilmState["people"];
}

/** A shot as the desk shows it. */
export function deskShot(
  found: FoundShot,
  { number, selectedPane, marks, flags, picture, people }: OnTheDesk,
): DeskShot {
  const { set, result, isAnalysed, shown } = found;
  const { shot, kept } = set;
  const settled = settledShot(set);
  const { layout } = settled.settings;
  const panes = PANES.slice(0, paneCount(layout)).filter((each) => layout.kind !== "stack" || !ownIn(layout, each));
  const pane = panes.find((each) => each === selectedPane) ?? 0;
  const solved = result?.framed ?? null;
  let cast: DeskShot["cast"] | undefined;
  return {
    ...shot,
    ...settledPane(settled, pane),
    number,
    pane,
    panes,
    isAnalysed,
    kept,
    marks,
    flags,
    solved,
    shown,
    handKeys: keysOf(set.handKeys, pane),
    framed: pane === 0 ? solved : (solved?.others[pane - 1] ?? null),
    tellingFrame: result?.tellingFrame ?? shot.start,
    get tracks() {
      return found.tracks;
    },
    get cast() {
      return (cast ??= castOf(found.tracks, shot, picture, people));
    },
  };
}
