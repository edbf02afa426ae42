import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

/**
 * Unit tests as mutants are tried on: in one process, with modules that are loaded once. Jest, which runs them otherwise,
 * begins anew for each file; six hundred mutants would take it a day.
 */
export default defineConfig({
  resolve: {
    tsconfigPaths: true,
    alias: { "@jest/globals": fileURLToPath(new URL("jest-globals.ts", import.meta.url)) },
  },
  test: {
    include: ["app/core/**/*.test.ts", "app/db/**/*.test.ts"],
    exclude: ["**/*.long.test.ts", "node_modules"],
    isolate: false,
    pool: "threads",
    maxWorkers: 1,
    testTimeout: 240_000,
  },
});
