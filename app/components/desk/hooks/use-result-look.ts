import { type RefObject, useMemo, useRef, useState } from "react";
import { useStored } from "~/components/common/use-stored";
import { type Comparison, COMPARISON_VIEWS, type ComparisonView } from "../model/comparison";

/** How the result stands on the desk: fitted into its room, pixel by pixel, or as a phone shows it. */
export const RESULT_VIEWS = ["fit", "true", "phone"] as const;
export type ResultView = (typeof RESULT_VIEWS)[number];

/** How the result is looked at. */
export interface ResultLook {
  view: ResultView;
  setView: (view: ResultView) => void;
  /** What the version is compared with; null for nothing. */
  comparison: Comparison | null;
  setComparison: (comparison: Comparison | null) => void;
  comparisonView: ComparisonView;
  setComparisonView: (view: ComparisonView) => void;
  /** Whether the other is on top, where one lies over the other. */
  showsOther: boolean;
  setShowsOther: (shows: boolean) => void;
  /** What fills the screen when that is asked for. */
  part: RefObject<HTMLElement | null>;
}

export function useResultLook(): ResultLook {
  const [view, setView] = useStored("glad-pan result", RESULT_VIEWS, "fit");
  const [comparison, setComparison] = useState<Comparison | null>(null);
  const [comparisonView, setComparisonView] = useStored("glad-pan comparison", COMPARISON_VIEWS, "beside");
  const [showsOther, setShowsOther] = useState(false);
  const part = useRef<HTMLElement>(null);
  return useMemo(
    () => ({
      ...{
        view,
        setView,
        comparison,
        setComparison,
        comparisonView,
        setComparisonView,
        showsOther,
        setShowsOther,
        part,
      },
    }),
    [view, setView, comparison, comparisonView, setComparisonView, showsOther],
  );
}

/** Lets a part of the page fill the screen, or the page be as it was. */
export async function toggleFullScreen({ part }: Pick<ResultLook, "part">): Promise<void> {
  if (document.fullscreenElement) await document.exitFullscreen();
  else await part.current?.requestFullscreen();
}
