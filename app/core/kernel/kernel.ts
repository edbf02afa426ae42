/**
 * Inner loops compiled to WebAssembly, since analyses spend most of their time in them, and the memory that they work in.
 * They are written in the files `*.as.ts` beside this one.
 */
import { KERNEL_CODE } from "./kernel-code";

interface Memory {
  readonly buffer: ArrayBuffer;
  grow(pages: number): number;
}

/** The exports of `kernel.as.ts`, which documents each; addresses are in bytes. */
type Loops = { memory: Memory } & Record<
  | "heapStart"
  | "toFloats"
  | "followPoints"
  | "findCorners"
  | "shiftedDifference"
  | "findEdges"
  | "keepCommonEdges"
  | "seeLines"
  | "countLines"
  | "differencesFrom"
  | "moveCells"
  | "halve"
  | "writeColours"
  | "segmentMeans"
  | "shiftedProducts"
  | "tallyLuma"
  | "tallyChroma",
  (...args: number[]) => number
>;

/** The part of the WebAssembly interface that is used; it exists wherever the core runs. */
interface WebAssembly {
  Module: new (code: Uint8Array) => object;
  Instance: new (module: object) => { exports: unknown };
}

let compiled: Loops | undefined;

/** The loops, compiled at first use: most importers of other parts of the core never need them. */
export function loops(): Loops {
  if (!compiled) {
    const { Module, Instance } = (globalThis as unknown as { WebAssembly: WebAssembly }).WebAssembly;
    compiled = new Instance(new Module(KERNEL_CODE)).exports as Loops;
  }
  return compiled;
}

const PAGE = 65536;
/** Bytes that loops may read and write beyond the end of a buffer, and alignment of buffers. */
const SPARE = 64;
const aligned = (bytes: number) => (bytes + SPARE - 1) & ~(SPARE - 1);

/** The kernel's memory, for one use after another: each use discards what the one before put there. */
export class KernelMemory {
  private next = aligned(loops().heapStart());

  /** Reserves some bytes. This may detach arrays that these methods returned before. */
  take(bytes: number): number {
    const at = this.next;
    this.next = aligned(at + bytes + SPARE);
    const missing = this.next - loops().memory.buffer.byteLength;
    if (missing > 0) loops().memory.grow(Math.ceil(missing / PAGE));
    return at;
  }

  /** Reserves memory and copies these values into it. */
  put({ buffer, byteOffset, byteLength }: Uint8Array | Int16Array | Int32Array): number {
    const at = this.take(byteLength);
    this.bytes(at, byteLength).set(new Uint8Array(buffer, byteOffset, byteLength));
    return at;
  }

  bytes(at: number, count: number): Uint8Array<ArrayBuffer> {
    return new Uint8Array(loops().memory.buffer, at, count);
  }

  shorts(at: number, count: number): Int16Array<ArrayBuffer> {
    return new Int16Array(loops().memory.buffer, at, count);
  }

  ints(at: number, count: number): Int32Array<ArrayBuffer> {
    return new Int32Array(loops().memory.buffer, at, count);
  }

  floats(at: number, count: number): Float32Array<ArrayBuffer> {
    return new Float32Array(loops().memory.buffer, at, count);
  }
}
