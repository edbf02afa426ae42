import { clamped } from "../numbers/clamped";
import { describe, expect, test } from "@jest/globals";
import { framingOf } from "../../../tests/support/shot-framing";
import { boxContains, type Box } from "../geometry/box";
import { windowBox } from "../geometry/crop-window";
import type { Track } from "../subjects/tracking/track";
import { USUAL_FRAMING } from "./framing-settings";
import { ease, EASINGS } from "./easing";
import { type Key, windowAt } from "./keys";
import { solveShot, type ShotProblem } from "./solve-shot";
import { readRule } from "../subjects/choosing/follow-rule";
import { boxAt } from "../subjects/tracking/track";
import { followedTrack, frameShot } from "./solve-version";

const GLIDE = { ...USUAL_FRAMING, movement: "glide" as const };
const HD = { width: 1920, height: 1080 };
const VERTICAL = { width: 1080, height: 1920 };
const ASPECT = 9 / 16;

const face = (frames: number, at: (t: number) => number | null): Track => ({
  id: "s1-face-1",
  kind: "face",
  start: 0,
  boxes: Array.from({ length: frames }, (_, t): Box | null => {
    const x = at(t);
    return x === null ? null : { x: x - 60, y: 300, width: 120, height: 150 };
  }),
  confidence: 0.9,
});

const shot = (track: Track | null, change: Partial<ShotProblem> = {}): ShotProblem => ({
  shot: { start: 0, end: track?.boxes.length ?? 90 },
  picture: HD,
  target: VERTICAL,
  rate: { num: 30, den: 1 },
  settings: GLIDE,
  subject: track && { track, body: null },
  handKeys: [],
  protect: null,
  texts: [],
  ...change,
});

/** Detector noise that is the same each time. */
const jitter = (t: number) => 6 * Math.sin(t * 1.9) + 4 * Math.sin(t * 0.83);
const walk = (t: number) => 500 + clamped((t - 60) / 90, 0, 1) * 900 + jitter(t);

describe("a path", () => {
  test("over a subject that sits still does not move, and says so with one key", () => {
    const { keys, windows } = solveShot(shot(face(240, (t) => 520 + jitter(t))));
    expect(keys).toHaveLength(1);
    expect(new Set(windows.map(({ x }) => x)).size).toBe(1);
    expect(Math.abs(windows[0]!.x - 520)).toBeLessThan(80);
  });

  test("follows a walk with few keys and keeps the face inside", () => {
    const track = face(240, walk);
    const { keys, windows } = solveShot(shot(track));
    expect(keys.length).toBeGreaterThan(1);
    expect(keys.length).toBeLessThanOrEqual(6);
    windows.forEach((window, t) => {
      const box = windowBox(window, ASPECT);
      expect(boxContains(box, track.boxes[t]!)).toBe(true);
      expect(boxContains({ x: 0, y: 0, ...HD }, box, 1e-6)).toBe(true);
    });
  });

  test("is calmer in Glide than the subject, and stays close in Chase", () => {
    const travel = (movement: "glide" | "chase" | "still") => {
      const { windows } = solveShot(
        shot(
          face(240, (t) => 900 + 120 * Math.sin(t / 9)),
          { settings: { ...GLIDE, movement } },
        ),
      );
      return windows.slice(1).reduce((sum, { x }, t) => sum + Math.abs(x - windows[t]!.x), 0);
    };
    expect(travel("still")).toBe(0);
    expect(travel("glide")).toBeLessThan(0.3 * travel("chase"));
  });

  test("holds while the subject is away, and is there when it comes", () => {
    const track = face(240, (t) => (t < 100 ? null : 1400));
    const { windows } = solveShot(shot(track));
    expect(boxContains(windowBox(windows[100]!, ASPECT), track.boxes[100]!)).toBe(true);
    expect(Math.abs(windows[0]!.x - windows[100]!.x)).toBeLessThan(1);
  });

  test("meets hand keys exactly, by name", () => {
    const handKeys = [
      { frame: 50, x: 1000, y: 540, height: 1080 },
      { frame: 51, x: 1500, y: 540, height: 1080 },
      { frame: 200, x: 9999, y: 540, height: 1080 },
    ];
    const { keys, windows } = solveShot(shot(face(240, walk), { handKeys }));
    expect(windows[50]!.x).toBe(1000);
    expect(windows[51]!.x).toBe(1500);
    // A key outside the picture is brought to its edge.
    expect(windows[200]!.x).toBeCloseTo(1920 - 303.75);
    expect(keys.filter((key) => key.by === "hand").map((key) => key.frame)).toEqual([50, 51, 200]);
  });

  test("rests in the middle without a subject", () => {
    const { keys, windows } = solveShot(shot(null));
    expect(keys).toHaveLength(1);
    expect(windows[0]!.x).toBeCloseTo(960, 0);
  });

  test("keeps what is protected inside as well as the face where both fit, and the face where they do not", () => {
    const track = face(120, () => 900);
    const keeps = (x: number) => {
      const protect = { x, y: 900, width: 200, height: 80 };
      const box = windowBox(solveShot(shot(track, { protect })).windows[60]!, ASPECT);
      return [boxContains(box, track.boxes[60]!), boxContains(box, protect)];
    };
    expect(keeps(1050)).toEqual([true, true]);
    expect(keeps(1700)).toEqual([true, false]);
  });

  test("moves up and down where the picture is upright, with the eyes in the upper half", () => {
    const upright = { width: 1080, height: 1920 };
    const { windows } = solveShot(
      shot(
        face(60, () => 500),
        { picture: upright, target: { width: 1080, height: 1080 } },
      ),
    );
    const { x, y, height } = windows[0]!;
    expect([x, height]).toEqual([540, 1080]);
    const eyes = (360 - (y - height / 2)) / height;
    expect(eyes).toBeGreaterThan(0.2);
    expect(eyes).toBeLessThan(0.5);
  });

  test.each([1, 2, 3, 5])("can be laid through %d frames", (count) => {
    const { keys, windows } = solveShot(shot(face(count, () => 700)));
    expect(windows).toHaveLength(count);
    expect(keys.length).toBeGreaterThan(0);
  });
});

