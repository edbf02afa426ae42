import { describe, expect, test } from "@jest/globals";
import { USUAL_FRAMING } from "~/core/path/framing-settings";
import type { PathRequest } from "~/workers/path-worker";
import { PathQuestions } from "./path-questions";

const TALL = { width: 1080, height: 1920 };
const SQUARE = { width: 1080, height: 1080 };
const request = (shotId: string, target = TALL): PathRequest => ({
  shotId,
  framing: {
    range: { start: 0, end: 10 },
    settings: USUAL_FRAMING,
    tracks: [],
    rule: { kind: "auto" },
    handKeys: [],
    protect: null,
    active: null,
    carry: false,
  },
  picture: { width: 1920, height: 1080 },
  target,
  rate: { num: 25, den: 1 },
  before: { window: null, who: null },
});

describe("questions for paths", () => {
  test("are asked at once for different shots, and not twice", () => {
    const questions = new PathQuestions();
    const [a, b] = [request("a"), request("b")];
    expect([questions.ask("1", a), questions.ask("1", b), questions.ask("1", request("a"))]).toEqual([a, b, null]);
    expect(questions.answered("a")).toEqual({ next: null, isOfUse: true });
    expect(questions.areOpen).toBe(true);
    questions.answered("b");
    expect(questions.areOpen).toBe(false);
  });

  test("of one shot wait for one another, and only the newest is asked in the end", () => {
    const questions = new PathQuestions();
    questions.ask("1", request("a"));
    const last = request("a");
    expect([questions.ask("2", request("a")), questions.ask("3", last)]).toEqual([null, null]);
    expect(questions.answered("a")).toEqual({ next: last, isOfUse: true });
    expect(questions.answered("a")).toEqual({ next: null, isOfUse: true });
    expect(questions.areOpen).toBe(false);
  });

  test("can be asked again when something else has been asked in between", () => {
    const questions = new PathQuestions();
    for (const key of ["1", "2"]) {
      questions.ask(key, request("a"));
      questions.answered("a");
    }
    expect(questions.ask("1", request("a"))).not.toBeNull();
  });

  test("for another version make the answer under way useless", () => {
    const questions = new PathQuestions();
    questions.ask("1", request("a"));
    const other = request("a", SQUARE);
    questions.ask("2", other);
    expect(questions.answered("a")).toEqual({ next: other, isOfUse: false });
    expect(questions.answered("a").isOfUse).toBe(true);
  });
});
