/** The desk's shortcuts: one table, from which the bindings, the hints and the list of shortcuts are made. */
import { z } from "zod";
import { shortcutsTexts } from "~/texts/shortcuts";

const t = shortcutsTexts.shortcuts;

export const SHORTCUT_GROUPS = [
  t.playing,
  t.goingTo,
  t.windowAndKeys,
  t.result,
  t.shots,
  t.length,
  t.captions,
  t.other,
] as const;
export type ShortcutGroup = (typeof SHORTCUT_GROUPS)[number];

interface Shortcut {
  group: ShortcutGroup;
  /** Its action, as in a menu. */
  text: string;
  /** Usual binding: modifiers and a key, such as "shift+left". */
  keys: string;
}

export const SHORTCUTS = {
  play: { group: t.playing, text: t.playOrPause, keys: "space" },
  reverse: { group: t.playing, text: t.backwards, keys: "j" },
  pause: { group: t.playing, text: t.pause, keys: "k" },
  forward: { group: t.playing, text: t.forwards, keys: "l" },
  loop: { group: t.playing, text: t.loop, keys: "shift+l" },
  mute: { group: t.playing, text: t.muteOrUnmute, keys: "shift+m" },
  back: { group: t.goingTo, text: t.oneFrameBack, keys: "left" },
  on: { group: t.goingTo, text: t.oneFrameOn, keys: "right" },
  "back-second": { group: t.goingTo, text: t.oneSecondBack, keys: "shift+left" },
  "on-second": { group: t.goingTo, text: t.oneSecondOn, keys: "shift+right" },
  "cut-before": { group: t.goingTo, text: t.previousCut, keys: "pageup" },
  "cut-after": { group: t.goingTo, text: t.nextCut, keys: "pagedown" },
  "key-before": { group: t.goingTo, text: t.previousKey, keys: "shift+pageup" },
  "key-after": { group: t.goingTo, text: t.nextKey, keys: "shift+pagedown" },
  flags: { group: t.goingTo, text: t.flagList, keys: "v" },
  "flag-after": { group: t.goingTo, text: t.nextFlag, keys: "y" },
  "flag-before": { group: t.goingTo, text: t.previousFlag, keys: "shift+y" },
  "flag-reviewed": { group: t.goingTo, text: t.reviewedAndNext, keys: "shift+v" },
  start: { group: t.goingTo, text: t.startOfTheFilm, keys: "home" },
  end: { group: t.goingTo, text: t.endOfTheFilm, keys: "end" },
  "to-in": { group: t.goingTo, text: t.goToIn, keys: "shift+i" },
  "to-out": { group: t.goingTo, text: t.goToOut, keys: "shift+o" },
  "lane-in": { group: t.goingTo, text: t.zoomTheLaneIn, keys: "equal" },
  "lane-out": { group: t.goingTo, text: t.zoomTheLaneOut, keys: "minus" },
  "lane-all": { group: t.goingTo, text: t.laneAll, keys: "shift+minus" },
  timecode: { group: t.goingTo, text: t.typeATimecode, keys: "t" },
  "place-key": { group: t.windowAndKeys, text: t.addKeyframe, keys: "a" },
  "remove-key": {
    group: t.windowAndKeys,
    text: t.deleteKeyframes,
    keys: "delete",
  },
  "copy-keys": { group: t.windowAndKeys, text: t.copyTheSelectedKeys, keys: "mod+c" },
  "paste-keys": { group: t.windowAndKeys, text: t.pasteKeysAtThePlayhead, keys: "mod+v" },
  "pane-1": { group: t.windowAndKeys, text: t.selectPane1, keys: "1" },
  "pane-2": { group: t.windowAndKeys, text: t.selectPane2, keys: "2" },
  "pane-3": { group: t.windowAndKeys, text: t.selectPane3, keys: "3" },
  mark: { group: t.windowAndKeys, text: t.markASubject, keys: "m" },
  centre: { group: t.windowAndKeys, text: t.centreWindow, keys: "c" },
  eyes: { group: t.windowAndKeys, text: t.setEyeLine, keys: "shift+c" },
  guides: { group: t.windowAndKeys, text: t.showThirdsAndCentre, keys: "g" },
  subjects: { group: t.windowAndKeys, text: t.showSubjects, keys: "s" },
  compare: { group: t.result, text: t.compare, keys: "b" },
  flip: { group: t.result, text: t.flip, keys: "shift+b" },
  "true-size": { group: t.result, text: t.trueSize, keys: "n" },
  phone: { group: t.result, text: t.phone, keys: "shift+n" },
  "full-screen": { group: t.result, text: t.fullScreen, keys: "f" },
  shade: { group: t.windowAndKeys, text: t.shade, keys: "p" },
  steer: { group: t.windowAndKeys, text: t.steer, keys: "r" },
  split: { group: t.shots, text: t.splitTheShot, keys: "d" },
  switch: { group: t.shots, text: t.splitBySubject, keys: "shift+d" },
  join: { group: t.shots, text: t.joinWithTheNextShot, keys: "u" },
  exclude: { group: t.shots, text: t.leaveOut, keys: "x" },
  "cut-earlier": { group: t.shots, text: t.moveCutEarlier, keys: "bracketleft" },
  "cut-later": { group: t.shots, text: t.moveCutLater, keys: "bracketright" },
  in: { group: t.length, text: t.setTheInPoint, keys: "i" },
  out: { group: t.length, text: t.setTheOutPoint, keys: "o" },
  "clear-in": { group: t.length, text: t.clearTheInPoint, keys: "alt+i" },
  "clear-out": { group: t.length, text: t.clearTheOutPoint, keys: "alt+o" },
  "range-start": { group: t.length, text: t.startRange, keys: "comma" },
  "range-end": { group: t.length, text: t.endRange, keys: "period" },
  "leave-out": { group: t.length, text: t.toggleRange, keys: "shift+x" },
  "caption-add": { group: t.captions, text: t.addACaption, keys: "e" },
  "caption-in": { group: t.captions, text: t.captionStarts, keys: "9" },
  "caption-out": { group: t.captions, text: t.captionEnds, keys: "0" },
  undo: { group: t.other, text: t.undo, keys: "mod+z" },
  redo: { group: t.other, text: t.redo, keys: "mod+shift+z" },
  help: { group: t.other, text: t.showTheShortcuts, keys: "shift+slash" },
} as const satisfies Record<string, Shortcut>;

