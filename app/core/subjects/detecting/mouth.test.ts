import { expect, test } from "@jest/globals";
import { texture, yuvPicture } from "../../../../tests/support/yuv-picture";
import { facePatches, mouthMovement } from "./mouth";

const FACE = { x: 60, y: 30, width: 80, height: 100 };
const MOUTH = { x: 100, y: 105 };

/** A textured face; what is around the mouth is moved down by some pixels, and all of it may be moved and lit. */
const face = ({ mouth = 0, x: right = 0, y: down = 0, light = 0 } = {}) =>
  yuvPicture(200, 160, (x, y) => {
    const shift = Math.abs(y - down - 110) < 18 ? mouth : 0;
    const grey = 120 + light + 150 * texture(x - right, y - down - shift, 7);
    return [grey, grey, grey];
  });
const patches = (picture: ReturnType<typeof face>, by = { x: 0, y: 0 }) =>
  facePatches(picture, { ...FACE, x: FACE.x + by.x, y: FACE.y + by.y }, { x: MOUTH.x + by.x, y: MOUTH.y + by.y })!;

test("a mouth that moves is told from one that rests, the more it moves the more", () => {
  const rest = patches(face());
  expect(mouthMovement(rest, patches(face()))).toBe(0);
  const little = mouthMovement(rest, patches(face({ mouth: 1 })));
  const much = mouthMovement(rest, patches(face({ mouth: 4 })));
  expect(little).toBeGreaterThan(0.1);
  expect(much).toBeGreaterThan(2 * little);
  expect(much).toBeLessThanOrEqual(1);
});

test("light that changes and a head that moves are no movement of the mouth", () => {
  const rest = patches(face());
  expect(mouthMovement(rest, patches(face({ light: 40 })))).toBeLessThan(0.05);
  // The patches go along with a head, also by parts of a pixel.
  const by = { x: 7, y: 4 };
  expect(mouthMovement(rest, patches(face(by), by))).toBeLessThan(0.01);
  const part = { x: 0.5, y: 0.25 };
  expect(mouthMovement(rest, patches(face(part), part))).toBeLessThan(0.1);
  // A head that turns changes all of the face.
  expect(mouthMovement(rest, patches(face({ y: 3 })))).toBeLessThan(0.3);
});

test("a face that is too small, or has its mouth or eyes beyond the picture, shows no mouth", () => {
  expect(facePatches(face(), { ...FACE, width: 17 }, MOUTH)).toBeNull();
  expect(facePatches(face(), { ...FACE, width: 18 }, MOUTH)).not.toBeNull();
  for (const mouth of [
    { x: 15, y: 105 },
    { x: 185, y: 105 },
    { x: 100, y: 150 },
    { x: 100, y: 50 },
  ]) {
    expect(facePatches(face(), FACE, mouth)).toBeNull();
  }
});
