import * as ort from "onnxruntime-node";
import { projectPath } from "../project-path.server";

/** Loads one of the models that ship with the project. One thread each: two detectors then share two cores. */
export async function loadModel(name: string): Promise<ort.InferenceSession> {
  return ort.InferenceSession.create(projectPath(`models/${name}.onnx`), {
    intraOpNumThreads: 2,
    interOpNumThreads: 1,
    executionMode: "sequential",
    graphOptimizationLevel: "all",
    logSeverityLevel: 3,
  });
}

/** Runs a model with one input. */
export async function runModel(
  session: ort.InferenceSession,
  data: Float32Array,
  dims: readonly number[],
): Promise<Record<string, Float32Array>> {
  const results = await session.run({ [session.inputNames[0]!]: new ort.Tensor("float32", data, dims) });
  return Object.fromEntries(Object.entries(results).map(([name, tensor]) => [name, tensor.data as Float32Array]));
}
