import { describe, expect, test } from "@jest/globals";
import { readAhead } from "./read-ahead";

/** Counts up to a number and notes how far it got and whether it was closed. */
function counter(until: number, failsAt = Infinity) {
  const state = { made: 0, closed: false };
  async function* count() {
    try {
      for (let i = 0; i < until; i++) {
        if (i === failsAt) throw new Error(`no ${i}`);
        state.made++;
        yield i;
      }
    } finally {
      state.closed = true;
    }
  }
  return { state, count: count() };
}
const pause = () => new Promise((resolve) => setTimeout(resolve, 5));

describe("reading ahead", () => {
  test("gives everything once and in order, and closes the source", async () => {
    const { state, count } = counter(10);
    const got: number[] = [];
    for await (const item of readAhead(count, 3)) got.push(item);
    expect(got).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9]);
    expect(state.closed).toBe(true);
  });

  test("stays a few items ahead of the reader, and no more", async () => {
    const { state, count } = counter(100);
    const reader = readAhead(count, 4);
    await reader.next();
    await pause();
    expect(state.made).toBe(5);
    await reader.return(undefined);
    expect(state.closed).toBe(true);
  });

  test("fails where the source fails, after what came before", async () => {
    const { state, count } = counter(10, 5);
    const got: number[] = [];
    const reading = (async () => {
      for await (const item of readAhead(count, 3)) got.push(item);
    })();
    await expect(reading).rejects.toThrow("no 5");
    expect(got).toEqual([0, 1, 2, 3, 4]);
    expect(state.closed).toBe(true);
  });

  test("a source of nothing is nothing", async () => {
    const got: number[] = [];
    for await (const item of readAhead(counter(0).count, 2)) got.push(item);
    expect(got).toEqual([]);
  });
});
