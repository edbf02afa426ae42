/** Where a step is in the whole. */
export interface Step {
  /** Counted from 1. */
  number: number;
  of: number;
  what: string;
}

/** Seconds of a step before anything is said of how long it is going to take. */
const EARLY_SECONDS = 2;

/**
 * Writes progress to the error output: one line that is overwritten on a terminal, a line each tenth elsewhere. The time
 * that is left is told for the step alone: how long the next is going to take nobody knows before it has begun.
 */
export class ProgressLine {
  private began = Date.now();
  private number = 0;
  private shown = "";

  /** @param share of the step, 0 to 1 */
  show({ number, of, what }: Step, share: number): void {
    if (number !== this.number) [this.number, this.began] = [number, Date.now()];
    const percent = Math.floor(share * 100);
    const elapsed = (Date.now() - this.began) / 1000;
    const { isTTY } = process.stderr;
    const key = `${number} ${isTTY ? percent : Math.floor(percent / 10)}`;
    if (key === this.shown) return;
    this.shown = key;
    const tellsTime = share > 0.02 && share < 1 && elapsed > EARLY_SECONDS;
    const left = tellsTime ? `, about ${formatSeconds((elapsed * (1 - share)) / share)} left of this step` : "";
    const line = `${of > 1 ? `${number}/${of} ` : ""}${what} ${String(percent).padStart(3)}%${left}`;
    process.stderr.write(isTTY ? `\r\u001b[K${line}` : `${line}\n`);
  }

  end(): void {
    if (process.stderr.isTTY && this.shown) process.stderr.write("\r\u001b[K");
  }
}

/** Runs something that shows progress and can be interrupted from the keyboard. */
export async function runWithProgress(
  run: (progress: ProgressLine, signal: AbortSignal) => Promise<void>,
): Promise<void> {
  const progress = new ProgressLine();
  const controller = new AbortController();
  const stop = () => controller.abort();
  process.once("SIGINT", stop).once("SIGTERM", stop);
  try {
    await run(progress, controller.signal);
  } finally {
    progress.end();
    process.off("SIGINT", stop).off("SIGTERM", stop);
  }
}

const formatSeconds = (seconds: number): string =>
  seconds < 90 ? `${Math.ceil(seconds)} s` : `${Math.ceil(seconds / 60)} min`;
