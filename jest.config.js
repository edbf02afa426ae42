// What is set within a test does not reach native libraries: see app/media/no-telemetry.server.ts.
process.env.ORT_DISABLE_TELEMETRY = "1";

/** Unit tests stand beside the code they test; browser tests (tests/e2e) are Playwright's. */
export default {
  testEnvironment: "<rootDir>/tests/jest-environment.js",
  // Native modules keep hold of the globals that the environment shares.
  testEnvironmentOptions: { globalsCleanup: "off" },
  // Tests are about results; how long they take depends on the machine.
  testTimeout: 240_000,
  // Left to itself, Jest keeps one core free: on two that is half of them, while tests wait for ffmpeg.
  maxWorkers: "100%",
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
  testMatch: ["<rootDir>/{app,bench,cli,server,models,demo,tests,tools}/**/*.test.{ts,tsx}"],
  testPathIgnorePatterns: ["/node_modules/", ...(process.env.GLAD_PAN_TESTS === "all" ? [] : ["[.]long[.]test[.]ts$"])],
  modulePathIgnorePatterns: ["<rootDir>/build", "<rootDir>/tools/models"],
};
