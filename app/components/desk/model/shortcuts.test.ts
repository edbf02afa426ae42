import { expect, test } from "@jest/globals";
import { ChangedKeys, isReserved, keysOf, keysWith, namesOf, SHORTCUT_IDS, SHORTCUTS, usedBy } from "./shortcuts";

test("no two shortcuts have the same keys, and none takes the browser's own but those that mean the same there", () => {
  const keys = SHORTCUT_IDS.map((id) => SHORTCUTS[id].keys);
  expect(new Set(keys).size).toBe(keys.length);
  expect(SHORTCUT_IDS.filter((id) => isReserved(SHORTCUTS[id].keys))).toEqual([
    "copy-keys",
    "paste-keys",
    "undo",
    "redo",
  ]);
});

test("keys that were changed hold, and what they are taken by is known", () => {
  const keys = keysWith(ChangedKeys.parse({ loop: "shift+r" }));
  expect([keys.loop, keys.play]).toEqual(["shift+r", "space"]);
  expect([usedBy(keys, "shift+r", "mark"), usedBy(keys, "shift+r", "loop"), usedBy(keys, "shift+l", "mark")]).toEqual([
    "loop",
    null,
    null,
  ]);
  expect(ChangedKeys.safeParse({ dance: "y" }).success).toBe(false);
});

test("keys that are pressed together are bound in one order, and shown with their names", () => {
  const none = { ctrlKey: false, metaKey: false, altKey: false, shiftKey: false };
  expect(keysOf({ ...none, code: "KeyD", shiftKey: true })).toBe("shift+d");
  expect(keysOf({ ...none, code: "ArrowLeft", altKey: true, ctrlKey: true })).toBe("ctrl+alt+left");
  expect(keysOf({ ...none, code: "ShiftLeft", shiftKey: true })).toBeNull();
  expect(namesOf("shift+left")).toEqual(["Shift", "←"]);
  expect(namesOf("mod+shift+z")).toEqual(["Ctrl", "Shift", "Z"]);
  expect(namesOf("shift+slash")).toEqual(["?"]);
  expect(["ctrl+t", "alt+left", "f5", "tab"].every(isReserved)).toBe(true);
});
