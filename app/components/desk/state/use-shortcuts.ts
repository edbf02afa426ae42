import type { RefObject } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { framesPerSecond } from "~/core/time/rate";
import type { DeskShot } from "./desk-types";
import type { Player } from "../picture/player";
import type { DeskContent } from "./desk-context";
import { neighbouringCuts } from "../picture/transport";

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
export function useShortcuts(desk: DeskContent, timecode: RefObject<HTMLInputElement | null>): void {
  const { film, player, shots, edits, keyEdits, shotEdits, trimEdits, windowAt, drawing, showsSubjects } = desk;
  const second = Math.round(framesPerSecond(film.rate));
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
    k: (to) => keyEdits.place(to.getFrame(), windowAt(to.getFrame())),
    delete: (to) => keyEdits.release(to.getFrame()),
    s: () => desk.setShowsSubjects(!showsSubjects),
    m: () => desk.setDrawing(drawing === "mark" ? null : "mark"),
    d: () => shotEdits.splitHere("cut"),
    "shift+d": () => shotEdits.splitHere("turn"),
    u: shotEdits.joinNext,
    x: shotEdits.excludeHere,
    i: trimEdits.setIn,
    o: trimEdits.setOut,
    "alt+i": () => trimEdits.clear("in"),
    "alt+o": () => trimEdits.clear("out"),
    "shift+i": trimEdits.beginStretch,
    "shift+o": trimEdits.endStretch,
    "shift+x": trimEdits.toggleStretch,
    "alt+left": () => shotEdits.nudgeCut(-1),
    "alt+right": () => shotEdits.nudgeCut(1),
  };
  useHotkeys(Object.keys(actions), (_event, { hotkey }) => player && actions[hotkey]?.(player), {
    preventDefault: true,
    // What can be dragged by keyboard is moved by the same keys.
    ignoreEventWhen: ({ target }) => target instanceof Element && target.closest("[aria-roledescription]") !== null,
  });
  useHotkeys(["1", "2", "3"], (_event, { hotkey }) => desk.choosePane(Number(hotkey) - 1), {
    enableOnFormTags: ["radio", "slider"],
  });
  // A radio button uses plain keys itself, but not these.
  useHotkeys("mod+z", edits.undo, { preventDefault: true, enableOnFormTags: ["radio", "slider"] });
  useHotkeys("mod+shift+z", edits.redo, { preventDefault: true, enableOnFormTags: ["radio", "slider"] });
}
