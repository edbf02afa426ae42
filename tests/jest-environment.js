import { TestEnvironment } from "jest-environment-node";

/**
 * Jest gives each test file globals of its own, and a native module then does not know the file's typed arrays
 * for typed arrays. This environment shares them.
 */
export default class SharedArrays extends TestEnvironment {
  constructor(config, context) {
    super(config, context);
    Object.assign(this.global, { Float32Array, Float64Array, BigInt64Array, Int32Array, Uint8Array, ArrayBuffer });
  }
}
