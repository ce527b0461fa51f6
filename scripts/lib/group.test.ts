import { readFileSync } from "node:fs";
import { afterEach, expect, test } from "vitest";
import { endGroup, startGroup } from "./group.mjs";

const started: number[] = [];
afterEach(() => Promise.all(started.map((pid) => endGroup(pid, 0))));

/** Whether a process runs; one that ended and whose parent has not noticed yet does not. */
function alive(pid: number): boolean {
  try {
    return !/\) Z/.test(readFileSync(`/proc/${pid}/stat`, "utf8"));
  } catch {
    return false;
  }
}

/** A program that starts another one; both say that they are there. */
async function family(whenAsked: string): Promise<[parent: number, child: number]> {
  const child = `${whenAsked}; setInterval(() => {}, 1000); console.log(process.pid)`;
  const parent = `${whenAsked}; require("node:child_process").spawn(process.execPath, ["-e", ${JSON.stringify(child)}], { stdio: "inherit" }); setInterval(() => {}, 1000)`;
  const group = startGroup(process.execPath, ["-e", parent], { stdio: ["ignore", "pipe", "inherit"] });
  started.push(group.pid as number);
  const pid = await new Promise<number>((found) => group.child.stdout?.once("data", (text) => found(Number(text))));
  return [group.pid as number, pid];
}

test("ends a program with all that it started", async () => {
  const pids = await family("");
  expect(pids.map(alive)).toEqual([true, true]);
  await endGroup(pids[0]);
  await expect.poll(() => pids.map(alive), { timeout: 30_000 }).toEqual([false, false]);
});

test("ends outright what does not end when it is asked", async () => {
  const pids = await family(`process.on("SIGTERM", () => {})`);
  await endGroup(pids[0], 200);
  await expect.poll(() => pids.map(alive), { timeout: 30_000 }).toEqual([false, false]);
});

test("waits for those that end by themselves", async () => {
  const pids = await family(`process.on("SIGTERM", () => setTimeout(() => process.exit(3), 300))`);
  const group = endGroup(pids[0], 60_000);
  expect(pids.map(alive)).toEqual([true, true]);
  await group;
  await expect.poll(() => pids.map(alive), { timeout: 30_000 }).toEqual([false, false]);
});

test("what is not there ends at once, and a program that can't be started is told", async () => {
  await endGroup(undefined);
  expect(await startGroup("/nowhere/at/all", [], { stdio: "ignore" }).ended).toBe(1);
});
