import { expect, test } from "@jest/globals";
import { Steering } from "./steering";

const WINDOW = { x: 600, y: 540, height: 1080 };
/** A window that may go no further right than 1000. */
const steering = () => new Steering((_frame, window) => ({ ...window, x: Math.min(1000, window.x) }));

test("a window that is held goes where it is led, within its limits, and its way is what was presented", () => {
  const led = steering();
  expect([led.isLed(), led.at(5)]).toEqual([false, null]);
  led.begin(WINDOW);
  led.record(5);
  led.lead({ x: 100, y: 0 });
  led.record(7);
  led.lead({ x: 500, y: 10 });
  expect(led.at(8)).toEqual({ x: 1000, y: 550, height: 1080 });
  led.record(8);
  expect(led.end()).toEqual([
    { frame: 5, window: WINDOW },
    { frame: 7, window: { ...WINDOW, x: 700 } },
    { frame: 8, window: { x: 1000, y: 550, height: 1080 } },
  ]);
  expect([led.isLed(), led.end()]).toEqual([false, []]);
});

test("what happens while nothing is held is nothing", () => {
  const led = steering();
  led.lead({ x: 10, y: 0 });
  led.record(3);
  expect(led.end()).toEqual([]);
});
