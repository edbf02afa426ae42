/**
 * Keeps the runtime of the networks from collecting telemetry: its Linux library reads this variable from the process's
 * environment when it is loaded. A worker thread has only a copy of that environment, so the process's own thread sets it
 * before it starts one.
 */
import { isMainThread } from "node:worker_threads";

if (isMainThread) process.env.ORT_DISABLE_TELEMETRY = "1";
else if (process.env.ORT_DISABLE_TELEMETRY !== "1") {
  throw new Error("this thread was started without the setting that turns telemetry off; use startWorker");
}
