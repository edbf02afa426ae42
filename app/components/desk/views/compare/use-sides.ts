import { useEffect, useState } from "react";
import { toast } from "sonner";
import type { Difference } from "~/core/edits/difference";
import { stateOf } from "~/core/edits/checkpoint";
import { loadCheckpoint } from "../../hooks/film-checkpoints";
import { useShotHere } from "../../hooks/use-player";
import { useDesk } from "../../hooks/use-desk";
import { type Comparison, type Side, sidesOf } from "../../model/comparison";
import { compareTexts } from "~/texts/compare";

const t = compareTexts.useSides;

/** The sides of the comparison; none until a checkpoint has loaded. */
export function useSides(comparison: Comparison): Side[] {
  const { film, state, version, shots, player, look } = useDesk("film", "state", "version", "shots", "player", "look");
  const { setComparison } = look;
  const checkpointId = comparison.kind === "state" ? comparison.checkpointId : null;
  const [loaded, setLoaded] = useState<{ checkpointId: string; difference: Difference } | null>(null);
  useEffect(() => {
    if (checkpointId === null) return;
    let isOver = false;
    loadCheckpoint(film.id, checkpointId).then(
      (difference) => !isOver && setLoaded({ checkpointId, difference }),
      () => {
        toast.error(t.checkpointFailed);
        setComparison(null);
      },
    );
    return () => {
      isOver = true;
    };
  }, [film.id, checkpointId, setComparison]);
  const then = loaded && loaded.checkpointId === checkpointId ? stateOf(loaded.difference, state) : null;
  // Only a comparison of movements depends on the shot on screen.
  const here = useShotHere(player, shots);
  const shot = comparison.kind === "movements" ? here : undefined;
  return sidesOf(comparison, { state, version }, shot, then);
}