describe("keys", () => {
  test.each(EASINGS)("%s begins at the one and ends at the other", (easing) => {
    expect(ease(easing, 0)).toBe(0);
    expect(ease(easing, 1)).toBe(1);
  });

  test("give the window between them, and rest outside", () => {
    const key = (frame: number, x: number, easing: Key["easing"]): Key => ({
      frame,
      x,
      y: 540,
      height: 1080,
      easing,
      by: "solver",
    });
    const keys = [key(10, 100, "linear"), key(20, 200, "hold"), key(30, 300, "linear")];
    expect([0, 10, 15, 20, 29, 30, 99].map((frame) => windowAt(keys, frame).x)).toEqual([
      100, 100, 150, 200, 200, 300, 300,
    ]);
  });
});

describe("a framed shot", () => {
  const track = face(60, () => 700);
  const framing = framingOf({ start: 0, end: 60 }, { settings: GLIDE, tracks: [track] });
  const frame = (stored: string) =>
    frameShot({ ...framing, rule: readRule(stored) }, HD, VERTICAL, { num: 30, den: 1 });

  test("says whom it follows and why", () => {
    expect(frame("auto")).toMatchObject({ subjectId: track.id, reason: "only face, 100% of the shot" });
    expect(frame(`track:${track.id}`).reason).toBe("set by you");
    expect(frame("none")).toMatchObject({ subjectId: null, reason: "follows nothing, as set" });
  });

  test("jumps at a switch from one speaker to the other", () => {
    const speaking = (id: string, x: number, start: number, end: number) => ({
      ...face(60, () => x),
      id,
      speaking: [{ start, end }],
    });
    const tracks = [speaking("left", 500, 0, 30), speaking("right", 1400, 30, 60)];
    const rule = readRule("speaker");
    const framed = frameShot({ ...framing, tracks, rule }, HD, VERTICAL, { num: 15, den: 1 });
    expect(framed.spans).toMatchObject([
      { start: 0, end: 28, trackId: "left" },
      { start: 28, end: 60, trackId: "right", comesBy: "cut", cause: "speaks" },
    ]);
    expect([27, 28].map((frame) => boxAt(followedTrack(framed, tracks)!, frame))).toEqual([
      boxAt(tracks[0]!, 27),
      boxAt(tracks[1]!, 28),
    ]);
    expect(framed.windows[28]!.x - framed.windows[27]!.x).toBeGreaterThan(700);
    // What is rendered is what the keys say, at the jump as well.
    for (const frame of [26, 27, 28, 29])
      expect(windowAt(framed.keys, frame).x).toBeCloseTo(framed.windows[frame]!.x, 3);
    expect(framed.reason).toBe("two talk in turn, 1 switch");
  });
});
