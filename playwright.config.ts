import { defineConfig } from "@playwright/test";

export default defineConfig({
  testDir: "e2e",
  workers: 2,
  fullyParallel: false,
  timeout: 480_000,
  projects: [
    { name: "journeys", testIgnore: /survival/ },
    // What ends and starts the program against the clock has the machine to itself.
    { name: "survival", testMatch: /survival/, dependencies: ["journeys"] },
  ],
  expect: { timeout: 20_000 },
  reporter: [["list"], ["json", { outputFile: "test-results/e2e.json" }]],
  use: {
    viewport: { width: 1280, height: 800 },
    trace: "retain-on-failure",
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
