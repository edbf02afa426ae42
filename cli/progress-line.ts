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

const formatSeconds = (seconds: number): string =>
  seconds < 90 ? `${Math.ceil(seconds)} s` : `${Math.ceil(seconds / 60)} min`;
