import js from "@eslint/js";
import reactHooks from "eslint-plugin-react-hooks";
import globals from "globals";
import tseslint from "typescript-eslint";

/**
 * The layers: arrows go routes → jobs → pipelines → media → disk → core, and jobs → db. Each entry lists what the
 * files of a layer must not import.
 */
const forbid = (files, patterns) => ({
  files,
  rules: {
    "no-restricted-imports": [
      "error",
      {
        patterns: patterns.map((group) => ({
          group: [group],
          message: "arrows go routes → jobs → pipelines → media → disk → core, and jobs → db",
        })),
      },
    ],
  },
});

const layer = (name) => `~/${name}/**`;
const up = (name) => `**/${name}/**`;

export default tseslint.config(
  {
    ignores: [
      "build/",
      ".react-router/",
      "node_modules/",
      "tools/models/",
      "data/",
      "test-data/",
      "**/*.as.ts",
      "app/core/kernel/kernel-code.ts",
    ],
  },
  js.configs.recommended,
  tseslint.configs.recommended,
  {
    languageOptions: { globals: { ...globals.node } },
    rules: {
      "@typescript-eslint/no-non-null-assertion": "off",
      // Taking some fields off a value names them.
      "@typescript-eslint/no-unused-vars": ["error", { ignoreRestSiblings: true }],
      "@typescript-eslint/consistent-type-imports": ["error", { fixStyle: "inline-type-imports" }],
      "max-lines": ["error", { max: 420, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ["app/components/**", "app/routes/**", "app/root.tsx"],
    plugins: { "react-hooks": reactHooks },
    // The other rules of the plugin are for the React Compiler, which this project does not use.
    rules: { "react-hooks/rules-of-hooks": "error", "react-hooks/exhaustive-deps": "error" },
    languageOptions: { globals: { ...globals.browser } },
  },
  {
    files: ["app/components/**", "app/root.tsx"],
    rules: {
      "no-restricted-syntax": [
        "error",
        { selector: "JSXText[value=/[A-Za-z]/]", message: "texts stand in app/texts" },
        {
          selector:
            "JSXAttribute[name.name=/^(label|title|aria-label|placeholder|hint|text|alt)$/] > Literal[value=/[A-Za-z]/]",
          message: "texts stand in app/texts",
        },
      ],
    },
  },
  {
    files: ["app/texts/**"],
    rules: {
      "no-restricted-imports": ["error", { patterns: [{ group: ["~/**", "../**"], message: "texts need nothing" }] }],
    },
  },
  forbid(
    ["app/core/**/*.ts"],
    [
      "~/**",
      "node:*",
      "react*",
      up("disk"),
      up("media"),
      up("db"),
      up("pipelines"),
      up("jobs"),
      up("components"),
      up("routes"),
    ],
  ),
  forbid(
    ["app/disk/**/*.ts"],
    [layer("media"), layer("db"), layer("pipelines"), layer("jobs"), layer("routes"), layer("components"), "react*"],
  ),
  forbid(
    ["app/media/**/*.ts"],
    [layer("db"), layer("pipelines"), layer("jobs"), layer("routes"), layer("components"), "react*"],
  ),
  forbid(["app/pipelines/**/*.ts"], [layer("db"), layer("jobs"), layer("routes"), layer("components"), "react*"]),
  forbid(
    ["app/db/**/*.ts"],
    [layer("media"), layer("pipelines"), layer("jobs"), layer("routes"), layer("components"), "react*"],
  ),
  forbid(["app/jobs/**/*.ts"], [layer("routes"), layer("components"), "react*"]),
  forbid(
    ["app/components/**/*.{ts,tsx}", "app/workers/**/*.ts"],
    [layer("disk"), layer("media"), layer("db"), layer("pipelines"), layer("jobs"), layer("routes")],
  ),
  {
    files: ["**/*.ts", "**/*.tsx"],
    ignores: ["app/media/onnx-runtime.server.ts"],
    rules: {
      // The rule of the same name without a prefix is that of the layers.
      "@typescript-eslint/no-restricted-imports": [
        "error",
        {
          paths: [{ name: "onnxruntime-node", message: "~/media/onnx-runtime.server loads it without its telemetry" }],
        },
      ],
    },
  },
  forbid(["cli/**/*.ts"], [layer("routes"), layer("components"), layer("db")]),
);
