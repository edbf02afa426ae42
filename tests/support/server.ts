import { type ChildProcess, spawn } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { createServer } from "node:net";
import { tmpdir } from "node:os";
import { join } from "node:path";

/** Milliseconds that an analysis or a render may take on a slow machine. */
export const LONG_WORK = 400_000;

async function freePort(): Promise<number> {
  const server = createServer();
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const { port } = server.address() as { port: number };
  await new Promise((resolve) => server.close(resolve));
  return port;
}

/** The built server with a data folder of its own, which can be killed and started again on the same data. */
export class TestServer {
  readonly data = mkdtempSync(join(tmpdir(), "glad-pan-e2e-"));
  url = "";
  private child: ChildProcess | null = null;

  async start(environment: Record<string, string> = {}): Promise<void> {
    const port = await freePort();
    this.url = `http://127.0.0.1:${port}`;
    const child = spawn("node", ["server.js"], {
      env: { ...process.env, NODE_ENV: "production", PORT: String(port), GLAD_PAN_DATA: this.data, ...environment },
      stdio: ["ignore", "pipe", "inherit"],
    });
    this.child = child;
    await new Promise<void>((resolve, reject) => {
      child.stdout.setEncoding("utf8").on("data", (text: string) => text.includes("Glad Pan is ready") && resolve());
      child.once("exit", (code) => reject(new Error(`the server ended with ${code}`)));
    });
  }

  /** Ends the server at once, without a chance to tidy up. */
  async kill(): Promise<void> {
    const { child } = this;
    if (!child || child.exitCode !== null) return;
    const gone = new Promise((resolve) => child.once("exit", resolve));
    child.kill("SIGKILL");
    await gone;
  }

  async dispose(): Promise<void> {
    await this.kill();
    rmSync(this.data, { recursive: true, force: true });
  }
}
