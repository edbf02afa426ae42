import { spawn } from "node:child_process";
import { readFileSync } from "node:fs";
import { expect, test } from "@jest/globals";
import { CancelledError, lastWords, runTool, startTool } from "./tool.server";

test("a tool's output is given, its failure told by its last words", async () => {
  expect(await runTool("sh", ["-c", "echo one; echo two"])).toBe("one\ntwo\n");
  const failing = runTool("sh", ["-c", "echo 'no such luck' >&2; exit 3"]);
  await expect(failing).rejects.toThrow("sh failed: no such luck");
  await expect(runTool("sh", ["-c", "exit 3"])).rejects.toThrow("sh failed: exit 3");
  await expect(runTool("no-such-tool", [])).rejects.toThrow("no-such-tool could not be started");
});

test("a file whose end could not be written has failed, though ffmpeg exits with 0", async () => {
  const args = ["-v", "error", "-y", "-f", "lavfi", "-i", "color=s=64x64:r=5", "-frames:v", "2", "-f", "nut"];
  await expect(runTool("ffmpeg", [...args, "file:/dev/full"])).rejects.toMatchObject({ code: "ENOSPC" });
  await runTool("ffmpeg", [...args, "file:/dev/null"]);
});

test("what a tool said is told without addresses, paths and empty phrases", () => {
  const said = [
    "[mov,mp4,m4a,3gp,3g2,mj2 @ 0x55d01c] [fatal] moov atom not found",
    "    Last message repeated 2 times",
    "Conversion failed!",
  ];
  expect(lastWords(said.join("\n"))).toBe("moov atom not found");
  expect(lastWords("file:/somewhere/else/kite: one.mp4: Invalid data found when processing input\n")).not.toContain(
    "/",
  );
  expect(lastWords("Last message repeated 2 times")).toBe("");
});

test("a tool that was killed because somebody asked for it says so", async () => {
  const controller = new AbortController();
  const tool = startTool("sleep", ["30"], controller.signal);
  controller.abort();
  await expect(tool.done).rejects.toBeInstanceOf(CancelledError);
});

test("a tool that gets nowhere is stopped, and one that waits for us or works is not", async () => {
  const stuck = startTool("sleep", ["30"], undefined, { stallSeconds: 0.6 });
  stuck.stdin.end();
  await expect(stuck.done).rejects.toMatchObject({ code: "STALLED", message: "sleep got nowhere and was stopped" });
  const busy = startTool("sh", ["-c", "for i in 1 2 3 4 5 6; do sleep 0.25; echo $i; done"], undefined, {
    stallSeconds: 0.6,
  });
  busy.stdin.end();
  busy.stdout.resume();
  await busy.done;
  const waiting = startTool("cat", [], undefined, { stallSeconds: 0.3 });
  await new Promise((resolve) => setTimeout(resolve, 900));
  waiting.stdin.end("thanks");
  waiting.stdout.resume();
  await waiting.done;
});

/** Whether a process is there and not only waiting to be taken notice of. */
function isAlive(pid: number): boolean {
  try {
    return !/\) Z /.test(readFileSync(`/proc/${pid}/stat`, "utf8"));
  } catch {
    return false;
  }
}

test("a tool does not outlive the process that has started it", async () => {
  const code = `
    import { startTool } from "./app/media/tool.server.ts";
    const tool = startTool("sh", ["-c", "echo $$; exec sleep 77"]);
    tool.stdout.pipe(process.stdout);`;
  const args = ["--import", "tsx", "--input-type=module", "-e", code];
  const parent = spawn(process.execPath, args, { stdio: ["ignore", "pipe", "inherit"] });
  const said = await new Promise<Buffer>((resolve) => parent.stdout.once("data", resolve));
  const pid = Number(said.toString());
  expect(isAlive(pid)).toBe(true);
  parent.kill("SIGKILL");
  await new Promise((resolve) => parent.once("exit", resolve));
  for (let i = 0; i < 50 && isAlive(pid); i++) await new Promise((resolve) => setTimeout(resolve, 100));
  expect(isAlive(pid)).toBe(false);
});
