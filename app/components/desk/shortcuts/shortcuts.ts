/** What keys do on the desk: one table, from which the bindings, the hints and the sheet of shortcuts are made. */
import { z } from "zod";

export const SHORTCUT_GROUPS = [
  "Playing",
  "Going to",
  "Window and keys",
  "Result",
  "Shots",
  "Length",
  "Other",
] as const;
export type ShortcutGroup = (typeof SHORTCUT_GROUPS)[number];

interface Shortcut {
  group: ShortcutGroup;
  /** What it does, as in a menu. */
  text: string;
  /** As they are bound: modifiers and a key, such as "shift+left". */
  keys: string;
}

export const SHORTCUTS = {
  play: { group: "Playing", text: "Play or pause", keys: "space" },
  reverse: { group: "Playing", text: "Play backwards; again for faster", keys: "j" },
  pause: { group: "Playing", text: "Pause", keys: "k" },
  forward: { group: "Playing", text: "Play forwards; again for faster", keys: "l" },
  loop: { group: "Playing", text: "Loop the shot, or the marked stretch", keys: "shift+l" },
  mute: { group: "Playing", text: "Mute or unmute", keys: "shift+m" },
  back: { group: "Going to", text: "One frame back", keys: "left" },
  on: { group: "Going to", text: "One frame on", keys: "right" },
  "back-second": { group: "Going to", text: "One second back", keys: "shift+left" },
  "on-second": { group: "Going to", text: "One second on", keys: "shift+right" },
  "cut-before": { group: "Going to", text: "Previous cut", keys: "pageup" },
  "cut-after": { group: "Going to", text: "Next cut", keys: "pagedown" },
  "key-before": { group: "Going to", text: "Previous key", keys: "comma" },
  "key-after": { group: "Going to", text: "Next key", keys: "period" },
  start: { group: "Going to", text: "Start of the film", keys: "home" },
  end: { group: "Going to", text: "End of the film", keys: "end" },
  "lane-in": { group: "Going to", text: "Zoom the lane in", keys: "equal" },
  "lane-out": { group: "Going to", text: "Zoom the lane out", keys: "minus" },
  "lane-all": { group: "Going to", text: "The whole film in the lane", keys: "shift+minus" },
  timecode: { group: "Going to", text: "Type a timecode", keys: "t" },
  "place-key": { group: "Window and keys", text: "Add a key at the playhead", keys: "a" },
  "remove-key": {
    group: "Window and keys",
    text: "Delete the selected keys, or the one at the playhead",
    keys: "delete",
  },
  "copy-keys": { group: "Window and keys", text: "Copy the selected keys", keys: "mod+c" },
  "paste-keys": { group: "Window and keys", text: "Paste keys at the playhead", keys: "mod+v" },
  "pane-1": { group: "Window and keys", text: "Choose pane 1", keys: "1" },
  "pane-2": { group: "Window and keys", text: "Choose pane 2", keys: "2" },
  "pane-3": { group: "Window and keys", text: "Choose pane 3", keys: "3" },
  mark: { group: "Window and keys", text: "Mark a subject", keys: "m" },
  centre: { group: "Window and keys", text: "Centre the window on a click", keys: "c" },
  guides: { group: "Window and keys", text: "Show thirds and centre", keys: "g" },
  subjects: { group: "Window and keys", text: "Show subjects", keys: "s" },
  compare: { group: "Result", text: "Compare with a centre crop, or stop comparing", keys: "b" },
  flip: { group: "Result", text: "Flip between the two that are compared", keys: "shift+b" },
  "true-size": { group: "Result", text: "True size, or fitted", keys: "n" },
  phone: { group: "Result", text: "As on a phone, or fitted", keys: "shift+n" },
  "full-screen": { group: "Result", text: "Full screen", keys: "f" },
  shade: { group: "Window and keys", text: "Outside of the window: shaded, hidden, open", keys: "h" },
  steer: { group: "Window and keys", text: "Steer the window while it plays", keys: "r" },
  split: { group: "Shots", text: "Split the shot", keys: "d" },
  turn: { group: "Shots", text: "Split the shot where the subject changes", keys: "shift+d" },
  join: { group: "Shots", text: "Join with the next shot", keys: "u" },
  exclude: { group: "Shots", text: "Leave the shot out, or bring it back", keys: "x" },
  "cut-earlier": { group: "Shots", text: "Move the cut a frame earlier", keys: "bracketleft" },
  "cut-later": { group: "Shots", text: "Move the cut a frame later", keys: "bracketright" },
  in: { group: "Length", text: "Set the in point", keys: "i" },
  out: { group: "Length", text: "Set the out point", keys: "o" },
  "clear-in": { group: "Length", text: "Clear the in point", keys: "alt+i" },
  "clear-out": { group: "Length", text: "Clear the out point", keys: "alt+o" },
  "drop-start": { group: "Length", text: "Start a stretch to drop", keys: "shift+i" },
  "drop-end": { group: "Length", text: "End the stretch to drop", keys: "shift+o" },
  drop: { group: "Length", text: "Drop the stretch, or bring it back", keys: "shift+x" },
  undo: { group: "Other", text: "Undo", keys: "mod+z" },
  redo: { group: "Other", text: "Redo", keys: "mod+shift+z" },
  help: { group: "Other", text: "Show the shortcuts", keys: "shift+slash" },
} as const satisfies Record<string, Shortcut>;

export type ShortcutId = keyof typeof SHORTCUTS;
export const SHORTCUT_IDS = Object.keys(SHORTCUTS) as ShortcutId[];

/** Keys by what they do. */
export type ShortcutKeys = Readonly<Record<ShortcutId, string>>;

/** What an editor has changed of them, as it is kept. */
export const ChangedKeys = z.partialRecord(z.enum(SHORTCUT_IDS), z.string().min(1).max(40));
export type ChangedKeys = z.infer<typeof ChangedKeys>;

export const keysWith = (changed: ChangedKeys): ShortcutKeys =>
  Object.fromEntries(SHORTCUT_IDS.map((id) => [id, changed[id] ?? SHORTCUTS[id].keys])) as unknown as ShortcutKeys;

/** What does something else with the same keys; null if nothing does. */
export const usedBy = (keys: ShortcutKeys, wanted: string, but: ShortcutId): ShortcutId | null =>
  SHORTCUT_IDS.find((id) => id !== but && keys[id] === wanted) ?? null;

const OWN_BY_BROWSER = new Set(["tab", "enter", "escape", "backspace", "up", "down"]);

type Pressed = Pick<KeyboardEvent, "code" | "ctrlKey" | "metaKey" | "altKey" | "shiftKey">;

/** Keys that are pressed together, as they are bound, by where they are on the keyboard; null while there are only modifiers. */
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
  ...{ mod: "Ctrl", ctrl: "Ctrl", meta: "Meta", alt: "Alt", shift: "Shift" },
  ...{ left: "←", right: "→", up: "↑", down: "↓", pageup: "Page Up", pagedown: "Page Down" },
  ...{ comma: ",", period: ".", slash: "/", semicolon: ";", quote: "'", backquote: "`", minus: "-", equal: "=" },
  ...{
    bracketleft: "[",
    bracketright: "]",
    backslash: "\\",
    space: "Space",
    delete: "Delete",
    home: "Home",
    end: "End",
  },
};

/** Keys as they are shown, one by one. */
export const namesOf = (keys: string): string[] =>
  keys === "shift+slash" ? ["?"] : keys.split("+").map((key) => NAMES[key] ?? key.toUpperCase());
