/**
 * Compiles the inner loops that are written in AssemblyScript.
 *
 *   npm run build:kernels
 */
import { readFileSync, writeFileSync } from "node:fs";
import { basename, dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import asc from "assemblyscript/asc";

const OPTIONS = ["--runtime", "stub", "--noAssert", "-O3", "--enable", "simd"];

interface Kernel {
  source: string;
  target: string;
  options: string[];
  /** How the compiled code is kept. */
  kept: (code: Uint8Array) => Buffer;
}

/** A module of numbers: what the core is made of reads no files. */
const asModule = (code: Uint8Array) =>
  Buffer.from(
    `// Compiled from kernel.as.ts (npm run build:kernels).\nexport const KERNEL_CODE = Uint8Array.of(${code.join(",")});\n`,
  );

const KERNELS: Kernel[] = [
  {
    source: "app/media/resample/kernel.as.ts",
    target: "app/media/resample/kernel.wasm",
    options: ["--importMemory"],
    kept: (code) => Buffer.from(code),
  },
  { source: "app/core/kernel/kernel.as.ts", target: "app/core/kernel/kernel-code.ts", options: [], kept: asModule },
];

async function compile({ source, options }: Kernel): Promise<Uint8Array> {
  const folder = dirname(source);
  let code: Uint8Array | undefined;
  const { error, stderr } = await asc.main([basename(source), "--outFile", "kernel.wasm", ...OPTIONS, ...options], {
    readFile: (name) => {
      try {
        return readFileSync(join(folder, name), "utf8");
      } catch {
        // The compiler asks for a file in every place in which it could be.
        return null;
      }
    },
    writeFile: (_name, contents) => void (code = contents as Uint8Array),
    listFiles: () => [],
  });
  if (error || !code) throw new Error(`${source}: ${stderr.toString()}`);
  return code;
}

/** What ships of each kernel, as its source has it; paths are from the project's folder, where this has to be run. */
export const builtKernels = (): Promise<{ target: string; contents: Buffer }[]> =>
  Promise.all(KERNELS.map(async (kernel) => ({ target: kernel.target, contents: kernel.kept(await compile(kernel)) })));

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  for (const { target, contents } of await builtKernels()) writeFileSync(target, contents);
}
