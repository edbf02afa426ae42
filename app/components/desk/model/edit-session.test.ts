import { describe, expect, jest, test } from "@jest/globals";
import { TALL, TWO_SHOTS } from "../../../../tests/support/film-state";
import type { Change, EditAnswer } from "~/core/edits/answer";
import { applyEdit } from "~/core/edits/apply";
import type { Command } from "~/core/edits/command";
import { differenceBetween } from "~/core/edits/difference";
import type { FilmState } from "~/core/version/film-state";
import { NO_ANSWER } from "./edit-answer";
import { EditSession } from "./edit-session";

const HISTORY = { undo: null, redo: null };
const setKey = (frame: number, x = 700): Command => ({
  type: "set-key",
  versionId: "tall",
  key: { pane: 0, frame, x, y: 540, height: 1080, easing: null },
});

const settle = () => new Promise((resolve) => setTimeout(resolve));

/** A server that keeps a film's state as the real one does, and answers when it is let. */
class Server {
  revision = 1;
  state: FilmState = TWO_SHOTS;
  readonly asked: number[] = [];
  /** What is answered next in the place of what would be. */
  next: EditAnswer | null = null;
  private waiting: (() => void)[] = [];

  readonly post = async (change: Change & { revision: number }): Promise<EditAnswer> => {
    this.asked.push(change.revision);
    await new Promise<void>((resolve) => this.waiting.push(resolve));
    const given = this.next;
    this.next = null;
    if (given) return given;
    if (change.revision !== this.revision) return { revision: this.revision, error: "changed", stale: true };
    if (change.do !== "edit") return { revision: this.revision };
    return this.edit(change.command);
  };

  edit(command: Command): EditAnswer {
    const { state } = applyEdit(this.state, command);
    const difference = JSON.parse(JSON.stringify(differenceBetween(this.state, state))) as EditAnswer["difference"];
    this.state = state;
    this.revision++;
    return { revision: this.revision, difference, sentence: "Done", history: { undo: "Done", redo: null } };
  }

  async answer(): Promise<void> {
    await settle();
    this.waiting.shift()!();
    await settle();
  }
}

function open() {
  const server = new Server();
  const tell = jest.fn<(text: string, tone: string, again?: () => void) => void>();
  const reload = jest.fn(async () => {
    session.takeLoaded({ revision: server.revision, state: server.state, history: HISTORY });
  });
  const session: EditSession = new EditSession(
    { revision: 1, state: TWO_SHOTS, history: HISTORY },
    { post: server.post, tell, reload },
  );
  const frames = () => session.getShown().state.versions[0]!.handKeys.map(({ frame }) => frame);
  return { server, tell, reload, session, frames };
}

describe("a film on the desk", () => {
  test("shows a change at once, and keeps it when the server has made it, without loading anything", async () => {
    const { server, session, frames, reload } = open();
    session.send(setKey(10));
    expect(frames()).toEqual([10]);
    expect(session.isBusy()).toBe(true);
    const shown = session.getShown().state;
    await server.answer();
    expect(session.isBusy()).toBe(false);
    // What the server says is the very same state: nothing is worked out anew.
    expect(session.getShown().state).toBe(shown);
    expect(session.getShown()).toMatchObject({ revision: 2, history: { undo: "Done" } });
    expect(reload).not.toHaveBeenCalled();
  });

  test("sends changes one after the other, each on the revision that the one before has made", async () => {
    const { server, session, frames } = open();
    for (const frame of [10, 20, 30]) session.send(setKey(frame));
    expect(frames()).toEqual([10, 20, 30]);
    for (let i = 0; i < 3; i++) await server.answer();
    expect(server.asked).toEqual([1, 2, 3]);
    expect(session.getShown().state).toEqual(server.state);
  });

  test("takes back what was refused, with the reason, and keeps the rest", async () => {
    const { server, session, frames, tell } = open();
    session.send(setKey(10));
    session.send(setKey(20));
    server.next = { revision: 1, error: "the disk is full: 0 MB free" };
    await server.answer();
    expect(tell).toHaveBeenCalledWith("That did not work: the disk is full: 0 MB free.", "error");
    expect(frames()).toEqual([20]);
    await server.answer();
    expect([frames(), server.asked]).toEqual([[20], [1, 1]]);
  });

  test("does not show what makes no sense, and leaves it to the server to say so", async () => {
    const { server, session, frames, tell } = open();
    session.send(setKey(10, 5));
    expect(frames()).toEqual([]);
    server.next = { revision: 1, error: "the window at frame 10 would leave the picture" };
    await server.answer();
    expect(tell).toHaveBeenCalledTimes(1);
  });

  test("loads the newer state when another window has changed the film", async () => {
    const { server, session, frames, tell, reload } = open();
    server.edit(setKey(50));
    session.send(setKey(10));
    session.send(setKey(20));
    await server.answer();
    expect(tell).toHaveBeenCalledWith(expect.stringContaining("another window"), "warning", expect.any(Function));
    expect(reload).toHaveBeenCalledTimes(1);
    expect(frames()).toEqual([20, 50]);
    await server.answer();
    expect([frames(), server.asked]).toEqual([
      [20, 50],
      [1, 2],
    ]);
    // What was refused is offered again, on the state as it is now.
    tell.mock.calls[0]![2]!();
    await server.answer();
    expect([frames(), server.asked.at(-1)]).toEqual([[10, 20, 50], 3]);
  });

  test("says so when the server is gone or has failed, and what was not kept is not shown", async () => {
    const { server, session, frames, tell } = open();
    for (const [answer, words] of [
      [NO_ANSWER, "did not respond"],
      [{ error: "Glad Pan itself failed (500); its log says more" }, "itself failed (500)"],
    ] as const) {
      session.send(setKey(10));
      server.next = answer;
      await server.answer();
      expect(tell).toHaveBeenLastCalledWith(expect.stringContaining(words), "error");
      expect(frames()).toEqual([]);
    }
  });

  test("undoes, and says what", async () => {
    const { server, session, frames, tell } = open();
    session.send(setKey(10));
    await server.answer();
    session.step("undo");
    const difference = { handKeys: [{ versionId: "tall", pane: 0, removed: [10], put: [] }] };
    server.next = {
      revision: 3,
      difference,
      sentence: "Added a keyframe",
      history: { undo: null, redo: "Added a keyframe" },
    };
    await server.answer();
    expect([frames(), session.getShown().history.redo]).toEqual([[], "Added a keyframe"]);
    expect(tell).toHaveBeenCalledWith("Undone: Added a keyframe", "plain");
    session.step("undo");
    server.next = { revision: 3 };
    await server.answer();
    expect(tell).toHaveBeenCalledTimes(1);
  });

  test("takes what an analysis has found since, under the changes that are on their way", async () => {
    const { session, frames, server } = open();
    session.send(setKey(10));
    const more = { ...TWO_SHOTS, people: [...TWO_SHOTS.people, { id: "p3", number: 2, name: null, mergedInto: null }] };
    expect(session.takeLoaded({ revision: 1, state: more, history: HISTORY })).toBe(true);
    expect([frames(), session.getShown().state.people.length]).toEqual([[10], 3]);
    await server.answer();
    const older = { ...TWO_SHOTS, versions: [TALL] };
    expect(session.takeLoaded({ revision: 1, state: older, history: HISTORY })).toBe(false);
    expect(frames()).toEqual([10]);
  });
});
