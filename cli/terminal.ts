/** Text output, such as a process's. */
interface Stream {
  write(text: string): unknown;
  isTTY?: boolean;
}

/** Output of a command, and its exit code. */
export class Terminal {
  status = 0;

  constructor(
    private readonly output: Stream,
    private readonly errors: Stream,
  ) {}

  /** Writes a result: for people, and for programs that read the output. */
  print = (line: string): void => void this.output.write(`${line}\n`);

  /** Writes a message for people, beside the results. */
  tell = (line: string): void => void this.errors.write(`${line}\n`);

  /** Overwrites the last line, where that is possible; otherwise writes a new one. */
  overwrite(line: string): void {
    this.errors.write(this.isInteractive ? `\r\u001b[K${line}` : `${line}\n`);
  }

  /** Whether a line can be overwritten. */
  get isInteractive(): boolean {
    return this.errors.isTTY === true;
  }

  /** Output of usage and help. */
  get writing() {
    return {
      writeOut: (text: string) => void this.output.write(text),
      writeErr: (text: string) => void this.errors.write(text),
    };
  }
}
