import type { DeskPort } from "./desk-model";
import { deskSelector } from "./desk-selector";
import type { DeskShot } from "./desk-types";

/** The selected shots, and where the selection began. */
export interface ShotChoice {
  ids: ReadonlySet<string>;
  anchor: string | null;
}
export const NO_SHOTS: ShotChoice = { ids: new Set(), anchor: null };

export interface ShotSelection {
  /** Ids of the selected shots; with none selected, commands apply to the current one. */
  ids: ReadonlySet<string>;
  /** Selects one shot alone. */
  only: (id: string) => void;
  toggle: (id: string) => void;
  /** Selects from where the selection began to this shot, in the order that is shown. */
  extend: (id: string, order: readonly DeskShot[]) => void;
  all: (order: readonly DeskShot[]) => void;
  clear: () => void;
}

const idsOf = (shots: readonly DeskShot[]): string[] => shots.map(({ id }) => id);

/** The selected shots. Ids of shots that no longer exist are ignored. */
export function shotSelection({ get, put }: DeskPort) {
  const select = (ids: Iterable<string>, anchor = get().shotChoice.anchor) =>
    put({ shotChoice: { ids: new Set(ids), anchor } });
  const commands: Omit<ShotSelection, "ids"> = {
    only: (id) => select([id], id),
    toggle: (id) => {
      const next = new Set(get().shotChoice.ids);
      if (!next.delete(id)) next.add(id);
      select(next, id);
    },
    extend: (id, order) => {
      const ids = idsOf(order);
      const [from, to] = [ids.indexOf(get().shotChoice.anchor ?? id), ids.indexOf(id)];
      select(ids.slice(Math.min(from, to), Math.max(from, to) + 1));
    },
    all: (order) => select(idsOf(order)),
    clear: () => select([]),
  };
  return deskSelector([(desk) => desk.shots, (desk) => desk.shotChoice.ids], (shots, ids): ShotSelection => ({
    ...commands,
    ids: new Set(idsOf(shots).filter((id) => ids.has(id))),
  }));
}
