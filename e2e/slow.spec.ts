/** The production build while a pantry's readings are slow, and when they die: changes are answered, nothing is lost. */
import { readdirSync, readFileSync } from "node:fs";
import { expect, test } from "@playwright/test";
import { Program } from "./program";

test.describe.configure({ mode: "serial" });
let program: Program;
test.beforeAll(async () => {
  program = await Program.on("salty_slow");
});
test.afterAll(() => program?.end());

const api = () => `${program.base}/api/pantries/brackwater_reach`;
interface Snapshot {
  revision: number;
  analysis: { state: string; revision: number };
  model: { revision: number } | null;
  records: { item: { id: string; key: string; level: number | null }[] };
}
const snapshot = async () => (await (await fetch(api())).json()) as Snapshot;
const post = (path: string, body: unknown) =>
  fetch(`${api()}${path}`, {
    method: "POST",
    body: JSON.stringify(body),
    headers: { "content-type": "application/json" },
  });

const read = (path: string): string => {
  try {
    return readFileSync(path, "utf8");
  } catch {
    return "";
  }
};
/** The program's processes that work out readings. */
function analyses(): number[] {
  const parentOf = (pid: number) => Number(/^PPid:\s+(\d+)/m.exec(read(`/proc/${pid}/status`))?.[1] ?? 0);
  const below = (pid: number): boolean => pid === program.pid || (pid > 1 && below(parentOf(pid)));
  return readdirSync("/proc")
    .filter((name) => /^\d+$/.test(name))
    .map(Number)
    .filter((pid) => read(`/proc/${pid}/environ`).includes("SALTY_ROLE=analysis") && below(pid));
}
async function settled(): Promise<Snapshot> {
  await program.until(async () => (await snapshot()).analysis.state === "done");
  return snapshot();
}

test("a change is answered and shown while its consequences are computed; readers get what there is, or are refused for a moment", async ({
  page,
}) => {
  const before = await settled();
  const [eel, rope] = ["smoked_eel", "rope"].map((key) => before.records.item.find((i) => i.key === key));
  if (!eel || !rope) throw new Error("The demo has neither eel nor rope.");
  await page.goto(`${program.base}/brackwater_reach/shelves`);
  await expect(page.locator("footer")).toContainText("errors");
  expect((await fetch(`${api()}/items/${eel.id}/costs`)).status).toBe(200);
  const stopped = analyses();
  expect(stopped.length).toBeGreaterThan(0);
  for (const pid of stopped) process.kill(pid, "SIGSTOP");
  try {
    const edits = [{ op: "set", kind: "item", id: eel.id, field: "level", from: eel.level, to: (eel.level ?? 0) + 1 }];
    expect((await post("/changes", { edits, note: "" })).status).toBe(200);
    const meanwhile = await snapshot();
    expect([meanwhile.revision, meanwhile.analysis.state]).toEqual([before.revision + 1, "computing"]);
    expect(await (await fetch(`${api()}/items/${eel.id}/costs`)).json()).toMatchObject({ revision: before.revision });
    for (const refused of [
      await fetch(`${api()}/items/${rope.id}/costs`),
      await post("/what-if", {
        edits: [{ op: "set", kind: "item", id: rope.id, field: "level", from: rope.level, to: 40 }],
      }),
    ]) {
      expect([refused.status, refused.headers.get("retry-after")]).toEqual([503, "2"]);
      expect(await refused.json()).toMatchObject({ title: "Still computing" });
    }
    await expect(page.getByRole("status").filter({ hasText: "Computing the effects" })).toBeVisible();
  } finally {
    for (const pid of stopped) process.kill(pid, "SIGCONT");
  }
  await expect(page.getByTestId("last-move")).toContainText("Level of Smoked eel");
  expect((await settled()).model?.revision).toBe(before.revision + 1);
});

test("a pantry whose analysis dies again and again is shown without it, and a change brings it back", async ({
  page,
}) => {
  const before = await settled();
  const rope = before.records.item.find((i) => i.key === "rope");
  if (!rope) throw new Error("The demo has no rope.");
  await page.goto(`${program.base}/brackwater_reach/shelves`);
  await expect(page.locator("footer")).toContainText("errors");
  let killing = true;
  const killer = (async () => {
    while (killing) {
      for (const pid of analyses())
        try {
          process.kill(pid, "SIGKILL");
        } catch {
          // It has ended meanwhile.
        }
      await new Promise((done) => setTimeout(done, 10));
    }
  })();
  const set = (from: number | null, to: number | null) =>
    post("/changes", {
      edits: [{ op: "set", kind: "item", id: rope.id, field: "level", from, to }],
      note: "",
    });
  expect((await set(rope.level, 41)).status).toBe(200);
  await program.until(async () => (await snapshot()).analysis.state === "stopped");
  killing = false;
  await killer;
  await page.reload();
  await expect(page.getByRole("alert").filter({ hasText: "analysis stopped" })).toBeVisible();
  await expect(page.getByRole("grid", { name: "Items" })).toBeVisible();
  expect((await fetch(`${api()}/changes`)).status).toBe(200);
  expect((await post(`/changes/${before.revision + 1}/undo`, undefined)).status).toBe(200);
  expect((await settled()).model?.revision).toBe(before.revision + 2);
  await expect(page.getByRole("alert").filter({ hasText: "analysis stopped" })).toHaveCount(0);
});
