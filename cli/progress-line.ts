import type { Terminal } from "./terminal";

/** A step's place in the whole. */
export interface Step {
  /** From 1. */
  number: number;
  of: number;
  what: string;
}

/** Seconds of a step before its remaining time is estimated. */
const EARLY_SECONDS = 2;

/**
 * Writes progress to the error output: one line that is overwritten on a terminal, a line per tenth elsewhere. The
 * remaining time is for the present step only: that of the next is unknown before it has begun.
 */
export class ProgressLine {
  private began = Date.now();
  private number = 0;
  private shown = "";

  constructor(private readonly terminal: Terminal) {}

  /** @param share of the step, 0 to 1 */
  show({ number, of, what }: Step, share: number): void {
    if (number !== this.number) [this.number, this.began] = [number, Date.now()];
    const percent = Math.floor(share * 100);
    const elapsed = (Date.now() - this.began) / 1000;
    const key = `${number} ${this.terminal.isInteractive ? percent : Math.floor(percent / 10)}`;
    if (key === this.shown) return;
    this.shown = key;
    const tellsTime = share > 0.02 && share < 1 && elapsed > EARLY_SECONDS;
    const left = tellsTime ? `, about ${formatSeconds((elapsed * (1 - share)) / share)} left of this step` : "";
    const line = `${of > 1 ? `${number}/${of} ` : ""}${what} ${String(percent).padStart(3)}%${left}`;
    this.terminal.overwrite(line);
  }

  end(): void {
    if (this.terminal.isInteractive && this.shown) this.terminal.overwrite("");
  }
}

/** What a long command needs while it runs. */
export interface Running {
  terminal: Terminal;
  progress: ProgressLine;
  signal: AbortSignal;
}

/** Runs something with progress that can be interrupted from the keyboard. */
export async function runWithProgress(terminal: Terminal, run: (running: Running) => Promise<void>): Promise<void> {
  const progress = new ProgressLine(terminal);
  const controller = new AbortController();
  const stop = () => controller.abort();
  process.once("SIGINT", stop).once("SIGTERM", stop);
  try {
    await run({ terminal, progress, signal: controller.signal });
  } finally {
    progress.end();
    process.off("SIGINT", stop).off("SIGTERM", stop);
  }
}

const formatSeconds = (seconds: number): string =>
  seconds < 90 ? `${Math.ceil(seconds)} s` : `${Math.ceil(seconds / 60)} min`;
