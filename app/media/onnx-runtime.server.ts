/** The runtime of the networks. It is loaded here and nowhere else, so that it never is with its telemetry. */
import "./no-telemetry.server";
import { createRequire } from "node:module";
import type * as Ort from "onnxruntime-node";

// A bundler would move an import above everything else.
export const ort = createRequire(import.meta.url)("onnxruntime-node") as typeof Ort;
export type { Ort };
