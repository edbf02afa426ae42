import { expect, test } from "@jest/globals";
import { TALL, TWO_SHOTS } from "../../../tests/support/film-state";
import type { Command, ShotChange, SingleCommand } from "./command";
import { describeEdit } from "./describe";

const KEY = { pane: 0, frame: 115, x: 700, y: 540, height: 1080, easing: null };
const BOX = { x: 10, y: 20, width: 30, height: 40 };
const STATE = { ...TWO_SHOTS, versions: [{ ...TALL, handKeys: [KEY] }] };
const says = (command: Command) => describeEdit(command, STATE);
const shotChange = (change: ShotChange, shotIds = ["one"]) => says({ type: "change-shots", shotIds, change });

test("what was done to keys is told by shot and timecode", () => {
  const key = { ...KEY, frame: 10 };
  expect(says({ type: "set-key", versionId: "tall", key })).toBe("Added a keyframe in shot 1 at 00:00:00:10");
  expect(says({ type: "set-key", versionId: "tall", key: KEY })).toBe("Changed the keyframe in shot 2 at 00:00:03:25");
  expect(says({ type: "set-attention", attention: { shortestStay: 2, switchBy: "cut", mustHave: [] } })).toBe(
    "Changed how attention switches in the film",
  );
  expect(says({ type: "move-key", versionId: "tall", fromFrame: 115, key })).toBe(
    "Moved a keyframe in shot 2 to 00:00:00:10",
  );
  expect(says({ type: "remove-key", versionId: "tall", pane: 0, frame: 115 })).toBe(
    "Deleted the keyframe in shot 2 at 00:00:03:25",
  );
  const copies = ["a", "b"].map((versionId): SingleCommand => ({ type: "set-key", versionId, key: KEY }));
  expect(says({ type: "batch", commands: copies })).toBe("Copied the keyframe at 00:00:03:25 to 2 other versions");
  const several = [20, 30].map((frame): SingleCommand => ({
    type: "set-key",
    versionId: "tall",
    key: { ...KEY, frame },
  }));
  expect(says({ type: "batch", commands: several })).toBe("Added 2 keyframes in shot 1");
  const moved = [KEY, KEY].map((each): SingleCommand => ({ type: "set-key", versionId: "tall", key: each }));
  expect(says({ type: "batch", commands: moved })).toBe("Moved 2 keyframes in shot 2");
  const removed = [115, 116].map((frame): SingleCommand => ({ type: "remove-key", versionId: "tall", pane: 0, frame }));
  expect(says({ type: "batch", commands: removed })).toBe("Deleted 2 keyframes in shot 2");
});

test("what was done to captions is told by how many there are, or where one is", () => {
  const caption = (start: number) => ({ id: `c${start}`, start, end: start + 10, text: "Up", speaker: null });
  const done = (how: "moved" | "deleted" | "merged" | "split" | "imported", removed: number, put: number) =>
    says({
      type: "change-captions",
      how,
      removed: Array.from({ length: removed }, (_, i) => `r${i}`),
      put: Array.from({ length: put }, (_, i) => caption(30 * i + 30)),
    });
  expect(done("moved", 0, 1)).toBe("Moved a caption to 00:00:01:00");
  expect(done("moved", 0, 3)).toBe("Moved 3 captions");
  expect(done("split", 0, 2)).toBe("Split a caption");
  expect(done("merged", 1, 1)).toBe("Merged captions at 00:00:01:00");
  expect(done("deleted", 2, 0)).toBe("Deleted 2 captions");
  expect(done("deleted", 1, 0)).toBe("Deleted 1 caption");
  expect(done("imported", 5, 12)).toBe("Imported 12 captions");
});

test("what was done to shots is told by their numbers, or how many they are", () => {
  expect(shotChange({ excluded: true })).toBe("Left out shot 1");
  expect(shotChange({ excluded: false }, ["one", "two"])).toBe("Brought back shots 1 to 2");
  expect(shotChange({ name: "Bench" })).toBe("Named shot 1 “Bench”");
  expect(shotChange({ follow: { kind: "none" } }, ["gone"])).toBe("Changed the subject of a shot");
  expect(shotChange({ carry: true }, ["gone", "two"])).toBe("Changed how 2 shots begin");
  expect(says({ type: "split-shot", frame: 40, kind: "switch" })).toBe("Added a switch in shot 1 at 00:00:01:10");
  expect(says({ type: "move-cut", shotId: "two", frame: 40 })).toBe("Moved the cut before shot 2 to 00:00:01:10");
  const framing = { type: "set-framing" as const, versionId: "tall", shotIds: ["two"] };
  expect(says({ ...framing, change: { movement: "still" } })).toBe("Changed the movement of shot 2 in “Tall”");
  expect(says({ ...framing, change: {}, reset: ["follow"] })).toBe("Reset the subject of shot 2 in “Tall”");
});

test("what was done to subjects is told by what it is, and what follows from it is not told", () => {
  const mark: SingleCommand = { type: "put-mark", thing: "m", frame: 40, box: BOX };
  const follow: SingleCommand = { type: "change-shots", shotIds: ["one"], change: { follow: { kind: "none" } } };
  expect(says({ type: "batch", commands: [mark, follow] })).toBe("Marked what to follow in shot 1 at 00:00:01:10");
  expect(says({ ...mark, box: null })).toBe("Removed a mark in shot 1");
  const person = { id: "p2", name: "Ilse", mergedInto: null };
  expect(says({ type: "change-person", person })).toBe("Named person B “Ilse”");
  expect(says({ type: "change-person", person: { ...person, mergedInto: "p1" } })).toBe(
    "Merged person B with person A",
  );
});
