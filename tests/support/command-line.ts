import { Terminal } from "../../cli/terminal";
import { run } from "../../cli/main";

/** What a command has written, and the exit code that it ended with. */
export interface Ended {
  status: number;
  stdout: string;
  stderr: string;
}

/** Carries out a command as a shell would, without a process of its own. */
export async function gladPan(...args: string[]): Promise<Ended> {
  const written = { stdout: "", stderr: "" };
  const to = (stream: keyof typeof written) => ({ write: (text: string) => void (written[stream] += text) });
  const status = await run(args, new Terminal(to("stdout"), to("stderr")));
  return { status, ...written };
}