export type ShortcutId = keyof typeof SHORTCUTS;
export const SHORTCUT_IDS = Object.keys(SHORTCUTS) as ShortcutId[];

/** Keys of each shortcut. */
export type ShortcutKeys = Readonly<Record<ShortcutId, string>>;

/** An editor's changes to them, as stored. */
export const ChangedKeys = z.partialRecord(z.enum(SHORTCUT_IDS), z.string().min(1).max(40));
export type ChangedKeys = z.infer<typeof ChangedKeys>;

export const keysWith = (changed: ChangedKeys): ShortcutKeys =>
  Object.fromEntries(SHORTCUT_IDS.map((id) => [id, changed[id] ?? SHORTCUTS[id].keys])) as unknown as ShortcutKeys;

/** The other shortcut with the same keys; null if there is none. */
export const usedBy = (keys: ShortcutKeys, wanted: string, but: ShortcutId): ShortcutId | null =>
  SHORTCUT_IDS.find((id) => id !== but && keys[id] === wanted) ?? null;

const OWN_BY_BROWSER = new Set(["tab", "enter", "escape", "backspace", "up", "down"]);

type Pressed = Pick<KeyboardEvent, "code" | "ctrlKey" | "metaKey" | "altKey" | "shiftKey">;

/** Keys pressed together, as a binding, by their places on the keyboard; null while only modifiers are pressed. */
export function keysOf({ code, ctrlKey, metaKey, altKey, shiftKey }: Pressed): string | null {
  if (/^(Control|Meta|OS|Alt|Shift)/.test(code)) return null;
  const key = code.replace(/^(Key|Digit|Numpad|Arrow)/, "").toLowerCase();
  const modifiers = { ctrl: ctrlKey, meta: metaKey, alt: altKey, shift: shiftKey };
  const held = Object.entries(modifiers).flatMap(([name, isHeld]) => (isHeld ? [name] : []));
  return [...held, key].join("+");
}

/** Whether keys are left to the browser and to the controls of the page. */
export function isReserved(keys: string): boolean {
  const parts = keys.split("+");
  const key = parts.at(-1)!;
  const isCommand = ["mod", "ctrl", "meta"].some((modifier) => parts.includes(modifier));
  const isHistory = parts.includes("alt") && (key === "left" || key === "right" || key === "home");
  return isCommand || isHistory || OWN_BY_BROWSER.has(key) || /^f\d+$/.test(key);
}

const NAMES: Record<string, string> = {
  mod: t.ctrl,
  ctrl: t.ctrl,
  meta: "Meta",
  alt: "Alt",
  shift: "Shift",
  left: "←",
  right: "→",
  up: "↑",
  down: "↓",
  pageup: t.pageUp,
  pagedown: t.pageDown,
  comma: ",",
  period: ".",
  slash: "/",
  semicolon: ";",
  quote: "'",
  backquote: "`",
  minus: "-",
  equal: "=",
  bracketleft: "[",
  bracketright: "]",
  backslash: "\\",
  space: t.space,
  delete: t.delete,
  home: t.home,
  end: t.end,
};

/** Keys as they are displayed, one by one. */
export const namesOf = (keys: string): string[] =>
  keys === "shift+slash" ? ["?"] : keys.split("+").map((key) => NAMES[key] ?? key.toUpperCase());
