import { useMemo } from "react";
import { useStored } from "~/components/common/use-stored";
import { COMPARISON_VIEWS } from "../model/comparison";
import { RESULT_VIEWS, type StoredLook } from "../model/result-look";

/** How this browser shows results, and a function that changes it. */
export function useStoredLook(): StoredLook {
  const [view, setView] = useStored("glad-pan result", RESULT_VIEWS, "fit");
  const [comparisonView, setComparisonView] = useStored("glad-pan comparison", COMPARISON_VIEWS, "beside");
  return useMemo(
    () => ({ view, setView, comparisonView, setComparisonView }),
    [view, setView, comparisonView, setComparisonView],
  );
}
