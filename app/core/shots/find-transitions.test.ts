import { expect, test } from "@jest/globals";
import { texture, yuvPicture } from "../../../tests/support/yuv-picture";
import { decideTransitions, weighTransitions } from "./detect-transitions";
import { TransitionFinder } from "./find-transitions";
import { FEATURE_SIZE, frameFeatures } from "./frame-features";

const RATE = { num: 10, den: 1 };
const { width, height } = FEATURE_SIZE;
/** Frames at which another place is shown, on both sides of where stretches of 12 seconds end. */
const CUTS = [40, 118, 121, 250, 355];
const FRAMES = 400;

const places = new Map<number, ReturnType<typeof frameFeatures>>();
function place(index: number) {
  let features = places.get(index);
  if (!features) {
    const picture = yuvPicture(width, height, (x, y) => {
      const value = 120 + 200 * texture(x + 500 * index, y, 12);
      return [value, value + 20 * (index % 3), value - 15 * (index % 4)];
    });
    places.set(index, (features = frameFeatures(picture)));
  }
  return features;
}
const film = Array.from({ length: FRAMES }, (_, frame) => place(CUTS.filter((cut) => cut <= frame).length));
const frames = (finder: TransitionFinder) => decideTransitions(finder.candidates).map(({ frame }) => frame);

test("transitions are found while the film comes in as they are in the whole film", () => {
  const finder = new TransitionFinder(RATE, 0);
  const settled: number[] = [];
  for (const feature of film) {
    finder.add(feature);
    if (settled.at(-1) !== finder.settled) settled.push(finder.settled);
  }
  finder.end();
  expect(settled).toEqual([0, 120, 240]);
  expect(frames(finder)).toEqual(decideTransitions(weighTransitions(film, RATE)).map(({ frame }) => frame));
  expect(frames(finder)).toEqual(CUTS);
});

test("it goes on from what was known, with the frames that are still needed", () => {
  const first = new TransitionFinder(RATE, 0);
  for (const feature of film.slice(0, 200)) first.add(feature);
  const { candidates, settled } = first;
  const second = new TransitionFinder(RATE, 0, { candidates: [...candidates], settled });
  expect(second.next).toBe(settled - 50);
  for (const feature of film.slice(second.next)) second.add(feature);
  second.end();
  expect(frames(second)).toEqual(CUTS);
});
