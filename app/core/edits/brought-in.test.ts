import { expect, test } from "@jest/globals";
import { newPicture, newText } from "../composition/layers/layer";
import { USUAL_PLAYBACK } from "../composition/picture";
import { newPanePicture, STACK, withOwn } from "../composition/stack";
import { asOne } from "./as-one";
import { fontsIn, picturesIn } from "./brought-in";

const picture = (id: string) => ({ id: id.repeat(32), name: `${id}.png`, width: 30, height: 20 });
const behind = (id: string) => ({
  kind: "picture" as const,
  picture: picture(id),
  fit: "fill" as const,
  colour: "#000000",
  playback: USUAL_PLAYBACK,
});

test("pictures are found above the film, behind it and beside it, in what is usual and in shots", () => {
  const shots = new Map([
    ["one", { backdrop: behind("c"), layout: withOwn(STACK, 1, newPanePicture(picture("d"))) }],
    ["two", { layout: STACK }],
  ]);
  const version = {
    layers: [newPicture("l", picture("a")), newText("t", "Wind")],
    usual: { backdrop: behind("b") },
    shots,
  };
  expect(picturesIn(version).map(({ name }) => name)).toEqual(["a.png", "b.png", "c.png", "d.png"]);
  expect(picturesIn({ layers: [], usual: {} })).toEqual([]);
});

test("fonts are those of texts that have one of their own", () => {
  const font = { id: "f".repeat(32), name: "Ferrow.ttf" };
  const layers = [newText("t", "Wind"), { ...newText("u", "Sea"), font }, newPicture("l", picture("a"))];
  expect(fontsIn({ layers })).toEqual([font]);
});

test("several changes are one step, and one alone is itself", () => {
  const sensitivity = { type: "set-sensitivity", sensitivity: 3 } as const;
  expect(asOne([sensitivity])).toBe(sensitivity);
  expect(asOne([sensitivity, sensitivity])).toEqual({ type: "batch", commands: [sensitivity, sensitivity] });
  expect(asOne([])).toEqual({ type: "batch", commands: [] });
});
