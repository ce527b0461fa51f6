import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from "vitest";
import * as bundles from "../app/api/pantries/[pantry]/bundle/route";
import * as undos from "../app/api/pantries/[pantry]/changes/[revision]/undo/route";
import * as changes from "../app/api/pantries/[pantry]/changes/route";
import * as events from "../app/api/pantries/[pantry]/events/route";
import * as glance from "../app/api/pantries/[pantry]/glance/route";
import * as costs from "../app/api/pantries/[pantry]/items/[item]/costs/route";
import * as snapshots from "../app/api/pantries/[pantry]/route";
import * as pantries from "../app/api/pantries/route";
import type { LiveEvent, PackedReadModel, Ripple } from "../core/engine/read-model";
import { follow } from "../core/testing/read-model";
import { Engine as Core } from "../core/engine/engine";
import { itemCosts } from "../core/analysis/item-costs";
import type { Catalogue } from "../core/catalogue/catalogue";
import type { Edit } from "../core/catalogue/edit";
import { newId } from "../core/schema/id";
import { withDefaults, type Item, type Recipe } from "../core/kinds/index";
import { seeded } from "../core/numbers/seeded";
import { randomEdits, randomPantry } from "../core/testing/random";
import { bundleOf, SMOKEHOUSE } from "../core/testing/kitchen";
import { loadCatalogue } from "../store/load";
import { query } from "../store/sql";
import { textsOf } from "../store/testing/texts";
import { Failure } from "./failures";
import { type Host, host } from "./host";
import { PATIENCE } from "./analysis";
import { freshHost, patient } from "./testing/host";
import { EngineChild } from "./engine-child";

let opened: Awaited<ReturnType<typeof freshHost>>;
let one: Host;
let pantry = "";

/** As patient as it is served, for tests that are about waiting. */
const AS_SERVED = { ...PATIENCE };

beforeAll(async () => {
  patient();
  opened = await freshHost();
  one = opened.host;
});
afterAll(() => opened?.end());

type Answer = { status: number; body: Record<string, unknown> & { detail?: string } };
const call = async (
  handler: (r: Request, c: { params: Promise<Record<string, string>> }) => Promise<Response>,
  options: {
    method?: string;
    body?: unknown;
    params?: Record<string, string>;
    query?: string;
    author?: string;
    headers?: Record<string, string>;
  } = {},
): Promise<Answer> => {
  const body =
    typeof options.body === "string"
      ? options.body
      : options.body === undefined
        ? undefined
        : JSON.stringify(options.body);
  const request = new Request(`http://localhost/${options.query ? `?${options.query}` : ""}`, {
    method: options.method ?? (body === undefined ? "GET" : "POST"),
    body,
    headers: {
      "x-salty-author": encodeURIComponent(options.author ?? "Ida"),
      ...(body === undefined ? {} : { "content-type": "application/json" }),
      ...options.headers,
    },
  });
  const response = await handler(request, { params: Promise.resolve({ pantry, ...options.params }) });
  const text = await response.text();
  return { status: response.status, body: text ? JSON.parse(text) : {} };
};
/** The processes of an engine. */
const childrenOf = (engine: object) => {
  const { records, analysis } = engine as unknown as {
    records: EngineChild<"records"> | null;
    analysis: { child: EngineChild<"analysis"> | null };
  };
  return { records, analysis: analysis.child };
};
const open = EngineChild.open;
function alive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}
/** Ends an engine's processes as a crash would. */
async function crash(engine: object): Promise<void> {
  const children = Object.values(childrenOf(engine));
  for (const child of children) if (child?.pid && !child.lost) process.kill(child.pid, "SIGKILL");
  while (children.some((child) => child && !child.lost)) await new Promise((done) => setTimeout(done, 5));
}
const add = (item: Item) => call(changes.POST, { body: { edits: [{ op: "add", kind: "item", record: item }] } });
const fresh = (name: string): Item => withDefaults("item", { id: newId(), key: `k_${newId()}`, name, status: "ready" });
const snapshot = async () =>
  (await call(snapshots.GET)).body as unknown as {
    revision: number;
    model: PackedReadModel;
    records: { item: Item[]; recipe: Recipe[] };
  };

beforeEach(async () => {
  const made = await call(pantries.POST, { body: { name: `Pantry ${newId()}` } });
  expect(made.status).toBe(201);
  pantry = made.body.key as string;
  const filled = await call(bundles.POST, { body: bundleOf(SMOKEHOUSE) });
  expect(filled).toMatchObject({ status: 200, body: { added: 7 } });
});

