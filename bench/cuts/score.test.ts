import { describe, expect, test } from "@jest/globals";
import { hardTransition } from "~/core/shots/transition";
import { type TrueTransition, truthOf } from "./draw-film";
import { planFilms } from "./plan";
import { addScores, f1, NO_SCORE, scoreFilm } from "./score";

const cut = (frame: number) => ({ ...hardTransition(frame, "cut"), kind: "cut" as const });
const blend = (kind: "dissolve" | "wipe" | "fade", start: number, end: number): TrueTransition => ({
  kind,
  frame: (start + end) >> 1,
  range: { start, end },
});
const TRUTH: TrueTransition[] = [cut(10), { ...cut(50), kind: "jump" }, blend("dissolve", 80, 100)];

describe("scoring", () => {
  test("counts what is found, what is exact, and what is right in kind", () => {
    const { score, mistakes } = scoreFilm([cut(11), hardTransition(50, "cut"), blend("wipe", 85, 105)], TRUTH);
    expect(score).toMatchObject({ hard: 2, hardFound: 2, hardExact: 1, hardFalse: 0, gradual: 1, gradualFound: 1 });
    expect(score.overlap).toBeCloseTo(15 / 25, 9);
    expect(score.kindRight).toBe(1);
    expect(mistakes).toEqual([]);
  });

  test("counts what is missed and what is invented, and nothing twice", () => {
    const { score, mistakes } = scoreFilm([cut(10), cut(11), cut(90), blend("fade", 20, 30)], TRUTH);
    expect(score).toMatchObject({ hardFound: 1, hardFalse: 2, gradualFound: 0, gradualFalse: 1 });
    expect(mistakes.map(({ what, frame }) => `${what} ${frame}`).sort()).toEqual([
      "false 11",
      "false 25",
      "false 90",
      "missed 50",
      "missed 90",
    ]);
  });

  test("adds up, and the harmonic mean is that of precision and recall", () => {
    const { score } = scoreFilm([cut(10)], TRUTH);
    expect(addScores(score, addScores(score, NO_SCORE))).toMatchObject({ hard: 4, hardFound: 2 });
    const [found, wrong, all] = [8, 2, 16];
    const [precision, recall] = [found / (found + wrong), found / all];
    expect(f1(found, wrong, all)).toBeCloseTo((2 * precision * recall) / (precision + recall), 9);
    expect(f1(0, 0, 0)).toBe(1);
  });
});

describe("the films that are planned", () => {
  const plans = planFilms();

  test("are the same each time, at least 400 transitions, a fifth of them apart", () => {
    expect(planFilms()).toEqual(plans);
    const count = (some: typeof plans) => some.reduce((sum, plan) => sum + truthOf(plan).length, 0);
    expect(count(plans)).toBeGreaterThanOrEqual(400);
    expect(count(plans.filter(({ apart }) => apart)) / count(plans)).toBeCloseTo(0.2, 2);
  });

  test("know where each transition is, in order and inside the film", () => {
    for (const plan of plans) {
      const frames = plan.shots.reduce((sum, shot) => sum + shot.frames, 0);
      let last = 0;
      for (const { frame, range } of truthOf(plan)) {
        expect(range.start).toBeGreaterThan(last);
        expect(range.end).toBeLessThan(frames);
        // The shortest shots are those of a quick montage.
        expect(frame - last).toBeGreaterThanOrEqual(2);
        last = Math.max(frame, range.end - 1);
      }
    }
  });
});
