import { describe, expect, test } from "@jest/globals";
import { Command, describeCommand, StoredCommand } from "./command";

const refuses = (command: unknown) => expect(Command.safeParse(command).success).toBe(false);

describe("commands", () => {
  test("are read as they are sent", () => {
    const command = { type: "split-shot", frame: 12, kind: "turn" };
    expect(Command.parse(command)).toEqual(command);
    expect(describeCommand(Command.parse(command))).toBe("turn");
    expect(describeCommand(Command.parse({ ...command, kind: "cut" }))).toBe("split of a shot");
  });

  test("of no sense are refused", () => {
    refuses({ type: "explode" });
    refuses({ type: "split-shot", frame: 1.5, kind: "cut" });
    refuses({ type: "split-shot", frame: -1, kind: "cut" });
    refuses({ type: "split-shot", frame: 1, kind: "dissolve" });
    refuses({ type: "join-shots", shotIds: [] });
    refuses({ type: "set-sensitivity", sensitivity: 101 });
    refuses({ type: "change-shots", shotIds: ["a"], change: { subject: "somebody" } });
    refuses({ type: "change-shots", shotIds: ["a"], change: { name: "x".repeat(81) } });
    refuses({ type: "set-manner", versionId: "v", shotIds: ["a"], manner: "wild" });
    const version = { id: "v", name: "Odd", width: 1081, height: 1920 };
    refuses({ type: "add-version", version });
    refuses({ type: "add-version", version: { ...version, width: 1080, name: " " } });
    refuses({ type: "add-version", version: { ...version, width: 9000 } });
  });

  test("that only take others back are kept, and cannot be sent", () => {
    const restore = { type: "restore-keys", versionId: "v", frames: [1], keys: [] };
    refuses(restore);
    refuses({ type: "restore-shots", remove: ["a"], shots: [], framings: [] });
    expect(StoredCommand.parse(restore)).toEqual(restore);
  });

  test("with ids or numbers that no film has are refused", () => {
    for (const id of ["../../x", "", "a/b", "x".repeat(41), "a\n"]) {
      refuses({ type: "remove-key", versionId: id, frame: 1 });
    }
    refuses({ type: "set-key", versionId: "v", key: { frame: 1, x: 1e9, y: 0, height: 5, easing: null } });
    refuses({ type: "edit-track", trackId: "t", edit: { removed: [{ start: 5, end: 1 }], joinedTo: null } });
    refuses({ type: "change-shots", shotIds: ["a"], change: { subject: `track:${"x".repeat(200)}` } });
  });

  test("say what they do, by what they change", () => {
    const change = (what: object) =>
      describeCommand(Command.parse({ type: "change-shots", shotIds: ["a"], change: what }));
    expect(change({ excluded: true })).toBe("exclusion");
    expect(change({ excluded: false })).toBe("end of an exclusion");
    expect(change({ name: "Bench" })).toBe("name of a shot");
    expect(change({ subject: "track:s1-face-1" })).toBe("change of subject");
    expect(change({ carry: true })).toBe("change of how a shot begins");
  });

  test("names are kept without the space around them", () => {
    const parsed = Command.parse({ type: "change-shots", shotIds: ["a"], change: { name: "  Bench " } });
    expect(parsed).toMatchObject({ change: { name: "Bench" } });
  });
});
