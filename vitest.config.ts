import { fileURLToPath } from "node:url";
import { defineConfig } from "vitest/config";

const alias = { "@": fileURLToPath(new URL("./src", import.meta.url)) };

export default defineConfig({
  test: {
    maxWorkers: 2,
    projects: [
      {
        resolve: { alias },
        test: {
          name: "core",
          chaiConfig: { truncateThreshold: 0 },
          // Reading the core anew for each file would take as long as half of its tests. All that it keeps between files is
          // how names are transliterated, which whoever tests that says first.
          isolate: false,
          include: ["src/core/**/*.test.ts", "src/demo/**/*.test.ts", "src/ui/**/*.test.ts", "bench/**/*.test.ts"],
          // Those that put other modules in the place of some have a process of their own, below.
          exclude: ["src/**/*.alone.test.ts"],
          testTimeout: 300_000,
        },
      },
      {
        // Components, in a page without a browser.
        resolve: { alias },
        test: {
          name: "components",
          environment: "happy-dom",
          setupFiles: ["src/ui/testing/page.ts"],
          include: ["src/ui/**/*.test.tsx"],
          testTimeout: 300_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: "store",
          chaiConfig: { truncateThreshold: 0 },
          include: [
            "src/store/**/*.test.ts",
            "src/server/**/*.test.ts",
            "src/cli/**/*.test.ts",
            "e2e/**/*.here.ts",
            "scripts/**/*.test.ts",
            "src/core/**/*.alone.test.ts",
          ],
          testTimeout: 300_000,
          hookTimeout: 180_000,
        },
      },
      {
        resolve: { alias },
        test: {
          name: "fuzz",
          include: ["fuzz/**/*.fuzz.ts"],
          testTimeout: 300_000,
          hookTimeout: 180_000,
        },
      },
      {
        // On the production build, which npm test makes after the others.
        resolve: { alias },
        test: { name: "served", include: ["e2e/**/*.served.ts"], testTimeout: 300_000, hookTimeout: 300_000 },
      },
    ],
  },
});
