declare module "fft.js" {
  /** Radix-4 complex FFT; arrays interleave real and imaginary parts. */
  export default class FFT {
    constructor(size: number);
    readonly size: number;
    createComplexArray(): number[];
    transform(output: number[], input: number[]): void;
    inverseTransform(output: number[], input: number[]): void;
  }
}
