import { expect, test } from "@jest/globals";
import type { FrameRange } from "~/core/time/rate";
import { MovingReader } from "./moving-reader";

test("frames are read on in order, and begun at anew where that is far or back", async () => {
  const begun: number[] = [];
  async function* decode({ start, end }: FrameRange) {
    begun.push(start);
    // The last ten cannot be decoded.
    for (let frame = start; frame < end - 10; frame++) yield Buffer.from([frame]);
  }
  const reader = new MovingReader(decode, 200);
  const seen: (number | undefined)[] = [];
  for (const frame of [3, 4, 4, 9, 2, 120, 195]) seen.push((await reader.frame(frame))?.[0]);
  expect(seen).toEqual([3, 4, 4, 9, 2, 120, 120]);
  expect(begun).toEqual([3, 2, 120, 195]);
  await reader.close();
});
