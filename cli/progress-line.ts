/** Writes progress to the error output: one line that is overwritten on a terminal, a line each tenth elsewhere. */
export class ProgressLine {
  private readonly began = Date.now();
  private shown = "";

  show(what: string, share: number): void {
    const percent = Math.floor(share * 100);
    const elapsed = (Date.now() - this.began) / 1000;
    const left = share > 0.02 ? `, about ${formatSeconds((elapsed * (1 - share)) / share)} left` : "";
    const { isTTY } = process.stderr;
    const key = isTTY ? `${what}${percent}` : `${what}${Math.floor(percent / 10)}`;
    if (key === this.shown) return;
    this.shown = key;
    const line = `${what} ${String(percent).padStart(3)} %${left}`;
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
