import { expect, test } from "@jest/globals";
import type { Box } from "../../geometry/box";
import type { Track } from "../tracking/track";
import { relativeSizes } from "./relative-size";

const PICTURE = { width: 1920, height: 1080 };
const SHOT = { start: 0, end: 100 };

const track = (kind: Track["kind"], box: Box, frames = 100): Track => ({
  id: kind,
  kind,
  start: 0,
  boxes: Array<Box>(frames).fill(box),
  confidence: 0.9,
});
const at = (width: number, height: number, y = 100): Box => ({ x: 500, y, width, height });
const sizes = (...subjects: { track: Track; body?: Track }[]) => relativeSizes(subjects as never, SHOT, PICTURE);
/** A face that has a body, of a height, whose foot may be beyond the picture. */
const person = (face: number, body: number, y = 100) => ({
  track: track("face", at(0.8 * face, face)),
  body: track("person", at(0.3 * body, body, y)),
});

test("people are compared with people, and things with things", () => {
  const [large, small, thing, smallThing] = sizes(
    { track: track("face", at(160, 200)) },
    { track: track("face", at(80, 100)) },
    { track: track("object", at(300, 300)) },
    { track: track("object", at(75, 75)) },
  );
  expect([large, thing]).toEqual([1, 1]);
  expect(small).toBeCloseTo(0.5);
  expect(smallThing).toBeCloseTo(0.25);
});

test("whole bodies are compared by their height, however large their faces seem; those that are cut off are not", () => {
  const [, shorter] = sizes(person(100, 800), person(50, 720));
  expect(shorter).toBeCloseTo(0.9);
  const [, cutOff] = sizes(person(100, 800), person(50, 720, 500));
  expect(cutOff).toBeCloseTo(0.5);
});

test("who passes by for a moment makes nobody small, and is no larger than anybody", () => {
  const [staying, passing] = sizes({ track: track("face", at(80, 100)) }, { track: track("face", at(320, 400), 20) });
  expect([staying, passing]).toEqual([1, 1]);
  expect(sizes({ track: track("face", at(80, 100), 20) })).toEqual([1]);
});

test("of a body without a face that stands, an eighth is taken for its head", () => {
  const [face, body] = sizes({ track: track("face", at(80, 100)) }, { track: track("person", at(150, 400)) });
  expect(face).toBe(1);
  expect(body).toBeCloseTo(50 / Math.sqrt(80 * 100));
});
