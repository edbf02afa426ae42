import type { RefObject } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import type { DeskShot } from "./desk-types";
import type { Player } from "../picture/player";
import type { ShotEdits } from "./use-shot-edits";
import { neighbouringCuts } from "../picture/transport";

export interface ShortcutTargets {
  player: Player | null;
  shots: DeskShot[];
  timecode: RefObject<HTMLInputElement | null>;
  framesPerSecond: number;
  onUndo: () => void;
  onRedo: () => void;
  onPin: () => void;
  onRelease: () => void;
  onToggleSubjects: () => void;
  onToggleMarking: () => void;
  shotEdits: ShotEdits;
}

/** Goes to the nearest key before or after the playhead, over all shots. */
function seekKey(player: Player, shots: readonly DeskShot[], direction: -1 | 1): void {
  const here = player.getFrame();
  const frames = shots.flatMap((shot) => shot.framed?.keys.map((key) => key.frame) ?? []);
  const key = direction < 0 ? frames.findLast((frame) => frame < here) : frames.find((frame) => frame > here);
  if (key !== undefined) player.seek(key);
}

function seekNextCut(player: Player, shots: readonly DeskShot[]): void {
  const { after } = neighbouringCuts(shots, player.getFrame());
  if (after !== null) player.seek(after);
}

/** Everything on the desk that a key does. Fields in which one types keep their keys. */
export function useShortcuts(targets: ShortcutTargets): void {
  const { player, shots, timecode, framesPerSecond, onUndo, onRedo, onPin, onRelease, shotEdits } = targets;
  const second = Math.round(framesPerSecond);
  const actions: Record<string, (to: Player) => void> = {
    space: (to) => to.toggle(),
    left: (to) => to.step(-1),
    right: (to) => to.step(1),
    "shift+left": (to) => to.step(-second),
    "shift+right": (to) => to.step(second),
    pageup: (to) => to.seek(neighbouringCuts(shots, to.getFrame()).before),
    pagedown: (to) => seekNextCut(to, shots),
    comma: (to) => seekKey(to, shots, -1),
    period: (to) => seekKey(to, shots, 1),
    home: (to) => to.seek(0),
    t: () => timecode.current?.focus(),
    k: onPin,
    delete: onRelease,
    s: targets.onToggleSubjects,
    m: targets.onToggleMarking,
    d: () => shotEdits.splitHere("cut"),
    "shift+d": () => shotEdits.splitHere("turn"),
    u: shotEdits.joinNext,
    x: shotEdits.excludeHere,
    "alt+left": () => shotEdits.nudgeCut(-1),
    "alt+right": () => shotEdits.nudgeCut(1),
  };
  useHotkeys(Object.keys(actions), (_event, { hotkey }) => player && actions[hotkey]?.(player), {
    preventDefault: true,
  });
  // A radio button uses plain keys itself, but not these.
  useHotkeys("mod+z", onUndo, { preventDefault: true, enableOnFormTags: ["radio"] });
  useHotkeys("mod+shift+z", onRedo, { preventDefault: true, enableOnFormTags: ["radio"] });
}
