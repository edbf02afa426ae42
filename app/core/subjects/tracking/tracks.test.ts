import { describe, expect, test } from "@jest/globals";
import { boxIou, type Box } from "../../geometry/box";
import { buildTracks } from "./build-tracks";
import { castOf } from "../choosing/cast";
import { type Detection, type FrameDetections, suppressOverlaps } from "../detecting/detection";
import { smoothSeries } from "./fill-track";
import { chooseSubject, rankTracks } from "../choosing/rank";
import { boxAt, type Track } from "./track";

const HD = { width: 1920, height: 1080 };
const RATE = { num: 30, den: 1 };
const SHOT = { start: 0, end: 120 };
const square = (x: number, y: number, size: number): Box => ({ x, y, width: size, height: size });

/** What detectors see, looking at every third frame. */
function seen(at: (frame: number) => Detection[], end = SHOT.end): FrameDetections[] {
  return Array.from({ length: Math.ceil(end / 3) }, (_, i) => ({
    frame: i * 3,
    looked: ["face", "person", "object"],
    step: 1,
    detections: at(i * 3),
  }));
}
const face = (x: number, y: number, size = 100, score = 0.9): Detection => ({
  kind: "face",
  box: square(x, y, size),
  score,
});

const salient = (box: Box, score = 0.9): Detection => ({ kind: "salient", box, score });

describe("what an arm moves", () => {
  const [thing, withArm] = [square(700, 400, 160), { x: 700, y: 400, width: 1220, height: 300 }];
  const flower = square(300, 300, 200);
  /** For a second in the middle of the shot a thing moves to the right, and is told from its arm at some looks. */
  const tracksWith = (isTold: (look: number) => boolean) => {
    const frames = seen((t) => {
      if (t < 45 || t >= 75) return [salient(flower)];
      const by = 10 * (t - 45);
      const whole = { ...withArm, x: withArm.x + by, width: withArm.width - by };
      const motion = { kind: "motion", score: 1, box: whole } satisfies Detection;
      const told = { ...motion, box: { ...thing, x: thing.x + by }, withArm: whole };
      return [salient(flower), isTold(t / 3) ? told : motion];
    });
    const looked = frames.map((frame) => ({
      ...frame,
      looked: [...frame.looked, "motion" as const, "salient" as const],
    }));
    return buildTracks(looked, SHOT, RATE, HD);
  };
  const motionOf = (tracks: Track[]) => tracks.find(({ kind }) => kind === "motion")!;

  test("is the thing, from the look at which it was seen to move first to the one where it was last", () => {
    const track = motionOf(tracksWith((look) => look % 3 !== 0));
    expect(track.held).toBe(true);
    expect(boxAt(track, 60)!.width).toBeLessThan(200);
    expect(track.start).toBe(48);
  });

  test("is only the far end of it where a thing was told from it now and then", () => {
    const track = motionOf(tracksWith((look) => look === 18));
    expect(track.held).toBeUndefined();
    expect(boxAt(track, 60)!.width).toBeCloseTo(0.8 * withArm.height, 0);
  });

  test("is followed rather than what stands around, once it has been followed through the shot", () => {
    const tracks = tracksWith(() => true);
    const through = tracks.map((track) =>
      track.held ? { ...track, start: 0, boxes: Array.from({ length: 120 }, () => thing) } : track,
    );
    const { track, reason } = chooseSubject(through, SHOT, HD)!;
    expect(track.held).toBe(true);
    expect(reason).toContain("thing in a hand");
  });
});

describe("a large face that is not sure", () => {
  const [size, moon, nose] = [400, square(620, 220, 760), square(880, 560, 60)];
  const tracksWith = (score: number, thing: Box) => {
    const frames = seen(() => [face(800, 400, size, score), salient(thing)]);
    return buildTracks(
      frames.map((frame) => ({ ...frame, looked: [...frame.looked, "salient"] })),
      SHOT,
      RATE,
      HD,
    );
  };
  const kinds = (tracks: Track[]) => tracks.map(({ kind }) => kind);

  test("is a part of what it is seen in, which is followed", () => {
    const tracks = tracksWith(0.8, moon);
    expect(kinds(tracks)).toEqual(["face", "salient"]);
    expect(chooseSubject(tracks, SHOT, HD)!.track.kind).toBe("salient");
  });

  test("has what is within it for a part", () => {
    expect(kinds(tracksWith(0.8, nose))).toEqual(["face"]);
  });

  test("is one that counts where it is as sure as large faces are", () => {
    expect(kinds(tracksWith(0.9, moon))).toEqual(["face"]);
  });
});

