import { useEffect, useMemo, useState } from "react";
import { toast } from "sonner";
import type { Difference } from "~/core/edits/difference";
import { stateOf } from "~/core/edits/named-state";
import { loadNamedState } from "../history/film-history";
import { useShotHere } from "../picture/use-player";
import { useDesk } from "../state/desk-context";
import { type Comparison, type Side, sidesOf } from "./comparison";
import { compareTexts } from "~/texts/compare";

const t = compareTexts.useSides;

/** What the version is compared with; nothing until a named state has been loaded. */
export function useSides(comparison: Comparison): Side[] {
  const { film, state, version, shots, player, look } = useDesk();
  const { setComparison } = look;
  const stateId = comparison.kind === "state" ? comparison.stateId : null;
  const [loaded, setLoaded] = useState<{ stateId: string; kept: Difference } | null>(null);
  useEffect(() => {
    if (stateId === null) return;
    let isOver = false;
    loadNamedState(film.id, stateId).then(
      (kept) => !isOver && setLoaded({ stateId, kept }),
      () => {
        toast.error(t.theNamedStateCouldNot);
        setComparison(null);
      },
    );
    return () => {
      isOver = true;
    };
  }, [film.id, stateId, setComparison]);
  const then = useMemo(
    () => (loaded && loaded.stateId === stateId ? stateOf(loaded.kept, state) : null),
    [loaded, stateId, state],
  );
  // Manners are those of the shot on screen; the others do not depend on it.
  const here = useShotHere(player, shots);
  const shot = comparison.kind === "manners" ? here : undefined;
  return useMemo(() => sidesOf(comparison, { state, version }, shot, then), [comparison, state, version, shot, then]);
}
