import { defineConfig } from "@playwright/test";
import { EVERY_TEST } from "./tests/support/every-test";

/**
 * Tests of the production build: in Debian's Chromium (e2e), and with requests that no browser sends (hostile). Each file
 * starts servers of its own, most on a copy of a library that is prepared before.
 */
export default defineConfig({
  testDir: "tests",
  testIgnore: EVERY_TEST ? [] : ["**/*.long.spec.ts"],
  timeout: 900_000,
  // Long work is waited for where it is expected; everything else answers soon or never.
  expect: { timeout: 30_000 },
  workers: 1,
  // A shared machine can stall a browser for a while; what fails twice is broken.
  retries: 1,
  reporter: "list",
  outputDir: "test-results",
  projects: [
    { name: "prepare", testMatch: "e2e/*.setup.ts" },
    { name: "e2e", testMatch: "e2e/*.spec.ts", dependencies: ["prepare"] },
    { name: "hostile", testMatch: "hostile/*.spec.ts" },
  ],
  use: {
    // Without a GPU every picture of a trace costs as much as what is tested.
    trace: "on-first-retry",
    actionTimeout: 30_000,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM_PATH ?? "/usr/bin/chromium",
      args: [
        ...["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-sync"],
        ...["--disable-background-networking", "--disable-component-update"],
      ],
    },
  },
});
