/**
 * Converts the detectors that Glad Pan ships from TensorFlow.js graph models to ONNX, and writes beside
 * each the outputs that the original gives for a probe input, which `models/models.test.ts` compares.
 *
 *   npm install && npm run convert
 *
 * Shapes are static, so all shape arithmetic and every constant sub-expression is folded from the values
 * that the original computes. TensorFlow keeps images as NHWC, ONNX convolutions as NCHW; a transpose
 * stands on either side of such a node, and onnxruntime removes the pairs that cancel out.
 */
import { writeFileSync } from "node:fs";
import { fileURLToPath } from "node:url";
import { transpose } from "@tensorflow/tfjs-core";
import { dataInputs, type GraphNode, loadGraph, type LoadedGraph, tensorName } from "./graph-model";
import { type Attribute, OnnxGraph } from "./onnx-file";

const OUT = fileURLToPath(new URL("../../models/", import.meta.url));

const MODELS = [
  {
    file: "blazeface",
    input: [1, 256, 256, 3],
    /** Sides of the input that may have any length, a multiple of 32. */
    free: [1, 2],
    outputs: ["Identity", "Identity_1", "Identity_2", "Identity_3"],
    compact: false,
  },
  {
    file: "nanodet",
    input: [1, 3, 416, 416],
    free: [2, 3],
    outputs: ["Identity", "Identity_1", "Identity_2", "Identity_3", "Identity_4", "Identity_5"],
    compact: true,
  },
];

/** Operators that differ in name only. */
const SAME: Record<string, string> = {
  Add: "Add",
  AddV2: "Add",
  Relu: "Relu",
  Sigmoid: "Sigmoid",
  Identity: "Identity",
};

const text = (base64: string) => Buffer.from(base64, "base64").toString();
const intList = (attribute: any): number[] => attribute.list.i.map(Number);

/** A shape in which the longest side, the one that counts the places of a picture, follows from the rest. */
function freeShape(shape: readonly number[]): number[] {
  const longest = shape.indexOf(Math.max(...shape));
  return shape.map((length, i) => (i === longest ? -1 : length));
}

class Converter {
  private readonly folded = new Set<string>();
  readonly onnx: OnnxGraph;

  constructor(
    private readonly graph: LoadedGraph,
    compact: boolean,
  ) {
    this.onnx = new OnnxGraph(compact);
  }

  run(): void {
    for (const node of this.graph.nodes) {
      if (node.op !== "Placeholder" && !this.graph.isConstant(node.name)) this.convert(node);
    }
  }

  /** The ONNX name of a tensor; constants are written when first used. */
  private use(input: string): string {
    const name = tensorName(input);
    if (this.graph.isConstant(name) && !this.folded.has(name)) {
      this.folded.add(name);
      const tensor = this.graph.value(name);
      this.onnx.floats(tensor.dataSync(), tensor.shape, name);
    }
    return name;
  }

  private numbers(input: string): number[] {
    return Array.from(this.graph.value(input).dataSync());
  }

  private channelsFirst(input: string): string {
    return this.onnx.node("Transpose", [this.use(input)], { perm: [0, 3, 1, 2] });
  }

  private channelsLast(input: string, output: string): void {
    this.onnx.node("Transpose", [input], { perm: [0, 2, 3, 1] }, [output]);
  }

