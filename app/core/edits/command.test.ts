import { describe, expect, test } from "@jest/globals";
import { Command } from "./command";

const refuses = (command: unknown) => expect(Command.safeParse(command).success).toBe(false);

describe("commands", () => {
  test("are read as they are sent", () => {
    const command = { type: "split-shot", frame: 12, kind: "switch" };
    expect(Command.parse(command)).toEqual(command);
    expect(Command.parse({ type: "batch", commands: [command] })).toEqual({ type: "batch", commands: [command] });
  });

  test("of no sense are refused", () => {
    refuses({ type: "explode" });
    refuses({ type: "split-shot", frame: 1.5, kind: "cut" });
    refuses({ type: "split-shot", frame: -1, kind: "cut" });
    refuses({ type: "split-shot", frame: 1, kind: "dissolve" });
    refuses({ type: "join-shots", shotIds: [] });
    refuses({ type: "set-sensitivity", sensitivity: 101 });
    refuses({ type: "change-shots", shotIds: ["a"], change: { follow: { kind: "somebody" } } });
    refuses({ type: "change-shots", shotIds: ["a"], change: { name: "x".repeat(81) } });
    refuses({ type: "set-framing", versionId: "v", shotIds: ["a"], change: { movement: "wild" } });
    refuses({ type: "set-framing", versionId: "v", shotIds: ["a"], change: {}, reset: ["name"] });
    refuses({ type: "batch", commands: [] });
    refuses({ type: "batch", commands: [{ type: "batch", commands: [] }] });
    const version = { id: "v", name: "Odd", width: 1081, height: 1920 };
    refuses({ type: "add-version", version });
    refuses({ type: "add-version", version: { ...version, width: 1080, name: " " } });
    refuses({ type: "add-version", version: { ...version, width: 9000 } });
  });

  test("that only undo others cannot be sent", () => {
    refuses({ type: "restore", difference: {} });
    refuses({ type: "restore-keys", versionId: "v", frames: [1], keys: [] });
    refuses({ type: "restore-shots", remove: ["a"], shots: [], framings: [] });
  });

  test("with ids or numbers that no film has are refused", () => {
    for (const id of ["../../x", "", "a/b", "x".repeat(41), "a\n"]) {
      refuses({ type: "remove-key", versionId: id, pane: 0, frame: 1 });
    }
    refuses({ type: "set-key", versionId: "v", key: { pane: 0, frame: 1, x: 1e9, y: 0, height: 5, easing: null } });
    refuses({ type: "edit-track", trackId: "t", edit: { removed: [{ start: 5, end: 1 }], joinedTo: null } });
    const follow = { kind: "track", trackId: "x".repeat(200) };
    refuses({ type: "change-shots", shotIds: ["a"], change: { follow } });
  });

  test("have names without the space around them", () => {
    const parsed = Command.parse({ type: "change-shots", shotIds: ["a"], change: { name: "  Bench " } });
    expect(parsed).toMatchObject({ change: { name: "Bench" } });
  });
});
