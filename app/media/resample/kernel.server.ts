/** The kernel, and the memory that it works in. */
import { readFileSync } from "node:fs";
import type { Size } from "~/core/geometry/box";
import { projectPath } from "../project-path.server";
import type { Plane } from "./backdrop";

/** One of the three planes of a picture in the kernel's memory. */
export interface PlaneAt {
  at: number;
  size: Size;
}

interface Exports {
  resamplePlane(...args: number[]): void;
  blendPlane(...args: number[]): void;
}

/** Bytes that the kernel may read beyond the end of a buffer. */
const SPARE = 64;
const align = (bytes: number) => (bytes + 63) & ~63;

/** Finds places for buffers, one after another. */
export class Layout {
  /** Bytes that are taken. */
  bytes = 1024;

  take(bytes: number): number {
    const at = this.bytes;
    this.bytes = align(at + bytes + SPARE);
    return at;
  }

  /** The planes of a 4:2:0 picture, which follow one another. */
  takePlanes({ width, height }: Size): PlaneAt[] {
    const chroma = { width: Math.ceil(width / 2), height: Math.ceil(height / 2) };
    const sizes = [{ width, height }, chroma, chroma];
    let at = this.take(sizes.reduce((sum, size) => sum + size.width * size.height, 0));
    return sizes.map((size) => {
      const plane = { at, size };
      at += size.width * size.height;
      return plane;
    });
  }
}

/** The kernel with as much memory as a layout takes. */
export class Kernel {
  readonly buffer: ArrayBuffer;
  readonly run: Exports;

  constructor({ bytes }: Layout) {
    const memory = new WebAssembly.Memory({ initial: Math.ceil(bytes / 65536) });
    const code = readFileSync(projectPath("app/media/resample/kernel.wasm"));
    const instance = new WebAssembly.Instance(new WebAssembly.Module(code), { env: { memory } });
    this.buffer = memory.buffer;
    this.run = instance.exports as unknown as Exports;
  }

  samples(at: number, count: number): Uint8Array {
    return new Uint8Array(this.buffer, at, count);
  }

  /** The samples of all planes of a picture. */
  picture(planes: readonly PlaneAt[]): Uint8Array {
    const count = planes.reduce((sum, { size }) => sum + size.width * size.height, 0);
    return this.samples(planes[0]!.at, count);
  }

  /** The samples of each plane of a picture. */
  planes(planes: readonly PlaneAt[]): Plane[] {
    return planes.map(({ at, size }) => ({ size, samples: this.samples(at, size.width * size.height) }));
  }
}
