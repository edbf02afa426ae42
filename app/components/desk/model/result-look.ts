/** How the result is displayed: its size on the screen, and what it is compared with. */
import type { Comparison, ComparisonView } from "./comparison";
import type { DeskPort } from "./desk-model";
import { deskSelector } from "./desk-selector";

/** Size of the result: fitted to its room, pixel for pixel, or as on a phone. */
export const RESULT_VIEWS = ["fit", "true", "phone"] as const;
export type ResultView = (typeof RESULT_VIEWS)[number];

/** What this browser remembers. */
export interface StoredLook {
  view: ResultView;
  setView: (view: ResultView) => void;
  comparisonView: ComparisonView;
  setComparisonView: (view: ComparisonView) => void;
}

export interface ResultLook extends StoredLook {
  /** What the version is compared with; null for nothing. */
  comparison: Comparison | null;
  setComparison: (comparison: Comparison | null) => void;
  /** Whether the other side is on top, where one lies over the other. */
  showsOther: boolean;
  setShowsOther: (shows: boolean) => void;
  /** The element that is shown full screen. */
  part: HTMLElement | null;
  setPart: (part: HTMLElement | null) => void;
}

export function resultLook({ put }: DeskPort) {
  const setComparison = (comparison: Comparison | null) => put({ comparison });
  const setShowsOther = (showsOther: boolean) => put({ showsOther });
  const setPart = (resultPart: HTMLElement | null) => put({ resultPart });
  return deskSelector(
    [(desk) => desk.storedLook, (desk) => desk.comparison, (desk) => desk.showsOther, (desk) => desk.resultPart],
    (stored, comparison, showsOther, part): ResultLook => ({
      ...stored,
      comparison,
      setComparison,
      showsOther,
      setShowsOther,
      part,
      setPart,
    }),
  );
}

/** Shows an element full screen, or ends that. */
export async function toggleFullScreen({ part }: Pick<ResultLook, "part">): Promise<void> {
  if (document.fullscreenElement) await document.exitFullscreen();
  else await part?.requestFullscreen();
}
