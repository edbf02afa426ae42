import type { RefObject } from "react";
import { useHotkeys } from "react-hotkeys-hook";
import { framesPerSecond } from "~/core/time/rate";
import { inToOut } from "~/core/version/trim";
import type { ShortcutId } from "../model/shortcuts";
import { useShortcutKeys } from "./use-shortcut-keys";
import { type DeskShot, neighbouringCuts, shotAt } from "../model/desk-types";
import type { Player } from "../model/player";
import type { DeskModel, DeskStore } from "../model/desk-model";
import { nextShade } from "../model/picture-look";
import { toggleFullScreen } from "../model/result-look";

/** Seeks the nearest keyframe before or after the playhead, over all shots. */
function seekKey(player: Player, shots: readonly DeskShot[], direction: -1 | 1): void {
  const here = player.getTarget();
  const frames = shots.flatMap((shot) => shot.framed?.keys.map((key) => key.frame) ?? []);
  const key = direction < 0 ? frames.findLast((frame) => frame < here) : frames.find((frame) => frame > here);
  if (key !== undefined) player.seek(key);
}

function seekNextCut(player: Player, shots: readonly DeskShot[]): void {
  const { after } = neighbouringCuts(shots, player.getTarget());
  if (after !== null) player.seek(after);
}

/** Shortcuts that are bound elsewhere. */
type ElsewhereId = "help" | "lane-in" | "lane-out" | "lane-all";

/** Keys that a focused control handles itself. */
const OWN_KEYS = new Set([
  "ArrowLeft",
  "ArrowRight",
  "ArrowUp",
  "ArrowDown",
  "Home",
  "End",
  "PageUp",
  "PageDown",
  "Enter",
  " ",
]);
const OWN_KEY_CONTROLS = "[aria-roledescription], [role=radio], [role=slider]";

/** Whether a key press is for a focused control, or a dialog lies over the desk. */
const isElsewhere = ({ target, key }: KeyboardEvent): boolean =>
  target instanceof Element &&
  (target.closest("[role=dialog]") !== null || (OWN_KEYS.has(key) && target.closest(OWN_KEY_CONTROLS) !== null));

type Actions = Record<Exclude<ShortcutId, ElsewhereId>, (to: Player) => void>;

