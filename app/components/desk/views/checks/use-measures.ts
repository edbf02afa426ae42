import { useMemo, useState } from "react";
import { type Measures, measureShot } from "~/core/checks/measures";
import { followedTrack } from "~/core/path/solve-version";
import { PerKey } from "~/core/basics/per-key";
import { framesPerSecond, type Rate } from "~/core/time/rate";
import type { DeskShot } from "../../model/desk-types";

export interface MeasuredShot {
  shot: DeskShot;
  measures: Measures;
}

/** The measures of each framed shot; an unchanged shot is not measured again. */
export function useMeasures(shots: readonly DeskShot[], rate: Rate): readonly MeasuredShot[] {
  const [known] = useState(() => new PerKey<MeasuredShot>());
  return useMemo(() => {
    const fps = framesPerSecond(rate);
    return shots.flatMap((shot) => {
      const { solved, shown, kept, start, end } = shot;
      if (!solved || !shown) return [];
      return known.get(shot.id, [shot], () => ({
        shot,
        measures: measureShot({ start, end }, kept, followedTrack(solved, shot.tracks), shown, fps),
      }));
    });
  }, [known, shots, rate]);
}
