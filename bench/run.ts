/** Converts the demo film and holds the result against its ground truth (`./glad-pan bench convert [--json OUT.json]`). */
import { spawnSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

const folder = mkdtempSync(join(tmpdir(), "glad-pan-bench-"));
const report = join(folder, "report.json");
const node = (...args: string[]) => {
  const { status } = spawnSync("node", ["--import", "tsx", ...args], { stdio: "inherit" });
  if (status !== 0) process.exit(status ?? 1);
};
try {
  const film = "demo/ferrow-kite-day.mp4";
  node("cli/glad-pan.ts", "convert", film, "--size", "1080x1920", "--out", join(folder, "out.mp4"), "--report", report);
  node("bench/containment.ts", report, ...process.argv.slice(2));
} finally {
  rmSync(folder, { recursive: true });
}
