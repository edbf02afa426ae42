/** A second start on the same data, and a stop in the middle of the work. */
import { spawnSync } from "node:child_process";
import { Library } from "./library";
import { comesTrue, type Outcome, sleep } from "./outcome";

const analysis = (library: Library) => library.jobs().find(({ kind }) => kind === "analyse")!;

/** A start that is refused says why in one line. */
function refusedStart(environment: Record<string, string>): { status: number | null; said: string } {
  const env = { ...process.env, NODE_ENV: "production", ...environment };
  const { status, stdout, stderr } = spawnSync("node", ["server.js"], { env, timeout: 20_000, encoding: "utf8" });
  return { status, said: stdout + stderr };
}

export async function secondStarts(): Promise<Outcome> {
  const library = new Library();
  const failures: string[] = [];
  try {
    await library.server.start();
    await library.addFilm("kite.mp4");
    await comesTrue(() => analysis(library).state === "running", 20_000);
    const before = JSON.stringify(library.jobs());
    const refusals: [string, Record<string, string>, RegExp][] = [
      ["the same folder", { GLAD_PAN_DATA: library.server.data, PORT: "4199" }, /is in use by http:.*process \d+/],
      [
        "a taken port",
        { GLAD_PAN_DATA: `${library.server.data}-other`, PORT: new URL(library.server.url).port },
        /another program uses it/,
      ],
      ["a senseless port", { PORT: "many" }, /PORT is "many"/],
      ["a folder that is a file", { GLAD_PAN_DATA: "/etc/hostname", PORT: "4199" }, /cannot write to the data folder/],
    ];
    for (const [what, environment, reason] of refusals) {
      const { status, said } = refusedStart(environment);
      if (status !== 1 || !reason.test(said) || said.trim().includes("\n")) failures.push(`${what}: ${status} ${said}`);
    }
    // Nothing of the running work was taken up a second time.
    const states = JSON.stringify(library.jobs().map(({ kind, attempts }) => [kind, attempts > 1]));
    if (states.includes("true"))
      failures.push(`the running work was disturbed: ${before} → ${JSON.stringify(library.jobs())}`);
    const done = await comesTrue(() => library.jobs().every(({ state }) => state === "done"), 300_000);
    if (!done) failures.push(`the running work did not end: ${JSON.stringify(library.jobs())}`);
    return { what: "second and senseless starts", tried: refusals.length + 2, failures };
  } finally {
    await library.server.dispose();
  }
}

/** @param count how often the server is asked to stop */
export async function orderlyStops(count: number): Promise<Outcome> {
  const library = new Library();
  const failures: string[] = [];
  try {
    await library.server.start();
    await library.addFilm("kite.mp4");
    for (let round = 0; round < count; round++) {
      await sleep(300 + 600 * round);
      const begun = Date.now();
      const code = await library.server.stop();
      const seconds = (Date.now() - begun) / 1000;
      if (code !== 0 || seconds > 8) failures.push(`stop ${round}: exit ${code} after ${seconds} s`);
      if (library.tools().length > 0) failures.push(`stop ${round}: still running: ${library.tools().join("; ")}`);
      const open = library.jobs().filter(({ state }) => state !== "done");
      if (open.some(({ state, attempts }) => state !== "queued" || attempts > 0))
        failures.push(`stop ${round}: ${JSON.stringify(open)}`);
      if (library.files().some((file) => file.includes(".part"))) failures.push(`stop ${round}: half files`);
      await library.server.start();
    }
    const done = await comesTrue(() => library.jobs().every(({ state }) => state === "done"), 300_000);
    if (!done) failures.push(`the work did not end: ${JSON.stringify(library.jobs())}`);
    return { what: "stops in the middle of the work", tried: count, failures };
  } finally {
    await library.server.dispose();
  }
}