describe("the server", () => {
  it("tells every open view of a commit, with a ripple that leads to the server's own model", async () => {
    const before = await snapshot();
    const controller = new AbortController();
    const response = await events.GET(new Request("http://localhost/", { signal: controller.signal }), {
      params: Promise.resolve({ pantry }),
    });
    const reader = (response.body as ReadableStream<Uint8Array>).getReader();
    await add(fresh("Cork"));
    let text = "";
    while (!text.includes("event: change")) text += new TextDecoder().decode((await reader.read()).value);
    controller.abort();
    const data = /event: change\ndata: (.*)\n/.exec(text)?.[1] ?? "";
    const event = JSON.parse(data) as LiveEvent;
    expect(follow(before.model, event.ripple as Ripple)).toEqual((await snapshot()).model);
  });

  it("follows what another process commits to the same database", async () => {
    const { Host: Other } = await import("./host");
    const other = await Other.open(opened.url);
    const engine = await other.engine(pantry);
    const edit: Edit = { op: "add", kind: "item", record: fresh("Cork from afar") };
    await engine?.submit({ author: "Tom", note: "" }, { do: "edit", edits: [edit] });
    const ours = await one.engine(pantry);
    for (let i = 0; i < 40 && ours?.revision !== engine?.revision; i++) await new Promise((r) => setTimeout(r, 50));
    expect((await snapshot()).records.item.map((i) => i.id)).toContain(edit.record.id);
    // And a commit here on top of it does not lose it.
    expect((await add(fresh("Tar"))).status).toBe(200);
    await other.close();
  });

  it("tells how far an import is, and leaves nothing of one that was called off", async () => {
    const many = {
      format: "salty-pantry-bundle",
      version: 1,
      items: Array.from({ length: 5000 }, (_, k) => ({ name: `Float ${k}` })),
    };
    const before = await snapshot();
    const send = (signal?: AbortSignal) =>
      bundles.POST(
        new Request("http://localhost/?progress=1", {
          method: "POST",
          body: JSON.stringify(many),
          headers: { "content-type": "application/json" },
          signal,
        }),
        { params: Promise.resolve({ pantry }) },
      );
    const ending = new AbortController();
    const reader = ((await send(ending.signal)).body as ReadableStream<Uint8Array>).getReader();
    let heard = "";
    const until = async (text: string) => {
      for (let ended = false; !ended && !heard.includes(text); ) {
        const { done, value } = await reader.read();
        heard += new TextDecoder().decode(value);
        ended = done;
      }
    };
    await until('"writing"');
    ending.abort();
    await until('"status"');
    expect(heard).toContain('"status":499');
    expect(await snapshot()).toEqual(before);
    expect(
      await query(one.em, "select 1 as one from change_part p join pantry on pantry.id = pantry_id where key = ?", [
        pantry,
      ]),
    ).toEqual([]);
    const lines = (await (await send()).text())
      .trim()
      .split("\n")
      .map((line) => JSON.parse(line));
    expect(lines.slice(0, -1).map((l) => l.progress.stage)).toEqual(expect.arrayContaining(["reading", "writing"]));
    expect(lines.at(-1)).toMatchObject({
      status: 200,
      body: { added: 5000, revision: before.revision + 1, dry: false },
    });
    // Taken back and given again, in parts, it is as it was.
    expect((await call(undos.POST, { method: "POST", params: { revision: String(before.revision + 1) } })).status).toBe(
      200,
    );
    expect((await snapshot()).records.item).toEqual(before.records.item);
    expect((await call(undos.POST, { method: "POST", params: { revision: String(before.revision + 2) } })).status).toBe(
      200,
    );
    expect((await snapshot()).records.item).toHaveLength(before.records.item.length + 5000);
  });

  it("says what to do when the database is away, and what failed when something else did", async () => {
    const { route } = await import("./route");
    const quiet = vi.spyOn(console, "error").mockImplementation(() => undefined);
    const failing = (message: string, more: object = {}) =>
      route(() => Promise.reject(Object.assign(new Error(message), more)))(new Request("http://localhost/"), {
        params: Promise.resolve({}),
      });
    for (const away of [
      await failing("connect ECONNREFUSED 127.0.0.1:5432", { code: "ECONNREFUSED" }),
      await failing("the administrator ends it", { code: "57P01" }),
      await failing("select 1 - Connection terminated", { cause: new Error("Connection terminated unexpectedly") }),
    ]) {
      expect([away.status, await away.json()]).toMatchObject([503, { title: "The database is unavailable" }]);
      expect(away.headers.get("retry-after")).toBe("2");
    }
    // What merely has such letters in it is something else.
    expect((await failing("item 08abc is odd, code 57P0")).status).toBe(500);
    const broken = await failing("a cog came loose");
    expect(broken.status).toBe(500);
    // What went wrong inside is for the program's log, never for the answer.
    expect(await broken.text()).not.toContain("cog");
    expect(broken.headers.get("content-type")).toBe("application/problem+json");
    quiet.mockRestore();
  });

  it("answers a change although its consequences take long, and tells them when they are there", async () => {
    const engine = await one.engine(pantry);
    if (!engine) throw new Error("no engine");
    const before = await snapshot();
    const { pid } = childrenOf(engine).analysis ?? {};
    if (!pid) throw new Error("no process");
    const told: LiveEvent[] = [];
    const unwatch = engine.watch((notice) => {
      if (notice.tell === "change") told.push(JSON.parse(notice.json));
    });
    const [river] = before.records.item;
    expect((await call(costs.GET, { params: { item: river.id } })).status).toBe(200);
    process.kill(pid, "SIGSTOP");
    Object.assign(PATIENCE, AS_SERVED);
    try {
      const item = fresh("Cork");
      expect(await add(item)).toMatchObject({ status: 200, body: { revision: before.revision + 1 } });
      expect(told).toMatchObject([{ changes: [{ revision: before.revision + 1 }], ripple: null }]);
      // A second one does not wait for the first.
      expect((await add(fresh("Tar"))).status).toBe(200);
      const meanwhile = (await call(snapshots.GET)).body;
      expect(meanwhile).toMatchObject({
        revision: before.revision + 2,
        analysis: { state: "computing", revision: before.revision },
        model: { revision: before.revision },
      });
      // What was answered before is answered again, with its revision; what was not is refused for a moment.
      expect(await call(costs.GET, { params: { item: river.id } })).toMatchObject({
        status: 200,
        body: { revision: before.revision },
      });
      expect(await call(costs.GET, { params: { item: item.id } })).toMatchObject({
        status: 503,
        body: { title: "Still computing" },
      });
      expect((await call(bundles.GET)).status).toBe(200);
    } finally {
      patient();
      process.kill(pid, "SIGCONT");
    }
    expect(await engine.analysis.until(before.revision + 2, 120_000)).toBe(true);
    const after = await snapshot();
    expect(after.model.revision).toBe(before.revision + 2);
    unwatch();
    const ripples = told.flatMap(({ ripple }) => ripple ?? []);
    expect(ripples.reduce((model, ripple) => follow(model, ripple), before.model)).toEqual(after.model);
    expect(told.flatMap(({ changes: some }) => some.map((c) => c.revision))).toEqual([
      before.revision + 1,
      before.revision + 2,
    ]);
  });

  it("opens a pantry whose analysis died twice without it, takes changes, undoes them, and tries again then", async () => {
    const quiet = vi.spyOn(console, "error").mockImplementation(() => undefined);
    const engine = await one.engine(pantry);
    if (!engine) throw new Error("no engine");
    const before = await snapshot();
    let killing = true;
    const spied = vi.spyOn(EngineChild, "open").mockImplementation(async (texts, role) => {
      const child = await open.call(EngineChild, texts, role);
      if (role !== "analysis" || !killing) return child as never;
      child.end();
      throw new Failure("lost", "The engine's process ended: SIGKILL");
    });
    const { analysis } = childrenOf(engine);
    analysis?.end();
    Object.assign(PATIENCE, AS_SERVED);
    try {
      expect((await add(fresh("Cork"))).status).toBe(200);
      const wait = Date.now() + 120_000;
      while (engine.analysis.state.state !== "stopped" && Date.now() < wait)
        await new Promise((done) => setTimeout(done, 10));
      const { body } = await call(snapshots.GET);
      expect(body).toMatchObject({ revision: before.revision + 1, analysis: { state: "stopped" } });
      const [river] = before.records.item;
      expect(await call(glance.GET)).toMatchObject({ status: 503, body: { title: "This pantry's analysis stopped" } });
      expect((await call(changes.GET)).status).toBe(200);
      killing = false;
      patient();
      const undone = await call(undos.POST, { params: { revision: String(before.revision + 1) } });
      expect(undone.status).toBe(200);
      expect(await engine.analysis.until(before.revision + 2, 120_000)).toBe(true);
      expect((await call(costs.GET, { params: { item: river.id } })).status).toBe(200);
    } finally {
      patient();
      spied.mockRestore();
      quiet.mockRestore();
    }
  });

  it("deletes a pantry whose processes answer nothing", async () => {
    const engine = await one.engine(pantry);
    if (!engine) throw new Error("no engine");
    const { pantry: settings } = (await call(snapshots.GET)).body as unknown as { pantry: { name: string } };
    const pids = Object.values(childrenOf(engine)).flatMap((child) => child?.pid ?? []);
    for (const pid of pids) process.kill(pid, "SIGSTOP");
    const deleted = await call(snapshots.DELETE, { method: "DELETE", body: { name: settings.name } });
    expect(deleted.status).toBe(200);
    expect((await call(snapshots.GET)).status).toBe(404);
    for (const pid of pids) {
      const end = Date.now() + 10_000;
      while (Date.now() < end && alive(pid)) await new Promise((done) => setTimeout(done, 20));
      expect(alive(pid)).toBe(false);
    }
  });

  it("comes back to the stored truth when its own copy went astray", async () => {
    const engine = await one.engine(pantry);
    if (!engine) throw new Error("no engine");
    // Someone wrote into the tables past the log: the next change of that item does not fit the copy any more.
    const item = fresh("Cork");
    await add(item);
    let anew = 0;
    const unwatch = engine.watch(({ tell }) => {
      if (tell === "anew") anew++;
    });
    await query(one.em, "update item set level = 4 where id = ?", [item.id]);
    const other = await (await import("./host")).Host.open(opened.url);
    const edit: Edit = { op: "set", kind: "item", id: item.id, field: "level", from: 4, to: 5 };
    expect(
      await (await other.engine(pantry))?.submit({ author: "Tom", note: "" }, { do: "edit", edits: [edit] }),
    ).toMatchObject({ committed: { ok: true } });
    await engine.advance();
    expect((await snapshot()).records.item.find((i) => i.id === item.id)?.level).toBe(5);
    expect((await snapshot()).model.revision).toBe(engine.revision);
    expect(anew).toBeGreaterThan(0);
    unwatch();
    await other.close();
  });

  it("survives a crash of the engine's processes: questions are answered, changes followed, views told to read again", async () => {
    const engine = await one.engine(pantry);
    if (!engine) throw new Error("no engine");
    const before = await snapshot();
    let told = 0;
    const unwatch = engine.watch(({ tell }) => {
      if (tell === "anew") told++;
    });
    await crash(engine);
    expect(await snapshot()).toEqual(before);
    expect(told).toBe(1);
    // A crash between a commit and its following: nothing is lost.
    void crash(engine);
    const item = fresh("Cork");
    expect((await add(item)).status).toBe(200);
    const after = await snapshot();
    expect(after.revision).toBe(before.revision + 1);
    expect(after.model.revision).toBe(after.revision);
    expect(after.records.item.map((i) => i.id)).toContain(item.id);
    unwatch();
  });

  it("answers the same in a process of its own as here, change after change", async () => {
    const random = seeded(9);
    const first = randomPantry(random, 15);
    const [child, here] = [await EngineChild.open(textsOf(first), "analysis"), new Core(first)];
    const model = async () =>
      JSON.parse(new TextDecoder().decode((await child.ask("model", {})).model)) as PackedReadModel;
    try {
      expect(await model()).toEqual(JSON.parse(JSON.stringify(here.model())));
      for (let k = 0; k < 5; k++) {
        const { outcome, ripple } = here.change(randomEdits(random, here.catalogue));
        if (!outcome.ok) throw new Error("a random change was refused");
        const followed = await child.ask("follow", {
          edits: [JSON.stringify(outcome.edits)],
          revision: outcome.catalogue.revision,
        });
        expect(JSON.parse(followed.ripple ?? "null")).toEqual(JSON.parse(JSON.stringify(ripple)));
        expect(JSON.parse(followed.moved)).toEqual(JSON.parse(JSON.stringify(ripple?.moved)));
        expect(await model()).toEqual(JSON.parse(JSON.stringify(here.model())));
      }
      const [item] = here.catalogue.records.item.keys();
      expect(await child.ask("costs", { item })).toMatchObject(
        JSON.parse(JSON.stringify(itemCosts(here.readings, item))),
      );
    } finally {
      child.end();
    }
  });

  it("closes engines that no one uses, and opens them again on what is stored", async () => {
    const engine = await one.engine(pantry);
    const before = await snapshot();
    const unwatch = engine?.watch(() => undefined);
    await one.closeIdle(Date.now() + 3_600_000);
    expect(one.open).toEqual([engine?.pantry]);
    unwatch?.();
    await one.closeIdle(Date.now());
    expect(one.open).toContain(engine?.pantry);
    await one.closeIdle(Date.now() + 3_600_000);
    expect(one.open).toEqual([]);
    expect(await snapshot()).toEqual(before);
  });

  it("opens no stream for a HEAD, bounds what waits in one, and sends a large change as a call to read again", async () => {
    const before = one.streams;
    expect(
      (await events.HEAD(new Request("http://localhost/", { method: "HEAD" }), { params: Promise.resolve({ pantry }) }))
        .status,
    ).toBe(200);
    expect(one.streams).toBe(before);
    const stream = await events.GET(new Request("http://localhost/"), { params: Promise.resolve({ pantry }) });
    expect(one.streams).toBe(before + 1);
    const many = Array.from({ length: 3_000 }, (_, k) => ({ op: "add", kind: "item", record: fresh(`Cork ${k}`) }));
    expect((await call(changes.POST, { body: { edits: many } })).status).toBe(200);
    // No one reads: what waits stays small, and past a megabyte the stream is ended.
    const engine = await one.engine(pantry);
    if (!engine) throw new Error("no engine");
    const tell = (engine as unknown as { tell: (told: object) => void }).tell.bind(engine);
    for (let k = 0; k < 4; k++) tell({ tell: "change", revision: 3, json: `"${"x".repeat(400_000)}"` });
    expect(one.streams).toBe(before);
    const text = await new Response(stream.body).text();
    expect(text).toContain('"anew":true');
    expect(text.length).toBeLessThan(2_000_000);
  });

  it("says what became of a change: one that is committed counts, whatever becomes of following it", async () => {
    const engine = await one.engine(pantry);
    if (!engine) throw new Error("no engine");
    const quiet = vi.spyOn(console, "error").mockImplementation(() => undefined);
    const { revision } = await snapshot();
    const ask = engine.ask.bind(engine);
    const broken = vi
      .spyOn(engine, "ask")
      .mockImplementation(((name: never, ...rest: never[]) =>
        (name as string) === "settle"
          ? Promise.reject(new Error("it broke"))
          : (ask as (...a: unknown[]) => unknown)(name, ...rest)) as never);
    const item = fresh("Cork");
    expect(await add(item)).toMatchObject({ status: 200, body: { revision: revision + 1 } });
    broken.mockRestore();
    quiet.mockRestore();
    const after = await snapshot();
    expect([after.revision, after.model.revision]).toEqual([revision + 1, revision + 1]);
    expect(after.records.item.map((i) => i.id)).toContain(item.id);
  });

  it("never begins what no one waits for any more, and ends what takes too long", async () => {
    const engine = await one.engine(pantry);
    if (!engine) throw new Error("no engine");
    await snapshot();
    const long = (items: number) => {
      const many = { format: "salty-pantry-bundle", version: 1, items: [] as object[] };
      for (let k = 0; k < items; k++) many.items.push({ name: `Float ${k}` });
      const bundle = new TextEncoder().encode(JSON.stringify(many));
      return { intents: [{ do: "import" as const, bundle, replace: false }] };
    };
    const { records } = childrenOf(engine);
    if (!records) throw new Error("no process");
    const busy = records.ask("prepare", long(3_000));
    const gone = new AbortController();
    const waiting = records.ask("bundle", {}, { signal: gone.signal });
    gone.abort();
    await expect(waiting).rejects.toThrow("request was cancelled");
    await busy;
    await expect(records.ask("prepare", long(60_000), { limit: 100 })).rejects.toThrow("took longer");
    expect((await snapshot()).model.revision).toBe(1);
  });

  it("keeps few threads for many pantries, and answers for all of them", async () => {
    const few = await (await import("./host")).Host.open(opened.url, 2);
    const keys = (await few.pantries()).slice(0, 4).map((p) => p.key);
    for (let round = 0; round < 2; round++)
      for (const key of keys) {
        const engine = await few.engine(key);
        expect(JSON.parse(new TextDecoder().decode(await engine?.snapshot(false)))).toMatchObject({ pantry: { key } });
        expect(few.pool.size).toBeLessThanOrEqual(2);
      }
    expect(few.open.length).toBe(4);
    const all = await Promise.all(keys.map(async (key) => (await (await few.engine(key))?.snapshot(true))?.length));
    expect(all.every((n) => (n ?? 0) > 0)).toBe(true);
    // More write at once than there are threads and connections: each gets its turn.
    const written = await Promise.all(
      Array.from({ length: 30 }, async (_, k) => {
        const engine = await few.engine(keys[k % keys.length]);
        return engine?.submit(
          { author: "Ida", note: "" },
          { do: "edit", edits: [{ op: "add", kind: "item", record: fresh(`Float ${k}`) }] },
        );
      }),
    );
    expect(written.every((w) => w && "committed" in w && w.committed.ok)).toBe(true);
    await few.close();
  });

  it("writes changes that arrive together in one go, each with its own revision, refusal or conflict", async () => {
    const before = await snapshot();
    const one = await (await host()).engine(pantry);
    if (!one) throw new Error("no engine");
    const told: LiveEvent[] = [];
    const stop = one.watch((t) => t.tell === "change" && told.push(JSON.parse(t.json) as LiveEvent));
    const salt = before.records.item.find((i) => i.name === "Salt") as Item;
    const stack = (to: number) => ({ op: "set", kind: "item", id: salt.id, field: "stack", from: null, to }) as const;
    const twin = { ...fresh("Twin"), key: "salt" };
    const submit = (edits: readonly Edit[], author = "Ida") => one.submit({ author, note: "" }, { do: "edit", edits });
    const answers = await Promise.all([
      ...Array.from({ length: 20 }, (_, k) =>
        submit([{ op: "add", kind: "item", record: fresh(`Float ${k}`) }], `P${k}`),
      ),
      submit([stack(5)]),
      submit([stack(6)]),
      submit([{ op: "add", kind: "item", record: twin }]),
      submit([{ op: "add", kind: "item", record: { ...fresh("Odd"), stack: -1 } }]),
      submit([stack(5)]),
    ]);
    const committed = answers.map((a) => ("committed" in a ? a.committed : null));
    const revisions = committed.flatMap((c) => (c?.ok && c.change ? [c.revision] : []));
    expect(revisions).toEqual(Array.from({ length: 21 }, (_, k) => before.revision + 1 + k));
    expect(committed[21]).toMatchObject({ ok: false, conflicts: [{ yours: 6, theirs: 5 }] });
    expect(committed[22]).toMatchObject({ ok: false, issues: [{ path: "key" }] });
    expect(committed[23]).toMatchObject({ ok: false, issues: [{ path: "stack" }] });
    // What stands there already is no change.
    expect(committed[24]).toEqual({ ok: true, revision: before.revision + 21 });
    stop();
    expect(told.flatMap((t) => t.changes.map((c) => c.revision))).toEqual(revisions);
    // What several changes moved together, none of them says by itself.
    for (const { changes: some } of told) expect(some.every((c) => (c.moved === null) === some.length > 1)).toBe(true);
    const shown = told.reduce((model, { ripple }) => follow(model, ripple as Ripple), before.model);
    const log = (await call(changes.GET, { query: "most=25" })).body as unknown as {
      revision: number;
      author: string;
    }[];
    expect(log.slice(1, 21).map((c) => c.author)).toEqual(Array.from({ length: 20 }, (_, k) => `P${19 - k}`));
    // What the thread holds is what is stored.
    const after = await snapshot();
    const stored = await loadCatalogue((await host()).em, one.pantry);
    expect(after.revision).toBe(before.revision + 21);
    expect(stored?.revision).toBe(after.revision);
    expect(new Map(after.records.item.map((i) => [i.id, i]))).toEqual(new Map(stored?.records.item));
    expect(shown).toEqual(after.model);
    expect(after.model).toEqual(JSON.parse(JSON.stringify(new Core(stored as Catalogue).model())));
  });

  it("lets each of several changes fail for itself where the engine gives up on one", async () => {
    const one = await (await host()).engine(pantry);
    if (!one) throw new Error("no engine");
    const bad = { op: "add", kind: "vessel", record: fresh("Punt") };
    const good = () =>
      one.submit(
        { author: "Ida", note: "" },
        { do: "edit", edits: [{ op: "add", kind: "item", record: fresh("Cork") }] },
      );
    const answers = await Promise.allSettled([
      good(),
      one.submit({ author: "Ida", note: "" }, { do: "edit", edits: [bad as never] }),
      good(),
    ]);
    expect(answers.map((a) => a.status)).toEqual(["fulfilled", "rejected", "fulfilled"]);
  });
});
