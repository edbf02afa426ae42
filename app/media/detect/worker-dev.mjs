/** Entry of the detectors' thread where TypeScript is not built: loads it, then the real entry. */
import { register } from "tsx/esm/api";

register();
await import("./detect-worker.ts");
