import { fork } from "node:child_process";
import { describe, expect, it } from "vitest";
// @ts-expect-error a script without types
import { bundled } from "../scripts/lib/bundled.mjs";
import { ENGINE_ENV, engineFlags } from "../src/server/engine-flags";

interface Opened {
  readonly complete: boolean;
  readonly gains: number;
  readonly stuck: number;
  readonly steps: { readonly costs: number; readonly checks: number };
  readonly heldBytes: number;
  readonly peakBytes: number;
}
const GIGABYTE = 2 ** 30;

/** In a process that may hold a gigabyte; null: it ended without an answer. */
async function opened(items: number): Promise<Opened | null> {
  const file = (await bundled("bench/open.ts", "dist/bench-open.mjs")) as string;
  return new Promise((done) => {
    let answer: Opened | null = null;
    const child = fork(file, [String(items)], {
      execArgv: engineFlags(800),
      env: { ...process.env, ...ENGINE_ENV },
      stdio: "ignore",
    });
    child.once("message", (said) => {
      answer = said as Opened;
    });
    child.once("exit", () => done(answer));
  });
}

describe("a pantry of a hundred thousand items", () => {
  it("is opened with all checks within a gigabyte, proved clean, in a bounded number of steps", async () => {
    const large = await opened(100_000);
    expect(large).toMatchObject({ complete: true, gains: 0, stuck: 100 });
    const { steps, heldBytes, peakBytes } = large as Opened;
    expect(peakBytes).toBeLessThan(GIGABYTE);
    // Records, readings and findings. Where each value had a layout of its own it was 441 MB.
    expect(heldBytes).toBeLessThan(370e6);
    // Steps, not seconds: they are the same on every machine.
    console.log(`${steps.costs} steps of costs, ${steps.checks} of checks, ${Math.round(peakBytes / 1e6)} MB`);
    expect(steps.costs).toBeLessThan(400_000);
    expect(steps.checks).toBeLessThan(3_500_000);
  });
});
