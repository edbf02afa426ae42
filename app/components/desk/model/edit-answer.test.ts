import { describe, expect, test } from "@jest/globals";
import { NO_ANSWER, problemOf, readAnswer } from "./edit-answer";

const answer = (body: unknown, status = 200) =>
  readAnswer(new Response(typeof body === "string" ? body : JSON.stringify(body), { status }));

describe("an answer to a change", () => {
  test("that was made is no problem", async () => {
    const outcome = await answer({ revision: 4, sentence: "Moved a keyframe", difference: { sensitivity: 60 } });
    expect(outcome).toEqual({ revision: 4, sentence: "Moved a keyframe", difference: { sensitivity: 60 } });
    expect(problemOf(outcome)).toBeNull();
  });

  test("that was refused says why", async () => {
    const outcome = await answer({ revision: 3, error: "the film has no frame 900" }, 409);
    expect(outcome.revision).toBe(3);
    expect(problemOf(outcome)).toBe("That did not work: the film has no frame 900.");
    expect(problemOf(await answer(JSON.stringify("This is too large."), 413))).toBe(
      "That did not work: This is too large.",
    );
    expect(problemOf(await answer({ revision: 3, error: "the disk is full: 0 MB free in data" }, 507))).toContain(
      "the disk is full: 0 MB free in data.",
    );
  });

  test("to an older state says where to look", async () => {
    expect(problemOf(await answer({ revision: 9, error: "changed", stale: true }, 409))).toContain("another window");
  });

  test("that is no answer is told as what it is", async () => {
    expect(problemOf(await answer("<!DOCTYPE html>", 500))).toBe(
      "That did not work: Glad Pan failed (500). See its log.",
    );
    expect(problemOf(await answer({ anything: true }, 502))).toContain("(502)");
    expect(problemOf(await answer(JSON.stringify("stack trace"), 500))).not.toContain("stack");
    expect(problemOf(NO_ANSWER)).toContain("did not respond");
  });
});
