import { useSyncExternalStore } from "react";
import { toast } from "sonner";
import type { SingleCommand } from "~/core/edits/command";
import { counted } from "~/core/counted";
import type { Point } from "~/core/geometry/box";
import { clampWindow } from "~/core/geometry/crop-window";
import type { HandKey } from "~/core/path/hand-key";
import { type CopiedKeys, copiedKeys, nudged, pastedKeys } from "~/core/path/key-groups";
import { activeArea } from "~/core/shots/shot";
import { windowAspect } from "../picture/desk-windows";
import { useDesk } from "../state/desk-context";
import type { DeskShot } from "../state/desk-types";

// What was copied stays for other shots, versions and films, as long as the page is there.
let clipboard: CopiedKeys | null = null;
const listeners = new Set<() => void>();
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

/** What can be done to several of a shot's hand keys at once, each as one step to undo. */
export interface KeyGroups {
  remove: (keys: readonly HandKey[]) => void;
  nudge: (keys: readonly HandKey[], by: Point) => void;
  copy: (keys: readonly HandKey[]) => void;
  /** Puts what was copied at a frame; null while nothing is. */
  paste: ((at: number) => void) | null;
}

export function useKeyGroups(shot: DeskShot): KeyGroups {
  const { film, version, edits } = useDesk();
  const copied = useSyncExternalStore(
    subscribe,
    () => clipboard,
    () => null,
  );
  const versionId = version.id;
  const send = (commands: SingleCommand[]) => {
    if (commands.length === 1) edits.send(commands[0]!);
    else if (commands.length > 1) edits.send({ type: "batch", commands });
  };
  const put = (keys: readonly HandKey[]) => {
    const area = activeArea(shot, film.picture);
    const aspect = windowAspect(shot, film.picture, version);
    send(keys.map((key) => ({ type: "set-key", versionId, key: { ...key, ...clampWindow(key, area, aspect) } })));
  };
  return {
    remove: (keys) => send(keys.map(({ pane, frame }) => ({ type: "remove-key", versionId, pane, frame }))),
    nudge: (keys, by) => put(nudged(keys, by)),
    copy: (keys) => {
      clipboard = copiedKeys(keys);
      for (const listener of listeners) listener();
      toast(`${counted(keys.length, "key")} copied.`);
    },
    paste:
      copied &&
      ((at) => {
        const keys = pastedKeys(copied, at, shot.pane, shot);
        const lost = copied.length - keys.length;
        put(keys);
        if (lost > 0)
          toast(`${counted(lost, "key")} would lie beyond the shot and ${lost === 1 ? "was" : "were"} left out.`);
      }),
  };
}
