import { describe, expect, test } from "@jest/globals";
import { boundKeys } from "./key-bounds";

describe("the bounds of keys", () => {
  const lengths = new Float64Array(4).fill(600);
  const bound = (at: number[], x: number, width: number) => {
    const { low, high } = boundKeys(Float64Array.from(at), lengths, "x", () => ({ x, y: 0, width, height: 9 }), 8);
    return at.map((_, i) => [low[i], high[i]]);
  };

  test("leave a path a tolerance to both sides", () => {
    const free = boundKeys(Float64Array.from([500, 520, 540, 560]), lengths, "x", () => null, 8);
    expect([...free.low, ...free.high]).toEqual([492, 512, 532, 552, 508, 528, 548, 568]);
    // A face in the middle is as good as none.
    expect(bound([500, 520], 450, 100)).toEqual([
      [492, 508],
      [512, 528],
    ]);
  });

  test("end where a face would be cut that the path keeps whole, but for what nobody sees", () => {
    // With the window's centre from 300 to 700 a face from 400 to 600 is whole.
    expect(bound([303, 697, 450], 400, 200)).toEqual([
      [299.5, 311],
      [689, 700.5],
      [442, 458],
    ]);
  });

  test("do not hold on to what the path itself cuts, or to what is larger than the window", () => {
    expect(bound([290, 710], 400, 200)).toEqual([
      [282, 298],
      [702, 718],
    ]);
    expect(bound([500], 100, 800)).toEqual([[492, 508]]);
  });
});
