import { expect, test } from "@jest/globals";
import { yuvPicture } from "../../../../tests/support/yuv-picture";
import { likeness, meanSignature, signatureOf, tellingPart } from "./signature";

type Colour = readonly [number, number, number];
const BOX = { x: 40, y: 20, width: 80, height: 120 };
const RED: Colour = [180, 60, 50];
const BLUE: Colour = [50, 70, 180];

/** A person in one colour before a wall in another. */
const person = (colour: Colour, wall: Colour = [90, 90, 90], light = 1) =>
  yuvPicture(
    160,
    160,
    (x, y) => (x >= 45 && x < 115 && y >= 25 ? colour : wall).map((value) => light * value) as [number, number, number],
  );
const signature = (...picture: Parameters<typeof person>) => signatureOf(person(...picture), "person", BOX)!;

test("is the same in front of another wall, and close in another light", () => {
  expect(signature(RED, [30, 120, 40])).toEqual(signature(RED));
  expect(likeness(signature(RED), signature(RED))).toBeCloseTo(1, 1);
  expect(likeness(signature(RED), signature(RED, undefined, 0.75))).toBeGreaterThan(0.7);
});

test("tells colours apart, more by their hue than by their lightness", () => {
  expect(likeness(signature(RED), signature(BLUE))).toBeLessThan(0.3);
  const [dark, light]: Colour[] = [
    [60, 60, 60],
    [200, 200, 200],
  ];
  expect(likeness(signature(dark!), signature(light!))).toBeGreaterThan(0.8);
});

test("has the shares of two colours side by side", () => {
  const halves = yuvPicture(160, 160, (x) => (x < 80 ? RED : BLUE));
  const mixed = signatureOf(halves, "person", BOX)!;
  const [toRed, toBlue] = [likeness(mixed, signature(RED)), likeness(mixed, signature(BLUE))];
  expect(toRed).toBeCloseTo(toBlue, 1);
  expect(toRed).toBeGreaterThan(0.6);
  expect(toRed).toBeLessThan(0.85);
});

test("is of the chest, below a face and inside a body, and of the middle of a thing", () => {
  const chest = tellingPart("face", { x: 100, y: 100, width: 40, height: 40 });
  expect(chest).toEqual({ x: 88, y: 150, width: 64, height: 52 });
  expect(tellingPart("person", { x: 0, y: 0, width: 100, height: 200 })).toEqual({
    x: 25,
    y: 40,
    width: 50,
    height: 60,
  });
  expect(tellingPart("object", { x: 0, y: 0, width: 100, height: 200 })).toEqual({
    x: 15,
    y: 30,
    width: 70,
    height: 140,
  });
});

test("is none where too little of it is in the picture", () => {
  const picture = person(RED);
  expect(signatureOf(picture, "object", { x: 154, y: 10, width: 20, height: 60 })).toBeNull();
  expect(signatureOf(picture, "object", { x: 140, y: 10, width: 30, height: 60 })).not.toBeNull();
  expect(signatureOf(picture, "face", { x: 60, y: 140, width: 20, height: 20 })).toBeNull();
});

test("the mean of several is taken value by value", () => {
  expect(meanSignature([])).toBeNull();
  expect(
    meanSignature([
      [10, 20, 31],
      [20, 20, 30],
    ]),
  ).toEqual([15, 20, 31]);
});
