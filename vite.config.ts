import { reactRouter } from "@react-router/dev/vite";
import tailwindcss from "@tailwindcss/vite";
import { defineConfig, type Plugin } from "vite";
import babel from "vite-plugin-babel";

/** React Router names every server entry "index.js"; entries keep their names, so that the worker is found. */
const serverEntryNames: Plugin = {
  name: "server-entry-names",
  enforce: "post",
  configEnvironment(name) {
    if (name === "ssr") return { build: { rollupOptions: { output: { entryFileNames: "[name].js" } } } };
  },
};

/** React's compiler: what a component is made of stays as it is while nothing that it depends on has changed. */
const reactCompiler = babel({
  include: /app\/components\/.*\.tsx?$/,
  babelConfig: { presets: ["@babel/preset-typescript"], plugins: ["babel-plugin-react-compiler"] },
});

export default defineConfig({
  plugins: [reactCompiler, tailwindcss(), reactRouter(), serverEntryNames],
  resolve: { tsconfigPaths: true },
  define: { "import.meta.env.BUILD_FOLDER": JSON.stringify("build/server") },
  server: { host: "127.0.0.1" },
  worker: { format: "es" },
  environments: {
    ssr: {
      build: {
        rollupOptions: {
          input: {
            index: "./server/app.ts",
            "job-worker": "./app/jobs/worker.ts",
            "detect-worker": "./app/media/detect/detect-worker.ts",
            apart: "./app/media/apart/child.ts",
            "version-files": "./app/library/versions/version-files-worker.ts",
          },
        },
      },
    },
  },
});
