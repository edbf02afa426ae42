import js from "@eslint/js";
import reactHooks from "eslint-plugin-react-hooks";
import globals from "globals";
import tseslint from "typescript-eslint";

const ARROWS = "arrows go routes → jobs → library → pipelines → media → disk → core, library → queue → db";

/** The layers: each entry lists what the files of a layer must not import. */
const forbid = (files, groups, ignores = [], others = []) => ({
  files,
  ignores,
  rules: {
    "no-restricted-imports": [
      "error",
      { patterns: [...groups.map((group) => ({ group: [group], message: ARROWS })), ...others] },
    ],
  },
});

const PAGES = ["routes", "components"];
/** What each layer of the server must not know. */
const ABOVE = {
  jobs: PAGES,
  library: [...PAGES, "jobs"],
  queue: [...PAGES, "jobs", "library", "pipelines"],
  pipelines: [...PAGES, "jobs", "library", "queue", "db"],
  db: [...PAGES, "jobs", "library", "queue", "pipelines", "media"],
  media: [...PAGES, "jobs", "library", "queue", "pipelines", "db"],
  disk: [...PAGES, "jobs", "library", "queue", "pipelines", "db", "media"],
};

/** What pages reach by routes only. */
const SERVER = ["disk", "media", "db", "pipelines", "queue", "library", "jobs", "routes"];

/** A literal that is spread at once says nothing that its fields do not say. */
const SPREAD = {
  selector: "SpreadElement > ObjectExpression",
  message: "write the fields themselves, one to a line",
};

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
      "no-restricted-syntax": ["error", SPREAD],
      "max-lines": ["error", { max: 420, skipBlankLines: true, skipComments: true }],
    },
  },
  {
    files: ["app/components/**", "app/routes/**", "app/root.tsx"],
    plugins: { "react-hooks": reactHooks },
    rules: {
      ...reactHooks.configs.recommended.rules,
      "react-hooks/exhaustive-deps": "error",
      // A list that is drawn in part changes by itself; the compiler leaves those components as they are.
      "react-hooks/incompatible-library": "off",
    },
    languageOptions: { globals: { ...globals.browser } },
  },
  {
    files: ["app/components/**", "app/root.tsx"],
    rules: {
      "no-restricted-syntax": [
        "error",
        SPREAD,
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
  forbid(["app/core/**/*.ts"], ["~/**", "node:*", "react*", ...ABOVE.disk.map(up), up("disk")]),
  ...["disk", "media", "pipelines", "db", "queue", "library", "jobs"].map((name) =>
    // What the library queues is done in its tests as well.
    forbid([`app/${name}/**/*.ts`], [...ABOVE[name].map(layer), "react*"], ["app/library/**/*.test.ts"]),
  ),
  forbid(["app/components/**/*.{ts,tsx}", "app/workers/**/*.ts"], SERVER.map(layer)),
  ...[
    ["model", "(react|\\.\\./(hooks|frames|views)/)", "the desk's model knows nothing of React, nor of what shows it"],
    ["hooks", "\\.\\./views/", "views read hooks, and not the other way round"],
    ["frames", "\\.\\./views/", "views show frames, and not the other way round"],
    ["views/*", "\\.\\./(?!\\.\\./|fields/)", "one view knows no other; what several need is in fields"],
  ].map(([folder, regex, message]) =>
    forbid([`app/components/desk/${folder}/**`], SERVER.map(layer), [], [{ regex: `^${regex}`, message }]),
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
