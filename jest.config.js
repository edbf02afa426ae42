/** Unit tests stand beside the code they test; browser tests (tests/e2e) are Playwright's. */
export default {
  testEnvironment: "<rootDir>/tests/jest-environment.js",
  extensionsToTreatAsEsm: [".ts", ".tsx"],
  transform: {
    "^.+\\.tsx?$": [
      "<rootDir>/tests/jest-transform.js",
      {
        jsc: {
          parser: { syntax: "typescript", tsx: true },
          target: "es2022",
          transform: { react: { runtime: "automatic" } },
        },
        module: { type: "es6" },
      },
    ],
  },
  moduleNameMapper: { "^~/(.*)$": "<rootDir>/app/$1" },
  testMatch: ["<rootDir>/{app,cli,server,models,demo,tools}/**/*.test.{ts,tsx}"],
  modulePathIgnorePatterns: ["<rootDir>/build", "<rootDir>/tools/models"],
};
