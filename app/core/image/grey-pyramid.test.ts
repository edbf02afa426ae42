import { expect, test } from "@jest/globals";
import { texture, yuvPicture } from "../../../tests/support/yuv-picture";
import { greyPyramid, showsOther } from "./grey-pyramid";

const view = (pan: number, light = 0, seed = 0) =>
  greyPyramid(
    yuvPicture(320, 180, (x, y) => {
      const value = 110 + light + 160 * texture(x + pan + seed, y, 40);
      return [value, value, value];
    }),
  );

test("after a cut or a flash a picture shows something else, and not while the camera pans or the light wanders", () => {
  expect(showsOther(view(0), view(0, 0, 5000))).toBe(true);
  expect(showsOther(view(0), view(0, 60))).toBe(true);
  expect(showsOther(view(0), view(8))).toBe(false);
  expect(showsOther(view(0), view(0, 8))).toBe(false);
});
