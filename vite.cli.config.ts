import { defineConfig } from "vite";

/** The command line as a few files: loaded one by one as they are written, its modules take seconds before anything happens. */
export default defineConfig({
  resolve: { tsconfigPaths: true },
  define: { "import.meta.env.BUILD_FOLDER": JSON.stringify("build/cli") },
  publicDir: false,
  build: {
    ssr: true,
    outDir: "build/cli",
    target: "node20",
    rollupOptions: {
      input: { "glad-pan": "./cli/glad-pan.ts", "detect-worker": "./app/media/detect/detect-worker.ts" },
    },
  },
});