  private convert(node: GraphNode): void {
    const { onnx } = this;
    const attr = node.attr ?? {};
    const inputs = dataInputs(node);
    const output = node.name;
    switch (node.op) {
      case "Conv2D":
      case "_FusedConv2D":
      case "DepthwiseConv2dNative":
        return this.convolution(node, inputs, attr);
      case "MaxPool": {
        const [, strideY, strideX] = intList(attr.strides) as [number, number, number];
        const [, height, width] = intList(attr.ksize) as [number, number, number];
        const attributes: Record<string, Attribute> = { strides: [strideY, strideX], kernel_shape: [height, width] };
        if (text(attr.padding.s) === "SAME") attributes.auto_pad = "SAME_UPPER";
        return this.channelsLast(onnx.node("MaxPool", [this.channelsFirst(inputs[0]!)], attributes), output);
      }
      case "ResizeBilinear": {
        const [, height, width] = this.graph.value(output).shape as [number, number, number, number];
        const [, heightIn, widthIn] = this.graph.value(inputs[0]!).shape as [number, number, number, number];
        const mode = attr.half_pixel_centers?.b ? "half_pixel" : attr.align_corners?.b ? "align_corners" : "asymmetric";
        // Factors rather than sizes, so that the picture may have any size.
        const factors = onnx.floats([1, 1, height / heightIn, width / widthIn], [4]);
        const resized = onnx.node("Resize", [this.channelsFirst(inputs[0]!), "", factors], {
          mode: "linear",
          coordinate_transformation_mode: mode,
        });
        return this.channelsLast(resized, output);
      }
      case "LeakyRelu":
        onnx.node("LeakyRelu", [this.use(inputs[0]!)], { alpha: { float: attr.alpha.f } }, [output]);
        return;
      case "Pad":
      case "PadV2": {
        const pairs = this.numbers(inputs[1]!);
        const before = pairs.filter((_, i) => i % 2 === 0);
        const after = pairs.filter((_, i) => i % 2 === 1);
        const value = node.op === "PadV2" ? [onnx.floats(this.numbers(inputs[2]!), [])] : [];
        onnx.node("Pad", [this.use(inputs[0]!), onnx.ints([...before, ...after]), ...value], {}, [output]);
        return;
      }
      case "Reshape":
        onnx.node("Reshape", [this.use(inputs[0]!), onnx.ints(freeShape(this.graph.value(output).shape))], {}, [
          output,
        ]);
        return;
      case "Transpose":
        onnx.node("Transpose", [this.use(inputs[0]!)], { perm: this.numbers(inputs[1]!) }, [output]);
        return;
      case "ConcatV2": {
        const axis = this.numbers(inputs.at(-1)!)[0]!;
        onnx.node(
          "Concat",
          inputs.slice(0, -1).map((name) => this.use(name)),
          { axis },
          [output],
        );
        return;
      }
      case "SplitV": {
        const names = Array.from({ length: Number(attr.num_split.i) }, (_, k) => (k ? `${output}:${k}` : output));
        const sizes = onnx.ints(this.numbers(inputs[1]!));
        onnx.node("Split", [this.use(inputs[0]!), sizes], { axis: this.numbers(inputs[2]!)[0]! }, names);
        return;
      }
      default: {
        const op = SAME[node.op];
        if (!op) throw new Error(`no conversion for operator ${node.op} (node ${node.name})`);
        onnx.node(
          op,
          inputs.map((name) => this.use(name)),
          {},
          [output],
        );
      }
    }
  }

  private convolution(node: GraphNode, inputs: string[], attr: Record<string, any>): void {
    const { onnx } = this;
    const depthwise = node.op === "DepthwiseConv2dNative";
    const kernel = this.graph.value(inputs[1]!);
    const [height, width, channelsIn, channelsOut] = kernel.shape as [number, number, number, number];
    // HWIO to OIHW; a depthwise kernel has one input channel a group, and `channelsOut` is its multiplier.
    const ordered = transpose(kernel, depthwise ? [2, 3, 0, 1] : [3, 2, 0, 1]);
    const dims = depthwise ? [channelsIn * channelsOut, 1, height, width] : [channelsOut, channelsIn, height, width];
    const [, strideY, strideX] = intList(attr.strides) as [number, number, number];
    const attributes: Record<string, Attribute> = {
      strides: [strideY, strideX],
      kernel_shape: [height, width],
      group: depthwise ? channelsIn : 1,
    };
    if (text(attr.padding.s) === "SAME") attributes.auto_pad = "SAME_UPPER";
    const fused = (attr.fused_ops?.list?.s ?? []).map(text) as string[];
    const operands = [this.channelsFirst(inputs[0]!), onnx.kernel(ordered.dataSync(), dims)];
    if (fused[0] === "BiasAdd") {
      const bias = this.numbers(inputs[2]!);
      operands.push(onnx.floats(bias, [bias.length]));
      fused.shift();
    }
    let result = onnx.node("Conv", operands, attributes);
    const activation = fused.shift();
    if (activation === "Relu") result = onnx.node("Relu", [result]);
    else if (activation) throw new Error(`no conversion for fused activation ${activation} (node ${node.name})`);
    this.channelsLast(result, node.name);
  }
}

for (const model of MODELS) {
  const graph = await loadGraph(model.file, model.input, model.outputs);
  const converter = new Converter(graph, model.compact);
  converter.run();
  const free = new Set<number>(model.free);
  const names = ["height", "width"];
  const input = model.input.map((length, side) => (free.has(side) ? names.shift()! : length));
  const shapeOf = (name: string) => ({
    name,
    shape: freeShape(graph.value(name).shape).map((length) => (length < 0 ? `${name}_places` : length)),
  });
  const bytes = converter.onnx.encode(
    model.file,
    [{ name: graph.placeholder, shape: input }],
    model.outputs.map(shapeOf),
  );
  writeFileSync(`${OUT}${model.file}.onnx`, bytes);
  // Every 97th value is enough to notice a wrong weight or layout, and small enough to keep.
  const reference = Object.fromEntries(
    model.outputs.map((name) => [
      name,
      Array.from(graph.value(name).dataSync())
        .filter((_, i) => i % 97 === 0)
        .map((value) => Number(value.toPrecision(7))),
    ]),
  );
  writeFileSync(
    `${OUT}${model.file}.reference.json`,
    `${JSON.stringify({ input: model.input, stride: 97, outputs: reference })}\n`,
  );
  console.log(`${model.file}.onnx  ${(bytes.length / 1e6).toFixed(2)} MB`);
}
