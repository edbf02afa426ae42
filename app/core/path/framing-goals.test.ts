import { describe, expect, test } from "@jest/globals";
import type { Box } from "../geometry/box";
import type { Track } from "../subjects/tracking/track";
import type { Subject } from "../subjects/choosing/subject";
import { focusBox } from "./focus-box";
import { axisGoals } from "./framing-goals";
import type { EndChoice } from "./framing-settings";

const PICTURE = { width: 1920, height: 1080 };
const WINDOW = { width: 607.5, height: 1080 };
const SHOT = { start: 50, end: 53 };
const track = (kind: Track["kind"], boxes: (Box | null)[]): Track => ({
  id: kind,
  kind,
  start: 50,
  boxes,
  confidence: 1,
});
/** Goals of a window that fills the picture one way or has a length of its own. */
const goalsOn = (
  axis: "x" | "y",
  subject: Subject | null,
  picture = PICTURE,
  length = WINDOW.width,
  headroom = 0,
  keepEnd?: EndChoice,
  offset = 0,
) => {
  const lengths = new Float64Array(SHOT.end - SHOT.start).fill(length);
  return axisGoals({
    axis,
    subject,
    shot: SHOT,
    picture,
    lengths,
    fps: 30,
    headroom,
    keepEnd,
    eyeLine: 1 / 3,
    offset,
    protect: [],
  });
};
const face = { x: 900, y: 200, width: 120, height: 160 };
const body = { x: 820, y: 180, width: 300, height: 800 };

describe("what must not be cut", () => {
  test("is the face; the head's part of a body where no face was found; the thing itself", () => {
    const both = { track: track("face", [face, null, null]), body: track("person", [body, body, null]) };
    expect(focusBox(both, 50)).toEqual(face);
    expect(focusBox(both, 51)).toEqual({ ...body, height: 800 * 0.28 });
    expect(focusBox(both, 52)).toBeNull();
    expect(focusBox({ track: track("person", [body]), body: null }, 50)!.height).toBeCloseTo(224);
    expect(focusBox({ track: track("object", [body]), body: null }, 50)).toEqual(body);
  });
});

