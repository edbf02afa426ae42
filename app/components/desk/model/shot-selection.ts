import { useCallback, useMemo, useState } from "react";
import type { DeskShot } from "./desk-types";

export interface Selection {
  /** Ids of the selected shots; what is current counts when nothing is selected. */
  ids: ReadonlySet<string>;
  /** Selects one shot alone. */
  only: (id: string) => void;
  toggle: (id: string) => void;
  /** Selects from where the selection began to this shot, in the order that is shown. */
  extend: (id: string, order: readonly DeskShot[]) => void;
  all: (order: readonly DeskShot[]) => void;
  clear: () => void;
}

/** Which shots are selected. Ids of shots that are no longer there drop out. */
export function useSelection(shots: readonly DeskShot[]): Selection {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [anchor, setAnchor] = useState<string | null>(null);
  const ids = useMemo(() => new Set(shots.flatMap(({ id }) => (chosen.has(id) ? [id] : []))), [shots, chosen]);

  const only = useCallback((id: string) => {
    setAnchor(id);
    setChosen(new Set([id]));
  }, []);
  const toggle = useCallback((id: string) => {
    setAnchor(id);
    setChosen((before) => {
      const next = new Set(before);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  }, []);
  const extend = useCallback(
    (id: string, order: readonly DeskShot[]) => {
      const index = (wanted: string) => order.findIndex((shot) => shot.id === wanted);
      const [from, to] = [index(anchor ?? id), index(id)];
      setChosen(new Set(order.slice(Math.min(from, to), Math.max(from, to) + 1).map((shot) => shot.id)));
    },
    [anchor],
  );
  const all = useCallback((order: readonly DeskShot[]) => setChosen(new Set(order.map(({ id }) => id))), []);
  const clear = useCallback(() => setChosen(new Set()), []);
  return useMemo(() => ({ ids, only, toggle, extend, all, clear }), [ids, only, toggle, extend, all, clear]);
}
