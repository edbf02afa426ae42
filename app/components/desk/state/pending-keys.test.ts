import { expect, test } from "@jest/globals";
import type { Command } from "~/core/edits/command";
import { withPendingKeys } from "./pending-keys";

const key = (frame: number, x: number) => ({ frame, x, y: 540, height: 1080, easing: null });
const set = (frame: number, x: number, versionId = "tall"): Command => ({
  type: "set-key",
  versionId,
  key: key(frame, x),
});

test("keys are shown as they will be once what was sent has been carried out", () => {
  const stored = [key(10, 100), key(40, 400)];
  const pending: Command[] = [
    set(20, 200),
    set(10, 150),
    { type: "remove-key", versionId: "tall", frame: 40 },
    { type: "move-key", versionId: "tall", fromFrame: 20, key: key(5, 250) },
    set(60, 600, "square"),
    { type: "split-shot", frame: 7, kind: "cut" },
  ];
  expect(withPendingKeys(stored, pending, "tall")).toEqual([key(5, 250), key(10, 150)]);
  expect(withPendingKeys(stored, pending, "square")).toEqual([key(10, 100), key(40, 400), key(60, 600)]);
  expect(withPendingKeys(stored, [], "tall")).toEqual(stored);
});

test("a key that is moved onto another takes its place", () => {
  const moved: Command[] = [{ type: "move-key", versionId: "tall", fromFrame: 10, key: key(40, 7) }];
  expect(withPendingKeys([key(10, 100), key(40, 400)], moved, "tall")).toEqual([key(40, 7)]);
});
