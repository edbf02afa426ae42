/** Something that text is written to, as a process's output is. */
interface Stream {
  write(text: string): unknown;
  isTTY?: boolean;
}

/** Where a command writes, and the exit code that it ends with. */
export class Terminal {
  status = 0;

  constructor(
    private readonly output: Stream,
    private readonly errors: Stream,
  ) {}

  /** Writes a result: for people, and for programs that read the output. */
  print = (line: string): void => void this.output.write(`${line}\n`);

  /** Tells people what is done and what came of it, beside the results. */
  tell = (line: string): void => void this.errors.write(`${line}\n`);

  /** Writes over the line that was written last, where that can be done; else a line of its own. */
  overwrite(line: string): void {
    this.errors.write(this.isInteractive ? `\r\u001b[K${line}` : `${line}\n`);
  }

  /** Whether a line can be written over. */
  get isInteractive(): boolean {
    return this.errors.isTTY === true;
  }

  /** How usage and help are written. */
  get writing() {
    return {
      writeOut: (text: string) => void this.output.write(text),
      writeErr: (text: string) => void this.errors.write(text),
    };
  }
}
