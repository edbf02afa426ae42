import { describe, expect, test } from "@jest/globals";
import type { Track } from "../tracking/track";
import { USUAL_ATTENTION } from "./attention-settings";
import { attentionIn, type Hold } from "./switches";
import { candidatesOf } from "./worth";

const PICTURE = { width: 1920, height: 1080 };
const WINDOW = { width: 607, height: 1080 };
const FPS = 30;
const SHOT = { start: 0, end: 20 * FPS };

type Seconds = [from: number, to: number];
const ranges = (...all: Seconds[]) => all.map(([from, to]) => ({ start: from * FPS, end: to * FPS }));

/** Somebody's face in a place, from one second to another. */
function face(id: string, x: number, more: Partial<Track> & { seen?: Seconds; size?: number } = {}): Track {
  const { seen: [from, to] = [0, 20], size = 150, ...rest } = more;
  const boxes = Array.from({ length: (to - from) * FPS }, () => ({
    x: x - size / 2,
    y: 300,
    width: size,
    height: size,
  }));
  return { id, kind: "face", start: from * FPS, boxes, confidence: 0.9, who: id, ...rest };
}

function holds(tracks: Track[], { hold = USUAL_ATTENTION.shortestStay, mustHave = [] as string[] } = {}): Hold[] {
  const ground = { shot: SHOT, tracks, picture: PICTURE, fps: FPS, mustHave };
  return attentionIn({ ...ground, candidates: candidatesOf(ground), window: WINDOW, hold });
}
/** "0 a, 8 b (speaks)" */
const said = (all: readonly Hold[]) =>
  all
    .map(({ start, on, cause }) => {
      const names = on.map(({ track }) => track.id).sort();
      return `${(start / FPS).toFixed(1)} ${names.join("+")}${cause ? ` (${cause})` : ""}`;
    })
    .join(", ");

describe("in a talk, attention", () => {
  const talk = (...b: Seconds[]) => [
    face("a", 400, { speaking: ranges([1, 7], [13, 19]) }),
    face("b", 1500, { speaking: ranges(...b) }),
  ];

  test("goes to whoever speaks, shortly before the first word", () => {
    expect(said(holds(talk([8, 12])))).toBe("0.0 a, 7.9 b (speaks), 12.9 a (speaks)");
  });

  test("does not go over for a yes, and stays for as long as a hold is to last", () => {
    expect(said(holds(talk([9, 9.8])))).toBe("0.0 a");
    expect(said(holds(talk([8, 12]), { hold: 12 }))).toBe("0.0 a");
  });

  test("stays with both where they fit into the window", () => {
    const [a] = talk();
    expect(said(holds([a!, face("b", 700, { speaking: ranges([8, 12]) })]))).toBe("0.0 a+b");
  });
});

describe("where nobody speaks, attention", () => {
  test("goes to whoever begins to move", () => {
    const group = [
      face("a", 300, { acting: ranges([0, 6]) }),
      face("b", 1000, { acting: ranges([9, 14]) }),
      face("c", 1700),
    ];
    expect(said(holds(group))).toBe("0.0 a, 9.0 b (acts)");
  });

  test("goes on to who is left when somebody leaves, and to who comes in over the edge", () => {
    expect(said(holds([face("a", 300, { seen: [0, 10], size: 170 }), face("b", 1500)]))).toMatch(
      /^0.0 a, 10.0 b \(left\)$|^0.0 b$/,
    );
    const leaves = [face("a", 300, { seen: [0, 10], acting: ranges([0, 10]) }), face("b", 1500)];
    expect(said(holds(leaves))).toBe("0.0 a, 10.0 b (left)");
    expect(said(holds([face("a", 300), face("b", 1840, { seen: [9, 20] })]))).toBe("0.0 a, 9.0 b (enters)");
  });

  test("does not go to who is found again in the middle of the picture", () => {
    expect(said(holds([face("a", 300), face("b", 1300, { seen: [9, 20] })]))).toBe("0.0 a");
  });

  test("does not go to somebody small, whatever they do", () => {
    expect(said(holds([face("a", 300), face("b", 1500, { size: 50, acting: ranges([5, 20]) })]))).toBe("0.0 a");
  });

  test("is with two who fit, and with all of a group that does", () => {
    expect(said(holds([face("a", 700), face("b", 1000)]))).toBe("0.0 a+b");
    expect(said(holds([face("a", 800), face("b", 970), face("c", 1140)]))).toBe("0.0 a+b+c");
  });

  test("takes a body that holds a face for the same person", () => {
    const boxes = face("a", 700).boxes.map(() => ({ x: 550, y: 200, width: 300, height: 800 }));
    const body: Track = { id: "body", kind: "person", start: 0, boxes, confidence: 0.8 };
    expect(said(holds([face("a", 700), body]))).toBe("0.0 a");
  });
});

test("who is lost and tracked anew is the same, and no switch", () => {
  const lost = [face("a1", 400, { who: "a", seen: [0, 8] }), face("a2", 460, { who: "a", seen: [13, 20] })];
  const [only, ...others] = holds(lost);
  expect([others.length, only!.on[0]!.pieces.map(({ id }) => id)]).toEqual([0, ["a1", "a2"]]);
  const talk = [
    face("a1", 400, { who: "a", seen: [0, 8], speaking: ranges([0, 4]) }),
    face("a2", 460, { who: "a", seen: [10, 20], speaking: ranges([12, 18]) }),
    face("b", 1500, { speaking: ranges([5, 11]) }),
  ];
  expect(said(holds(talk))).toBe("0.0 a1, 4.9 b (speaks), 11.9 a1 (speaks)");
});

test("an hour of three who talk has a turn for each of three hundred, at its word", () => {
  const shot = { start: 0, end: 3600 * FPS };
  let seed = 11;
  const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
  const speaking: { start: number; end: number }[][] = [[], [], []];
  const turns: number[] = [];
  let speaker = 0;
  for (let n = 0; n < 301; n++) {
    const start = Math.round((n * 11.9 + random()) * FPS);
    const end = start + Math.round((5 + 5 * random()) * FPS);
    speaking[speaker]!.push({ start, end });
    // The next one says yes in the middle of it, and is not turned to.
    const middle = Math.round((start + end) / 2);
    const next = (speaker + 1 + Math.floor(2 * random())) % 3;
    speaking[next]!.push({ start: middle, end: middle + FPS / 2 });
    if (n > 0) turns.push(start / FPS);
    speaker = next;
  }
  const tracks = [0, 1, 2].map((i) => face(`s${i}`, 300 + 660 * i, { seen: [0, 3600], speaking: speaking[i]! }));
  const ground = { shot, tracks, picture: PICTURE, fps: FPS, mustHave: [] };
  const found = attentionIn({ ...ground, candidates: candidatesOf(ground), window: WINDOW, hold: 2 }).slice(1);
  expect(found).toHaveLength(300);
  found.forEach(({ start }, i) => expect(Math.abs(start / FPS - turns[i]!)).toBeLessThan(0.2));
});

test("somebody who must be in the picture has it, whoever else speaks, alone or with others who fit", () => {
  const talk = [face("a", 400), face("b", 1500, { speaking: ranges([2, 18]) }), face("c", 1300)];
  expect(said(holds(talk, { mustHave: ["a"] }))).toBe("0.0 a");
  expect(said(holds(talk, { mustHave: ["c"] }))).toBe("0.0 b+c");
  expect(said(holds(talk, { mustHave: ["nobody"] }))).toBe("0.0 b+c");
});
