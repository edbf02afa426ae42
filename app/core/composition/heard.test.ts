import { expect, test } from "@jest/globals";
import { USUAL_BACKDROP } from "./backdrop";
import { PLAIN_EDGE } from "./edge";
import { heardIn } from "./heard";
import { FILL, type Layout, layOut } from "./layout";
import { newPanePicture, STACK, withOwn } from "./stack";

const AREA = { x: 0, y: 0, width: 1920, height: 1080 };
const CLIP = {
  id: "c".repeat(32),
  name: "kite.mp4",
  width: 640,
  height: 360,
  moving: { frames: 100, rate: { num: 25, den: 1 }, sound: true },
};
const shot = (start: number, end: number, layout: Layout) => ({
  range: { start, end },
  laidOut: layOut({ layout, backdrop: USUAL_BACKDROP, edge: PLAIN_EDGE }, AREA, { width: 1080, height: 1920 }),
});
const kept = [
  { start: 0, end: 60 },
  { start: 75, end: 100 },
];

test("the sound of a pane is heard in what is kept of its shot, from where it has got to", () => {
  const own = { ...newPanePicture(CLIP), sounds: true };
  const heard = heardIn([shot(0, 50, FILL), shot(50, 100, { ...withOwn(STACK, 1, own), muted: true })], kept, 25)!;
  expect(heard.map(({ range, film }) => [range.start, range.end, film])).toEqual([
    [0, 50, true],
    [50, 60, false],
    [75, 100, false],
  ]);
  expect(heard.map(({ own: sounds }) => sounds.map(({ played }) => played))).toEqual([[], [0], [1]]);
});

test("a film that was silent beside a clip is heard again when the clip is gone", () => {
  const muted = { ...withOwn(STACK, 1, newPanePicture(CLIP)), muted: true };
  expect(heardIn([shot(0, 100, muted)], kept, 25)!.map(({ film }) => film)).toEqual([false, false]);
  expect(heardIn([shot(0, 100, withOwn(muted, 1, null))], kept, 25)).toBeNull();
});

test("nothing has to be mixed where only the film is heard", () => {
  const silent = { ...CLIP, moving: { ...CLIP.moving, sound: false } };
  const panes = withOwn(STACK, 1, { ...newPanePicture(silent), sounds: true });
  expect(heardIn([shot(0, 50, FILL), shot(50, 100, panes)], kept, 25)).toBeNull();
});
