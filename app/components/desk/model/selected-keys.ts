import { useMemo, useState, useSyncExternalStore } from "react";
import { toast } from "sonner";
import { useLatest } from "~/components/common/use-latest";
import { asOne } from "~/core/edits/as-one";
import type { SingleCommand } from "~/core/edits/command";
import type { Point, Size } from "~/core/geometry/box";
import { clampWindow } from "~/core/geometry/crop-window";
import type { HandKey } from "~/core/path/hand-key";
import { type CopiedKeys, copiedKeys, movedKeys, nudged, pastedKeys } from "~/core/path/key-groups";
import { activeArea } from "~/core/shots/shot";
import { windowAspect } from "./windows";
import { type DeskShot, type DeskVersion, shotAt } from "./desk-types";
import type { Edits } from "../hooks/use-edits";
import { keysTexts } from "~/texts/keys";

const t = keysTexts.useSelectedKeys;

// What was copied stays for other shots, versions and films, as long as the page is there.
let clipboard: CopiedKeys | null = null;
const listeners = new Set<() => void>();
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** Hand keys that are selected, and what can be done to them together, each as one step to undo. */
export interface SelectedKeys {
  /** Frames of the keys, each in the pane that is chosen in its shot. */
  frames: ReadonlySet<number>;
  select: (frames: Iterable<number>) => void;
  toggle: (frame: number) => void;
  remove: () => void;
  nudge: (by: Point) => void;
  /** Moves them in time and place, none of them across a cut. */
  move: (frames: number, by: Point) => void;
  /** Shows what that would be. */
  previewMove: (frames: number, by: Point) => void;
  giveUpMove: () => void;
  copy: () => void;
  /** Puts what was copied at a frame; null while nothing is. */
  paste: ((at: number) => void) | null;
}

interface OwnKey {
  shot: DeskShot;
  key: HandKey;
}

const NONE: ReadonlySet<number> = new Set();

/** What puts a key into a shot, as near to its place as the shot's window can be. */
function put(shot: DeskShot, key: HandKey, version: DeskVersion, picture: Size): SingleCommand {
  const window = clampWindow(key, activeArea(shot, picture), windowAspect(shot, picture, version));
  return { type: "set-key", versionId: version.id, key: { ...key, ...window } };
}

export function useSelectedKeys(
  edits: Edits,
  shots: readonly DeskShot[],
  version: DeskVersion,
  picture: Size,
): SelectedKeys {
  const [chosen, select] = useState<ReadonlySet<number>>(NONE);
  const copied = useSyncExternalStore(
    subscribe,
    () => clipboard,
    () => null,
  );
  // As they were when a move began: what is shown until it ends has them elsewhere.
  const [moving, setMoving] = useState<readonly OwnKey[] | null>(null);
  const present = useMemo<OwnKey[]>(
    () =>
      chosen.size === 0
        ? []
        : shots.flatMap((shot) => shot.handKeys.filter(({ frame }) => chosen.has(frame)).map((key) => ({ shot, key }))),
    [shots, chosen],
  );
  const own = moving ?? present;
  const frames = useMemo(() => new Set(own.map(({ key }) => key.frame)), [own]);
  const latest = useLatest({ own, shots, version });
  const actions = useMemo(() => {
    const send = (commands: SingleCommand[]) => {
      if (commands.length > 0) edits.send(asOne(commands));
    };
    const removals = (keys: readonly OwnKey[]): SingleCommand[] =>
      keys.map(({ key: { pane, frame } }) => ({
        ...{ type: "remove-key", versionId: latest.current.version.id, pane, frame },
      }));
    /** Keys of one shot after the other, moved together. */
    const moves = (by: number, place: Point): SingleCommand[] => {
      const { own: keys } = latest.current;
      const byShot = new Map(keys.map(({ shot }) => [shot.id, shot]));
      const moved = [...byShot.values()].flatMap((shot) => {
        const theirs = keys.filter((each) => each.shot === shot).map(({ key }) => key);
        return movedKeys(nudged(theirs, place), by, shot).map((key) => put(shot, key, latest.current.version, picture));
      });
      return by === 0 ? moved : [...removals(keys), ...moved];
    };
    return {
      select: (to: Iterable<number>) => select(new Set(to)),
      toggle: (frame: number) =>
        select((before) => {
          const next = new Set(before);
          if (!next.delete(frame)) next.add(frame);
          return next;
        }),
      remove: () => {
        send(removals(latest.current.own));
        select(NONE);
      },
      nudge: (by: Point) => send(moves(0, by)),
      move: (by: number, place: Point) => {
        const commands = moves(by, place);
        setMoving(null);
        send(commands);
        select(new Set(commands.flatMap((each) => (each.type === "set-key" ? [each.key.frame] : []))));
      },
      previewMove: (by: number, place: Point) => {
        setMoving(latest.current.own);
        edits.preview(asOne(moves(by, place)));
      },
      giveUpMove: () => {
        setMoving(null);
        edits.preview(null);
      },
      copy: () => {
        const { own: keys } = latest.current;
        if (keys.length === 0) return;
        clipboard = copiedKeys(keys.map(({ key }) => key));
        for (const listener of listeners) listener();
        toast(t.copied(keys.length));
      },
    };
  }, [edits, latest, picture]);
  return useMemo(() => {
    const paste = (at: number) => {
      const shot = shotAt(latest.current.shots, at);
      if (!copied || !shot) return;
      const keys = pastedKeys(copied, at, shot.pane, shot);
      const lost = copied.length - keys.length;
      const commands = keys.map((key) => put(shot, key, latest.current.version, picture));
      if (commands.length > 0) edits.send(asOne(commands));
      if (lost > 0) {
        toast(t.outsideShot(lost));
      }
    };
    return { ...actions, frames, paste: copied && paste };
  }, [actions, frames, copied, edits, latest, picture]);
}
