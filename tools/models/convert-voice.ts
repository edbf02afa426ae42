/**
 * Makes the voice detector that Glad Pan ships from the published one, and writes beside it what the original says of a
 * probe, which `models/models.test.ts` compares.
 *
 * The published network (Silero VAD v5) judges one piece of sound at a time and finds out with each which of its branches
 * to take. This one is its branch for 16 kHz, with the same weights, for any number of pieces that follow each other:
 * what does not depend on the piece before is computed for all of them at once, and only the recurrent layer goes through
 * them in order.
 */
import { readFileSync, writeFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { ort } from "../../app/media/onnx-runtime.server";
import { probeVoice } from "../../models/probe";
import { OnnxGraph, readConstants } from "./onnx-file";

const OUT = fileURLToPath(new URL("../../models/", import.meta.url));
const PUBLISHED = fileURLToPath(new URL("node_modules/@ricky0123/vad-web/dist/silero_vad_v5.onnx", import.meta.url));
const BRANCH = "If_0_then_branch__Inline_0__";
/** Samples of a piece and of what the network sees again before it; values of the recurrent layer's state. */
const SAMPLES = 512 + 64;
const STATE = 128;
/** Samples that the spectrum's last window lacks, which are reflected. */
const REFLECTED = 64;
/** Frequencies of the spectrum, and samples from one of its windows to the next. */
const FREQUENCIES = 129;
const HOP = 128;
/** Steps of the encoder's convolutions. */
const STRIDES = [1, 2, 2, 1];
const PROBE_PIECES = 40;

const published = readFileSync(PUBLISHED);
const constants = readConstants(published);
const graph = new OnnxGraph(false);

function weights(name: string, dims?: number[], order = (values: Float32Array) => values): string {
  const { dims: own, values } = constants.get(BRANCH + name)!;
  return graph.floats(order(values), dims ?? own);
}

/** Gates in ONNX's order (in, out, forget, cell), not PyTorch's (in, forget, cell, out). */
function gates(values: Float32Array): Float32Array {
  const quarter = values.length / 4;
  const gate = (n: number) => values.subarray(n * quarter, (n + 1) * quarter);
  return Float32Array.from([0, 3, 1, 2].flatMap((n) => Array.from(gate(n))));
}

const squared = (name: string) => graph.node("Mul", [name, name]);

const padded = graph.node("Pad", ["input", graph.ints([0, 0, 0, 0, 0, REFLECTED])], { mode: "reflect" });
const spectrum = graph.node("Conv", [padded, weights("stft.forward_basis_buffer")], { strides: [HOP] });
const parts = [graph.fresh(), graph.fresh()];
graph.node("Split", [spectrum, graph.ints([FREQUENCIES, FREQUENCIES])], { axis: 1 }, parts);
let seen = graph.node("Sqrt", [graph.node("Add", parts.map(squared))]);
for (const [n, stride] of STRIDES.entries()) {
  const layer = `encoder.${n}.reparam_conv`;
  const operands = [seen, weights(`${layer}.weight`), weights(`${layer}.bias`)];
  seen = graph.node("Relu", [graph.node("Conv", operands, { strides: [stride], pads: [1, 1] })]);
}
// From here on the pieces are a sequence.
const sequence = graph.node("Reshape", [seen, graph.ints([-1, 1, STATE])]);
const biases = ["decoder.rnn.bias_ih", "decoder.rnn.bias_hh"].map((name) =>
  gates(constants.get(BRANCH + name)!.values),
);
const remembered = graph.fresh();
graph.node(
  "LSTM",
  [
    sequence,
    weights("decoder.rnn.weight_ih", [1, 4 * STATE, STATE], gates),
    weights("decoder.rnn.weight_hh", [1, 4 * STATE, STATE], gates),
    graph.floats(
      biases.flatMap((values) => Array.from(values)),
      [1, 8 * STATE],
    ),
    "",
    "hidden",
    "cell",
  ],
  { hidden_size: STATE },
  [remembered, "hiddenN", "cellN"],
);
const columns = graph.node("Reshape", [remembered, graph.ints([-1, STATE, 1])]);
const decoder = [graph.node("Relu", [columns]), weights("decoder.decoder.2.weight"), weights("decoder.decoder.2.bias")];
const speech = graph.node("Sigmoid", [graph.node("Conv", decoder)]);
graph.node("Reshape", [speech, graph.ints([-1])], {}, ["output"]);

const state = [1, 1, STATE];
const bytes = graph.encode(
  "silero-vad",
  [
    { name: "input", shape: ["pieces", 1, SAMPLES] },
    { name: "hidden", shape: state },
    { name: "cell", shape: state },
  ],
  [
    { name: "output", shape: ["pieces"] },
    { name: "hiddenN", shape: state },
    { name: "cellN", shape: state },
  ],
);
writeFileSync(`${OUT}silero-vad.onnx`, bytes);

const original = await ort.InferenceSession.create(published);
const rate = new ort.Tensor("int64", BigInt64Array.from([16000n]), []);
const probe = probeVoice(PROBE_PIECES * SAMPLES);
const said: number[] = [];
let before = new ort.Tensor("float32", new Float32Array(2 * STATE), [2, 1, STATE]);
for (let n = 0; n < PROBE_PIECES; n++) {
  const piece = new ort.Tensor("float32", probe.slice(n * SAMPLES, (n + 1) * SAMPLES), [1, SAMPLES]);
  const { output, stateN } = await original.run({ input: piece, state: before, sr: rate });
  said.push(Number((output!.data[0] as number).toPrecision(7)));
  before = stateN as ort.TypedTensor<"float32">;
}
writeFileSync(
  `${OUT}silero-vad.reference.json`,
  `${JSON.stringify({ input: [PROBE_PIECES, 1, SAMPLES], stride: 1, outputs: { output: said } })}\n`,
);
console.log(`silero-vad.onnx  ${(bytes.length / 1e6).toFixed(2)} MB`);