describe("goals", () => {
  test("keep a face with its margin inside, and want it in the middle across", () => {
    const goals = goalsOn("x", { track: track("face", [face, null, face]), body: null });
    const margin = 0.06 * WINDOW.width;
    expect(goals.insideLower[0]).toBeCloseTo(1020 + margin - WINDOW.width / 2);
    expect(goals.insideUpper[0]).toBeCloseTo(900 - margin + WINDOW.width / 2);
    expect(goals.wanted[0]).toBe(960);
    expect([goals.insideLower[1], goals.insideUpper[1], goals.wanted[1]]).toEqual([NaN, NaN, NaN]);
  });

  test("want a window that stands beside its subject by its offset, within the picture", () => {
    const subject = { track: track("face", [face]), body: null };
    const wanted = (offset: number, axis: "x" | "y" = "x") =>
      goalsOn(axis, subject, PICTURE, axis === "x" ? WINDOW.width : 540, 0, "auto", offset).wanted[0]!;
    expect(wanted(0.2) - wanted(0)).toBeCloseTo(0.2 * WINDOW.width);
    expect(wanted(-0.1) - wanted(0)).toBeCloseTo(-0.1 * WINDOW.width);
    expect(wanted(0.1, "y") - wanted(0, "y")).toBeCloseTo(54);
    expect(wanted(-0.5, "y")).toBe(270);
  });

  test("leave room to the side that a face looks to, and none for a glance", () => {
    const wanted = (side: number) => {
      const looking = { ...track("face", [face, face, face]), facing: [{ frame: 51, side }] };
      return goalsOn("x", { track: looking, body: null }).wanted[1]! - 960;
    };
    expect(wanted(0.2)).toBe(0);
    expect(wanted(1)).toBeCloseTo(0.1 * WINDOW.width);
    expect(wanted(-0.6)).toBeLessThan(-0.03 * WINDOW.width);
    expect(wanted(-0.6)).toBeGreaterThan(-wanted(1));
  });

  test("never ask for a place where the window would leave the picture", () => {
    const left = track("face", [{ ...face, x: 10 }, null, { ...face, x: 1880 }]);
    const { wanted, insideLower, insideUpper } = goalsOn("x", { track: left, body: null });
    const [low, high] = [WINDOW.width / 2, PICTURE.width - WINDOW.width / 2];
    expect([wanted[0], wanted[2]]).toEqual([low, high]);
    for (const values of [insideLower, insideUpper]) {
      for (const value of [values[0]!, values[2]!]) {
        expect(value).toBeGreaterThanOrEqual(low);
        expect(value).toBeLessThanOrEqual(high);
      }
    }
  });

  test("put the eyes a third from the top where the window can move up and down", () => {
    const upright = { width: 1080, height: 1920 };
    const { wanted } = goalsOn("y", { track: track("face", [{ ...face, y: 700 }]), body: null }, upright, 1080);
    const eyes = 700 + 0.4 * 160;
    expect((eyes - (wanted[0]! - 1080 / 2)) / 1080).toBeCloseTo(1 / 3);
  });

  test("keep the headroom that is asked for free above the hair", () => {
    const upright = { width: 1080, height: 1920 };
    const subject = { track: track("face", [{ ...face, y: 700 }]), body: null };
    const { insideUpper } = goalsOn("y", subject, upright, 1080, 0.2);
    expect(insideUpper[0]! - 1080 / 2).toBeCloseTo(700 - 0.25 * 160 - 0.2 * 1080);
  });

  test("leave room ahead of who moves across, and none where nobody does", () => {
    const shot = { start: 0, end: 60 };
    const going = (speed: number) => {
      const boxes = Array.from({ length: 60 }, (_, i) => ({ ...face, x: 700 + speed * i }));
      const lengths = new Float64Array(60).fill(WINDOW.width);
      const subject = { track: { ...track("face", boxes), start: 0 }, body: null };
      return axisGoals({
        axis: "x",
        subject,
        shot,
        picture: PICTURE,
        lengths,
        fps: 30,
        headroom: 0,
        eyeLine: 1 / 3,
        offset: 0,
        protect: [],
      }).wanted[30]!;
    };
    expect(going(0)).toBe(760);
    expect(going(6) - (760 + 180)).toBeCloseTo(36);
    expect(going(-6) - (760 - 180)).toBeCloseTo(-36);
    expect(going(14) - (760 + 420)).toBeCloseTo(0.1 * WINDOW.width);
  });

  test("what is wider than the window may fill it from edge to edge", () => {
    const wide = track("object", [{ x: 400, y: 0, width: 1000, height: 500 }]);
    const { insideLower, insideUpper } = goalsOn("x", { track: wide, body: null });
    expect(insideLower[0]!).toBeLessThan(insideUpper[0]!);
    expect((insideLower[0]! + insideUpper[0]!) / 2).toBeCloseTo(900);
  });

  test("of what is wider than the window, the end with its head: where its detail is, or that it goes ahead with", () => {
    const at = (x: number) => ({ x, y: 0, width: 1000, height: 500 });
    const wanted = (boxes: Box[], detailSide?: number) =>
      goalsOn("x", { track: { ...track("object", boxes), detailSide }, body: null }).wanted[0]!;
    const still = [at(400), at(400), at(400)];
    expect(wanted(still)).toBeCloseTo(900);
    expect(wanted(still, 0.3)).toBeGreaterThan(1000);
    expect(wanted(still, -0.3)).toBeLessThan(800);
    expect(wanted([at(400), at(700), at(900)])).toBeGreaterThan(1000);
    const subject = { track: { ...track("object", still), detailSide: 0.3 }, body: null };
    const chosen = (end: EndChoice) => goalsOn("x", subject, PICTURE, WINDOW.width, 0, end).wanted[0]!;
    expect(chosen("left")).toBeLessThan(800);
    expect(chosen("right")).toBe(chosen("auto"));
  });

  test("keep what is protected inside, subject or not", () => {
    const protect = { x: 1500, y: 900, width: 300, height: 80 };
    const lengths = new Float64Array(3).fill(WINDOW.width);
    const goals = axisGoals({
      axis: "x",
      subject: null,
      shot: SHOT,
      picture: PICTURE,
      lengths,
      fps: 30,
      headroom: 0,
      eyeLine: 1 / 3,
      offset: 0,
      protect: [protect, protect, protect],
    });
    expect(goals.protectLower[0]).toBeCloseTo(1800 + 0.015 * WINDOW.width - WINDOW.width / 2);
    expect(goals.protectUpper[2]).toBeCloseTo(PICTURE.width - WINDOW.width / 2);
    expect(goalsOn("x", null).protectLower[0]).toBeNaN();
  });

  test("rest in the middle without a subject", () => {
    expect([...goalsOn("x", null).wanted]).toEqual([960, 960, 960]);
  });
});
