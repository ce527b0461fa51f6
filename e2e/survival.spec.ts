/**
 * The program with a database cluster of its own: killed outright in the middle of edits, nothing acknowledged is lost.
 */
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { expect, test } from "@playwright/test";
import { freePort, Program } from "./program";

const data = mkdtempSync(join(tmpdir(), "salty-data-"));
let program: Program;

test.beforeAll(async () => {
  program = new Program(await freePort(), { SALTY_DATA: data, DATABASE_URL: "" });
  await program.start();
});
test.afterAll(async () => {
  await program.end();
  rmSync(data, { recursive: true, force: true });
  const elsewhere = /making a database cluster in (\/var\/lib\/salty-pantry-[0-9a-f]+)\//.exec(program.said)?.[1];
  if (elsewhere) rmSync(elsewhere, { recursive: true, force: true });
});

interface Snapshot {
  revision: number;
  records: { item: { id: string; key: string; level: number | null }[] };
}
const api = () => `${program.base}/api/pantries/brackwater_reach`;
const snapshot = async () => (await (await fetch(api())).json()) as Snapshot;

/** Where the cluster is: in the data folder, or where the log says when the server's user can't enter it. */
function postmaster(): number {
  const said = /making a database cluster in (\S+)/.exec(program.said)?.[1];
  const dir = said ?? join(data, readdirSync(data).find((n) => n === "postgres") ?? "postgres");
  return existsSync(join(dir, "postmaster.pid"))
    ? Number(readFileSync(join(dir, "postmaster.pid"), "utf8").split("\n")[0])
    : 0;
}

/** How many changes have been acknowledged so far. */
let acknowledgements = 0;
/** Resolves once so many more changes are acknowledged: whatever is killed then is killed in the middle of edits. */
async function edits(more: number): Promise<void> {
  const wanted = acknowledgements + more;
  await program.until(async () => acknowledgements >= wanted);
}

/** Counts an item's level upwards, one change after the other, until `stop`; returns the last level acknowledged. */
async function edit(id: string, from: number | null, stop: () => boolean): Promise<number | null> {
  let level = from;
  while (!stop()) {
    const next: number = (level ?? 0) + 1;
    const body = JSON.stringify({ edits: [{ op: "set", kind: "item", id, field: "level", from: level, to: next }] });
    const answer = await fetch(`${api()}/changes`, {
      method: "POST",
      body,
      headers: { "content-type": "application/json" },
    }).catch(() => null);
    if (!answer?.ok) break;
    level = next;
    acknowledgements++;
  }
  return level;
}

/** Ended; an ended process that no one has asked after yet (a zombie) counts as gone. */
const gone = (pid: number) => !existsSync(`/proc/${pid}/stat`) || / Z /.test(readFileSync(`/proc/${pid}/stat`, "utf8"));

test("a database killed in the middle of edits comes back by itself with every acknowledged change", async () => {
  const item = (await snapshot()).records.item.find((i) => i.key === "rope");
  const pid = postmaster();
  let stop = false;
  const editing = edit(item?.id ?? "", item?.level ?? null, () => stop);
  await edits(20);
  process.kill(pid, "SIGKILL");
  const acknowledged = await editing;
  stop = true;
  expect(acknowledged ?? 0).toBeGreaterThan(item?.level ?? 0);
  await program.until(async () => (await fetch(`${program.base}/api/health`)).ok && (await fetch(api())).ok);
  const after = (await snapshot()).records.item.find((i) => i.key === "rope")?.level ?? 0;
  // The change in flight may have been written without its answer arriving; nothing before it may be missing.
  expect([acknowledged, (acknowledged ?? 0) + 1]).toContain(after);
  // And it goes on.
  await program.until(async () => (await edit(item?.id ?? "", after, once())) === after + 1);
});

const once = () => {
  let n = 0;
  return () => n++ > 0;
};

test("a program killed outright is started again: same port, same data, no orphans", async () => {
  const item = (await snapshot()).records.item.find((i) => i.key === "tar");
  const editing = edit(item?.id ?? "", item?.level ?? null, () => false);
  await edits(20);
  const pid = program.pid;
  await program.end("SIGKILL");
  const acknowledged = await editing;
  expect(gone(pid)).toBe(true);
  await program.start();
  const after = (await snapshot()).records.item.find((i) => i.key === "tar")?.level ?? 0;
  expect([acknowledged, (acknowledged ?? 0) + 1]).toContain(after);
});

test("SIGTERM ends everything at once, event streams open or not, and a second start is quick", async () => {
  const stream = await fetch(`${api()}/events`);
  const reader = stream.body?.getReader();
  await reader?.read();
  const pid = postmaster();
  const before = await (await fetch(`${api()}/bundle`)).text();
  expect(await program.end("SIGTERM")).toBeLessThan(10_000);
  expect(gone(pid)).toBe(true);
  await reader?.cancel().catch(() => undefined);
  const began = Date.now();
  await program.start();
  expect(Date.now() - began).toBeLessThan(50_000);
  expect(await (await fetch(`${api()}/bundle`)).text()).toBe(before);
});

test("a port in use is said, with the way out", async () => {
  const other = new Program(program.port, { SALTY_DATA: data, DATABASE_URL: "" });
  await other.start().catch(() => undefined);
  await other.until(async () => other.said.includes("is in use"));
  expect(other.said).toContain(`Port ${program.port} is in use by another program`);
  expect(other.said).toContain("PORT=3100 npm start");
  expect((await fetch(`${program.base}/api/health`)).ok).toBe(true);
});