describe("tracks", () => {
  test("one face that moves is one track with a box in every frame", () => {
    const tracks = buildTracks(
      seen((t) => [face(200 + 5 * t, 300)]),
      SHOT,
      RATE,
      HD,
    );
    expect(tracks).toHaveLength(1);
    expect(tracks[0]).toMatchObject({ id: "s0-face-1", kind: "face", start: 0 });
    for (let t = 0; t < 120; t++)
      expect(boxIou(boxAt(tracks[0]!, t)!, square(200 + 5 * t, 300, 100))).toBeGreaterThan(0.9);
  });

  test("two who cross stay themselves", () => {
    const tracks = buildTracks(
      seen((t) => [face(200 + 10 * t, 300), face(1400 - 10 * t, 330)]),
      SHOT,
      RATE,
      HD,
    );
    expect(tracks).toHaveLength(2);
    const right = tracks.find((track) => boxAt(track, 5)!.x < 800)!;
    expect(boxAt(right, 115)!.x).toBeGreaterThan(1200);
  });

  test("a gap is bridged, weak sightings extend, and a short flicker counts for nothing", () => {
    const tracks = buildTracks(
      seen((t) => [
        ...(t > 40 && t < 60 ? [] : [face(400, 300, 100, t > 80 ? 0.5 : 0.9)]),
        ...(t === 30 ? [face(1200, 600)] : []),
      ]),
      SHOT,
      RATE,
      HD,
    );
    expect(tracks).toHaveLength(1);
    expect(boxAt(tracks[0]!, 50)).not.toBeNull();
    expect(boxAt(tracks[0]!, 119)).not.toBeNull();
  });

  test("somebody who comes late and goes is only there while he is there", () => {
    const [track] = buildTracks(
      seen((t) => (t >= 45 && t < 90 ? [face(400, 300)] : [])),
      SHOT,
      RATE,
      HD,
    );
    expect(boxAt(track!, 20)).toBeNull();
    expect(boxAt(track!, 60)).not.toBeNull();
    expect(boxAt(track!, 110)).toBeNull();
  });

  test("what a fast runner does between looks is followed", () => {
    const tracks = buildTracks(
      seen((t) => (t > 10 && t < 80 ? [face(25 * (t - 10), 300, 80)] : [])),
      SHOT,
      RATE,
      HD,
    );
    expect(tracks).toHaveLength(1);
    expect(Math.abs(boxAt(tracks[0]!, 43)!.x - 25 * 33)).toBeLessThan(12);
  });

  test("a face that may be a round letter is none within text, and a sure one is whatever is laid over it", () => {
    const title: Box = { x: 500, y: 350, width: 700, height: 300 };
    const kinds = (score: number) => {
      const texts = [{ id: 1, box: title, over: true as const, ofPicture: 0.5 }];
      const frames = seen(() => [face(800, 450, 90, score)]).map((look) => ({ ...look, texts }));
      return buildTracks(frames, SHOT, RATE, HD).map(({ kind }) => kind);
    };
    expect(kinds(0.68)).toEqual(["text"]);
    expect(kinds(0.95)).toEqual(["face", "text"]);
  });

  test("a look between two that were due, as after a cut, changes nothing of how long a face must be seen", () => {
    const due = Array.from({ length: 12 }, (_, i) => 10 * i);
    const look = (frame: number, detections: Detection[]): FrameDetections => ({
      frame,
      looked: ["face"],
      step: 2,
      detections,
    });
    const frames = [...due, 4].sort((a, b) => a - b).map((frame) => look(frame, [face(400, 300)]));
    const [track] = buildTracks(frames, SHOT, RATE, HD);
    expect(track!.start + track!.boxes.length).toBe(SHOT.end);
    const once = [...due, 4].sort((a, b) => a - b).map((frame) => look(frame, frame === 60 ? [face(400, 300)] : []));
    expect(buildTracks(once, SHOT, RATE, HD)).toEqual([]);
  });

  test("a face belongs to the person around it", () => {
    const person = (x: number): Detection => ({
      kind: "person",
      box: { x, y: 250, width: 300, height: 700 },
      score: 0.8,
    });
    const tracks = buildTracks(
      seen(() => [face(500, 280), person(400), person(1200)]),
      SHOT,
      RATE,
      HD,
    );
    const found = tracks.find((track) => track.kind === "face")!;
    const body = tracks.find((track) => track.id === found.personId)!;
    expect(boxAt(body, 60)!.x).toBeCloseTo(400, 0);
    expect(castOf(tracks, SHOT, HD, []).map(({ letter, track }) => [letter, track.kind])).toEqual([
      ["1", "face"],
      ["2", "person"],
    ]);
  });
});

describe("choosing", () => {
  const track = (id: string, kind: Track["kind"], size: number, x: number, frames = 120): Track => ({
    id,
    kind,
    start: 0,
    boxes: new Array<Box>(frames).fill(square(x, 300, size)),
    confidence: 0.9,
  });

  test("a large face comes before a small one, a face before a kite, a mark before all", () => {
    const tracks = [
      track("kite", "object", 300, 800),
      track("small", "face", 60, 900),
      track("large", "face", 220, 200),
    ];
    expect(rankTracks(tracks, SHOT, HD).map((r) => r.track.id)).toEqual(["large", "small", "kite"]);
    expect(chooseSubject([...tracks, track("mine", "mark", 40, 0)], SHOT, HD)!.track.id).toBe("mine");
  });

  test("what is hardly there is not followed", () => {
    expect(chooseSubject([track("brief", "face", 100, 800, 8)], SHOT, HD)).toBeNull();
    expect(chooseSubject([], SHOT, HD)).toBeNull();
  });
});

test("of overlapping detections the surest stays", () => {
  const kept = suppressOverlaps([face(0, 0, 100, 0.6), face(10, 0, 100, 0.9), face(500, 0, 100, 0.5)], 0.3);
  expect(kept.map(({ score }) => score)).toEqual([0.9, 0.5]);
});

test("smoothing has no lag on a steady movement, and keeps gaps", () => {
  const values = Array.from({ length: 50 }, (_, t) => (t === 25 ? null : 3 * t));
  const smooth = smoothSeries(values, 4);
  expect(smooth[25]).toBeNull();
  smooth.forEach((value, t) => value !== null && expect(value).toBeCloseTo(3 * t, 6));
});