/** What each shortcut does on the desk as it is. */
function actionsOn(desk: DeskModel, timecode: RefObject<HTMLInputElement | null>): Actions {
  const { film, shots, edits, keyCommands, shotCommands, rangeCommands, windowAt, drawing, look, selectedKeys } = desk;
  const { pictureLook, setPictureLook, captionCommands, checks } = desk;
  const second = Math.round(framesPerSecond(film.rate));
  const shown = inToOut(desk.version.trim, film.frames);
  /** Opens the captions panel along with a caption command. */
  const inCaptions = (work: () => void) => () => {
    desk.setPanel("captions");
    work();
  };
  return {
    play: (to) => to.toggle(),
    reverse: (to) => to.shuttle(-1),
    pause: (to) => to.pause(),
    forward: (to) => to.shuttle(1),
    // Of the shot that is being sought: the one on screen may still be another.
    loop: (to) => to.setLoop(to.getLoop() ? null : (rangeCommands.marked ?? shotAt(shots, to.getTarget()) ?? null)),
    mute: (to) => to.setSound({ ...to.getSound(), muted: !to.getSound().muted }),
    back: (to) => to.step(-1),
    on: (to) => to.step(1),
    "back-second": (to) => to.step(-second),
    "on-second": (to) => to.step(second),
    "cut-before": (to) => to.seek(neighbouringCuts(shots, to.getTarget()).before),
    "cut-after": (to) => seekNextCut(to, shots),
    "key-before": (to) => seekKey(to, shots, -1),
    "key-after": (to) => seekKey(to, shots, 1),
    flags: () => checks.setOpen(!checks.isOpen),
    "flag-after": () => checks.step(1),
    "flag-before": () => checks.step(-1),
    "flag-reviewed": checks.reviewedAndNext,
    start: (to) => to.seek(0),
    end: (to) => to.seek(film.frames - 1),
    "to-in": (to) => to.seek(shown.start),
    "to-out": (to) => to.seek(shown.end - 1),
    timecode: () => timecode.current?.focus(),
    "place-key": (to) => keyCommands.place(to.getTarget(), windowAt(to.getTarget())),
    "remove-key": (to) => (selectedKeys.frames.size > 0 ? selectedKeys.remove() : keyCommands.release(to.getTarget())),
    "copy-keys": () => selectedKeys.copy(),
    "paste-keys": (to) => selectedKeys.paste?.(to.getTarget()),
    "pane-1": () => desk.selectPane(0),
    "pane-2": () => desk.selectPane(1),
    "pane-3": () => desk.selectPane(2),
    subjects: () => setPictureLook({ subjects: !pictureLook.subjects }),
    mark: () => desk.setDrawing(drawing === "mark" ? null : "mark"),
    eyes: () => desk.setDrawing(drawing === "eyes" ? null : "eyes"),
    centre: () => desk.setDrawing(drawing === "centre" ? null : "centre"),
    guides: () => setPictureLook({ guides: !pictureLook.guides }),
    shade: () => setPictureLook({ shade: nextShade(pictureLook.shade) }),
    steer: () => desk.setDrawing(drawing === "steer" ? null : "steer"),
    compare: () => look.setComparison(look.comparison ? null : { kind: "centre" }),
    flip: () => {
      look.setComparison(look.comparison ?? { kind: "centre" });
      look.setComparisonView("flip");
      look.setShowsOther(!look.showsOther);
    },
    "true-size": () => look.setView(look.view === "true" ? "fit" : "true"),
    phone: () => look.setView(look.view === "phone" ? "fit" : "phone"),
    "full-screen": () => void toggleFullScreen(look),
    split: () => shotCommands.splitHere("cut"),
    switch: () => shotCommands.splitHere("switch"),
    join: shotCommands.joinNext,
    exclude: shotCommands.excludeHere,
    "cut-earlier": () => shotCommands.nudgeCut(-1),
    "cut-later": () => shotCommands.nudgeCut(1),
    in: rangeCommands.setIn,
    out: rangeCommands.setOut,
    "clear-in": () => rangeCommands.clear("in"),
    "clear-out": () => rangeCommands.clear("out"),
    "range-start": rangeCommands.beginRange,
    "range-end": rangeCommands.endRange,
    "leave-out": rangeCommands.toggleRange,
    "caption-add": inCaptions(captionCommands.add),
    "caption-in": inCaptions(captionCommands.markIn),
    "caption-out": inCaptions(captionCommands.markOut),
    undo: edits.undo,
    redo: edits.redo,
  };
}

/** Handles all shortcuts of the desk. Text fields keep their keys. */
export function useShortcuts(store: DeskStore, timecode: RefObject<HTMLInputElement | null>): void {
  const keys = useShortcutKeys();
  const ids = Object.keys(actionsOn(store.getState(), timecode)) as (keyof Actions)[];
  const byKeys = new Map(ids.map((id) => [keys[id], id]));
  const run = (id: keyof Actions) => {
    const desk = store.getState();
    if (desk.player) actionsOn(desk, timecode)[id](desk.player);
  };
  useHotkeys([...byKeys.keys()], (_event, { hotkey }) => run(byKeys.get(hotkey)!), {
    // With no key selected, text of the page is copied as usual.
    preventDefault: (_event, { hotkey }) =>
      byKeys.get(hotkey) !== "copy-keys" || store.getState().selectedKeys.frames.size > 0,
    ignoreEventWhen: isElsewhere,
    // Text fields keep all their keys.
    enableOnFormTags: ["radio", "slider"],
  });
}
