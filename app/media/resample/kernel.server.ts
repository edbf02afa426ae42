/** The kernel, and the memory that it works in. */
import { readFileSync } from "node:fs";
import type { Size } from "~/core/geometry/box";
import { type BitDepth, bytesPerSample, levelsPerStep, type Samples, samplesOf } from "~/core/image/bit-depth";
import { projectPath } from "~/disk/project-path.server";
import type { Plane } from "./backdrop";

/** One of the three planes of a picture in the kernel's memory. */
export interface PlaneAt {
  at: number;
  size: Size;
}

type Exports = Record<"resample8" | "resample10" | "blend8" | "blend10", (job: number) => void>;

/** 32-bit numbers of the kernel's longest job. */
const JOB_LENGTH = 16;

/** Bytes that the kernel may read beyond the end of a buffer. */
const SPARE = 64;
const align = (bytes: number) => (bytes + 63) & ~63;

/** Allocates buffers, one after another. */
export class Layout {
  /** Bytes allocated. */
  bytes = 1024;
  /** Address of the kernel's job. */
  readonly job = this.take(4 * JOB_LENGTH);

  constructor(readonly depth: BitDepth) {}

  take(bytes: number): number {
    const at = this.bytes;
    this.bytes = align(at + bytes + SPARE);
    return at;
  }

  /** The planes of a 4:2:0 picture, which follow one another. */
  takePlanes({ width, height }: Size): PlaneAt[] {
    const chroma = { width: Math.ceil(width / 2), height: Math.ceil(height / 2) };
    const sizes = [{ width, height }, chroma, chroma];
    const bytesOf = (size: Size) => size.width * size.height * bytesPerSample(this.depth);
    let at = this.take(sizes.reduce((sum, size) => sum + bytesOf(size), 0));
    return sizes.map((size) => {
      const plane = { at, size };
      at += bytesOf(size);
      return plane;
    });
  }
}

/** The kernel with as much memory as a layout needs. */
export class Kernel {
  readonly buffer: ArrayBuffer;
  private readonly exports: Exports;
  private readonly job: Int32Array;

  constructor(private readonly layout: Layout) {
    const memory = new WebAssembly.Memory({ initial: Math.ceil(layout.bytes / 65536) });
    const code = readFileSync(projectPath("app/media/resample/kernel.wasm"));
    const instance = new WebAssembly.Instance(new WebAssembly.Module(code), { env: { memory } });
    this.buffer = memory.buffer;
    this.exports = instance.exports as unknown as Exports;
    this.job = new Int32Array(this.buffer, layout.job, JOB_LENGTH);
  }

  /** @param job the fields of its `Resampling`, in their order */
  resample(...job: number[]): void {
    this.job.set(job);
    this.exports[`resample${this.layout.depth}`](this.layout.job);
  }

  /** @param job the fields of its `Blending`, in their order */
  blend(...job: number[]): void {
    this.job.set(job);
    this.exports[`blend${this.layout.depth}`](this.layout.job);
  }

  bytes(at: number, count: number): Uint8Array {
    return new Uint8Array(this.buffer, at, count);
  }

  samples(at: number, count: number): Samples {
    const { depth } = this.layout;
    return samplesOf(this.bytes(at, count * bytesPerSample(depth)), depth);
  }

  /** The bytes of all planes of a picture. */
  picture(planes: readonly PlaneAt[]): Uint8Array {
    const count = planes.reduce((sum, { size }) => sum + size.width * size.height, 0);
    return this.bytes(planes[0]!.at, count * bytesPerSample(this.layout.depth));
  }

  /** The samples of each plane of a picture. */
  planes(planes: readonly PlaneAt[]): Plane[] {
    const step = levelsPerStep(this.layout.depth);
    return planes.map(({ at, size }) => ({ size, samples: this.samples(at, size.width * size.height), step }));
  }
}
