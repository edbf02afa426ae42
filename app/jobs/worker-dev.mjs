/** Entry of a worker thread in development: loads TypeScript, then the real entry. */
import { register } from "tsx/esm/api";

register();
await import("./worker.ts");
