import { defineConfig } from "@playwright/test";

export default defineConfig({
  testDir: "e2e",
  workers: 2,
  fullyParallel: false,
  // Limits are those of a machine five times slower than the slowest that was seen.
  timeout: 900_000,
  projects: [
    { name: "journeys", testIgnore: /survival/ },
    // What kills the program and the database has the machine to itself: npm test runs it by itself, whatever became of
    // the journeys.
    { name: "survival", testMatch: /survival/, workers: 1 },
  ],
  expect: { timeout: 60_000 },
  reporter: [["list"], ["json", { outputFile: process.env.E2E_REPORT ?? "test-results/e2e.json" }]],
  use: {
    viewport: { width: 1280, height: 800 },
    // A control that never comes fails its test after this long, rather than after the whole limit of the test.
    actionTimeout: 120_000,
    // A trace costs a fifth of the time of every journey. E2E_TRACE=1 keeps one of each that fails.
    trace: process.env.E2E_TRACE ? "retain-on-failure" : "off",
    screenshot: "only-on-failure",
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
});
