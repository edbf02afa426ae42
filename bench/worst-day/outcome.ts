/** What came of something that was tried a number of times. */
export interface Outcome {
  what: string;
  tried: number;
  /** What did not hold, each with what happened. */
  failures: string[];
}

export const sleep = (milliseconds: number): Promise<void> =>
  new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Asks until it is so, or gives up; whether it came to be so. */
export async function comesTrue(ask: () => boolean | Promise<boolean>, withinMs: number): Promise<boolean> {
  const end = Date.now() + withinMs;
  for (;;) {
    if (await ask()) return true;
    if (Date.now() > end) return false;
    await sleep(100);
  }
}
