import { useMemo } from "react";
import type { Command } from "~/core/edits/command";
import type { FramingChange } from "~/core/path/framing-settings";
import { type DeskShot, shotAt } from "./desk-types";
import type { Player } from "../picture/player";
import type { Edits } from "./use-edits";

type Change = Extract<Command, { type: "change-shots" }>["change"];

/** What can be done to shots; "here" is the shot under the playhead. */
export interface ShotEdits {
  change: (shots: readonly DeskShot[], change: Change) => void;
  setFraming: (shots: readonly DeskShot[], change: FramingChange) => void;
  splitHere: (kind: "cut" | "turn") => void;
  join: (shots: readonly DeskShot[]) => void;
  joinNext: () => void;
  excludeHere: () => void;
  moveCut: (shot: DeskShot, frame: number) => void;
  /** Moves where the shot under the playhead begins by so many frames, and the playhead with it. */
  nudgeCut: (by: number) => void;
}

export function useShotEdits(
  { send }: Edits,
  versionId: string,
  shots: readonly DeskShot[],
  player: Player | null,
): ShotEdits {
  return useMemo(() => {
    const here = () => (player ? shotAt(shots, player.getFrame()) : undefined);
    const ids = (some: readonly DeskShot[]) => some.map(({ id }) => id);
    const change = (some: readonly DeskShot[], to: Change) =>
      send({ type: "change-shots", shotIds: ids(some), change: to });
    const moveCut = (shot: DeskShot, frame: number) => {
      send({ type: "move-cut", shotId: shot.id, frame });
      player?.seek(frame);
    };
    return {
      change,
      setFraming: (some, change) => send({ type: "set-framing", versionId, shotIds: ids(some), change }),
      splitHere: (kind) => {
        const frame = player?.getFrame() ?? 0;
        if (frame > (here()?.start ?? frame)) send({ type: "split-shot", frame, kind });
      },
      join: (some) => send({ type: "join-shots", shotIds: ids(some) }),
      joinNext: () => {
        const shot = here();
        const next = shot && shots[shot.number];
        if (next) send({ type: "join-shots", shotIds: [shot.id, next.id] });
      },
      excludeHere: () => {
        const shot = here();
        if (shot) change([shot], { excluded: !shot.excluded });
      },
      moveCut,
      nudgeCut: (by) => {
        const shot = here();
        const before = shot && shots[shot.number - 2];
        const frame = (shot?.start ?? 0) + by;
        if (shot && before && frame > before.start && frame < shot.end) moveCut(shot, frame);
      },
    };
  }, [send, versionId, shots, player]);
}
