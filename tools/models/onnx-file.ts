/**
 * Writes ONNX files: the few messages of the ONNX protobuf schema (onnx.proto, IR version 8) that a
 * network needs, and helpers that build them. Reads the constants of a file, to build another from.
 */
import protobuf from "protobufjs";

const SCHEMA = `
syntax = "proto3";
message AttributeProto { string name = 1; float f = 2; int64 i = 3; bytes s = 4; TensorProto t = 5; GraphProto g = 6; repeated int64 ints = 8 [packed = false]; int32 type = 20; }
message NodeProto { repeated string input = 1; repeated string output = 2; string name = 3; string op_type = 4; repeated AttributeProto attribute = 5; }
message TensorProto { repeated int64 dims = 1 [packed = false]; int32 data_type = 2; string name = 8; bytes raw_data = 9; }
message Dimension { int64 dim_value = 1; string dim_param = 2; }
message TensorShapeProto { repeated Dimension dim = 1; }
message TypeTensor { int32 elem_type = 1; TensorShapeProto shape = 2; }
message TypeProto { TypeTensor tensor_type = 1; }
message ValueInfoProto { string name = 1; TypeProto type = 2; }
message GraphProto { repeated NodeProto node = 1; string name = 2; repeated TensorProto initializer = 5; repeated ValueInfoProto input = 11; repeated ValueInfoProto output = 12; }
message OperatorSetIdProto { string domain = 1; int64 version = 2; }
message ModelProto { int64 ir_version = 1; string producer_name = 2; GraphProto graph = 7; repeated OperatorSetIdProto opset_import = 8; }
`;
const ModelProto = protobuf.parse(SCHEMA, { keepCase: true }).root.lookupType("ModelProto");

/** Values of TensorProto.DataType. */
export const DATA_TYPE = { float32: 1, int8: 3, int64: 7 } as const;
/** Values of AttributeProto.AttributeType. */
const ATTRIBUTE_TYPE = { float: 1, int: 2, string: 3, ints: 7 } as const;

export type Attribute = string | number | number[] | { float: number };
export interface Tensor {
  name: string;
  dims: number[];
  dataType: number;
  raw: Uint8Array;
}
interface Node {
  input: string[];
  output: string[];
  name: string;
  op_type: string;
  attribute: object[];
}
export interface ValueInfo {
  name: string;
  /** Lengths of the sides; a name where any will do. */
  shape: (number | string)[];
}

function attribute(name: string, value: Attribute): object {
  if (typeof value === "string") return { name, s: Buffer.from(value), type: ATTRIBUTE_TYPE.string };
  if (Array.isArray(value)) return { name, ints: value, type: ATTRIBUTE_TYPE.ints };
  if (typeof value === "object") return { name, f: value.float, type: ATTRIBUTE_TYPE.float };
  return { name, i: value, type: ATTRIBUTE_TYPE.int };
}

const valueInfo = ({ name, shape }: ValueInfo) => ({
  name,
  type: {
    tensor_type: {
      elem_type: DATA_TYPE.float32,
      shape: { dim: shape.map((size) => (typeof size === "string" ? { dim_param: size } : { dim_value: size })) },
    },
  },
});

/**
 * Symmetric 8-bit quantisation with one scale for each output channel (the first dimension): weights are
 * integers in [-127, 127] times the scale, so none is off by more than half a step of its own channel.
 */
export function quantise(values: ArrayLike<number>, channels: number): { integers: Int8Array; scales: number[] } {
  const size = values.length / channels;
  const integers = new Int8Array(values.length);
  const scales = Array.from({ length: channels }, (_, channel) => {
    let largest = 0;
    for (let i = 0; i < size; i++) largest = Math.max(largest, Math.abs(values[channel * size + i]!));
    const scale = largest / 127 || 1;
    for (let i = 0; i < size; i++) integers[channel * size + i] = Math.round(values[channel * size + i]! / scale);
    return scale;
  });
  return { integers, scales };
}

export interface Constant {
  dims: number[];
  values: Float32Array;
}

/** The 32-bit constants of an ONNX file, also of the graphs within its graph, by the names that they are used by. */
export function readConstants(file: Uint8Array): Map<string, Constant> {
  const { graph } = ModelProto.toObject(ModelProto.decode(file), { longs: Number, arrays: true });
  const constants = new Map<string, Constant>();
  const visit = ({ node: nodes }: { node: any[] }) => {
    for (const { op_type: op, output, attribute: attributes } of nodes) {
      for (const { t: tensor, g: inner } of attributes) {
        if (inner) visit(inner);
        if (op !== "Constant" || tensor?.data_type !== DATA_TYPE.float32) continue;
        const values = new Float32Array(Uint8Array.from(tensor.raw_data as Uint8Array).buffer);
        constants.set(output[0], { dims: tensor.dims, values });
      }
    }
  };
  visit(graph);
  return constants;
}

/** Collects nodes and constants in order and encodes them as one ONNX model. */
export class OnnxGraph {
  private readonly nodes: Node[] = [];
  private readonly tensors: Tensor[] = [];
  private serial = 0;

  /** `compact` stores convolution kernels in 8 bits a weight; onnxruntime unfolds them once, at load. */
  constructor(private readonly compact: boolean) {}

  fresh(): string {
    return `v${this.serial++}`;
  }

  /** Adds a node and returns the name of its first output. */
  node(op: string, input: string[], attributes: Record<string, Attribute> = {}, output = [this.fresh()]): string {
    this.nodes.push({
      input,
      output,
      name: `${op}_${this.serial++}`,
      op_type: op,
      attribute: Object.entries(attributes).map(([name, value]) => attribute(name, value)),
    });
    return output[0]!;
  }

  floats(values: ArrayLike<number>, dims: number[], name = this.fresh()): string {
    const raw = new Uint8Array(Float32Array.from(Array.from(values)).buffer);
    this.tensors.push({ name, dims, dataType: DATA_TYPE.float32, raw });
    return name;
  }

  /** A convolution kernel, dims [outputs, inputs, height, width]. */
  kernel(values: ArrayLike<number>, dims: number[]): string {
    if (!this.compact) return this.floats(values, dims);
    const { integers, scales } = quantise(values, dims[0]!);
    const stored = this.fresh();
    this.tensors.push({ name: stored, dims, dataType: DATA_TYPE.int8, raw: new Uint8Array(integers.buffer) });
    const cast = this.node("Cast", [stored], { to: DATA_TYPE.float32 });
    return this.node("Mul", [cast, this.floats(scales, [scales.length, 1, 1, 1])]);
  }

  ints(values: number[], dims = [values.length]): string {
    const name = this.fresh();
    const raw = new Uint8Array(BigInt64Array.from(values.map(BigInt)).buffer);
    this.tensors.push({ name, dims, dataType: DATA_TYPE.int64, raw });
    return name;
  }

  encode(name: string, inputs: ValueInfo[], outputs: ValueInfo[]): Uint8Array {
    const initializer = this.tensors.map(({ name, dims, dataType, raw }) => ({
      name,
      dims,
      data_type: dataType,
      raw_data: raw,
    }));
    return ModelProto.encode({
      ir_version: 8,
      producer_name: "glad-pan",
      graph: { node: this.nodes, name, initializer, input: inputs.map(valueInfo), output: outputs.map(valueInfo) },
      opset_import: [{ domain: "", version: 13 }],
    }).finish();
  }
}
