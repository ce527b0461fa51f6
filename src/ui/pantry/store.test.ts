import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { LiveEvent } from "@/core/engine/read-model";
import { packModel, readModelOf, rippleOf } from "@/core/testing/read-model";
import type { Catalogue } from "@/core/catalogue/catalogue";
import { type Edit, setField } from "@/core/catalogue/edit";
import { item } from "@/core/testing/kitchen";
import { FakeEvents, FakeServer } from "../testing/fake-server";
import { type Live, PantryStore } from "./store";

let server: FakeServer;
let store: PantryStore;
let close: () => void;
const json = (body: unknown, status = 200) => new Response(JSON.stringify(body), { status });
const until = async (test: () => boolean) => {
  for (let i = 0; i < 200 && !test(); i++) await new Promise((r) => setTimeout(r, 5));
  expect(test()).toBe(true);
};
const level = (to: number | null, from: number | null = null): Edit => ({
  op: "set",
  kind: "item",
  id: item(server.catalogue, "Eel").id,
  field: "level",
  from,
  to,
});
const shownModel = () => packModel((store.snapshot().state as Live).model);
const last = () => store.snapshot().state?.last;
const shown = () => item(store.snapshot().state?.catalogue as Catalogue, "Eel").level;

beforeEach(async () => {
  server = new FakeServer();
  vi.stubGlobal("fetch", server.fetch);
  vi.stubGlobal("EventSource", FakeEvents);
  store = new PantryStore("test");
  store.author = "Ida Märsch";
  close = store.open();
  await until(() => store.snapshot().state !== null);
});
afterEach(() => {
  close();
  vi.unstubAllGlobals();
});

describe("a window's pantry", () => {
  it("starts with nothing, the same on the server and in the browser", () => {
    expect(new PantryStore("x").first).toMatchObject({ state: null, link: "opening", notice: null });
  });

  it("follows a change of someone else without loading again", () => {
    const loads = server.loads;
    server.commit([level(3)]);
    expect(shown()).toBe(3);
    expect(store.snapshot().state?.last?.message).toBe("Level of Eel nothing → 3");
    expect(server.loads).toBe(loads);
  });

  it("follows several changes that were followed together, and loads again where one of them is missing", async () => {
    const { loads, stream, catalogue: before } = server;
    const events: LiveEvent[] = [];
    server.stream = { send: (_: string, event: unknown) => events.push(event as LiveEvent) } as never;
    for (const [to, from] of [[3], [4, 3], [6, 4]]) server.commit([level(to, from)]);
    const ripple = rippleOf(readModelOf(before), readModelOf(server.catalogue));
    const changes = events.flatMap((e) => e.changes);
    stream?.send("change", { changes, ripple });
    expect(shown()).toBe(6);
    expect(server.loads).toBe(loads);
    expect(shownModel()).toEqual(readModelOf(server.catalogue));
    server.commit([level(7, 6)]);
    server.commit([level(8, 7)]);
    stream?.send("change", { changes: events.slice(4).flatMap((e) => e.changes), ripple: events[4].ripple });
    await until(() => shown() === 8);
    expect(server.loads).toBe(loads + 1);
  });

  it("keeps catalogue and model at one revision whatever arrives", () => {
    for (const to of [1, 2, 3]) {
      server.commit([level(to, to === 1 ? null : to - 1)]);
      const { state } = store.snapshot();
      expect(state?.model.revision).toBe(state?.catalogue.revision);
      expect(shownModel()).toEqual(readModelOf(server.catalogue));
    }
  });

  it("shows a change before its consequences, and follows them when they come", () => {
    const { loads, stream, catalogue: before } = server;
    const events: LiveEvent[] = [];
    server.stream = { send: (_: string, event: unknown) => events.push(event as LiveEvent) } as never;
    server.commit([level(3)]);
    stream?.send("change", { changes: events[0].changes, ripple: null });
    const early = store.snapshot().state as Live;
    expect([shown(), early.catalogue.revision, early.model.revision]).toEqual([
      3,
      before.revision + 1,
      before.revision,
    ]);
    stream?.send("change", { changes: [], ripple: events[0].ripple });
    expect(shownModel()).toEqual(readModelOf(server.catalogue));
    expect(store.snapshot().state?.last?.message).toBe("Level of Eel nothing → 3");
    expect(server.loads).toBe(loads);
  });

  it("opens a pantry without readings, and loads them when they are there", async () => {
    server.computing = true;
    void store.load();
    await until(() => store.snapshot().state?.model.revision === -1);
    expect(store.snapshot().state?.model.findings).toEqual([]);
    server.computing = false;
    server.stream?.send("hello", { revision: server.catalogue.revision, analysed: server.catalogue.revision });
    await until(() => store.snapshot().state?.model.revision === server.catalogue.revision);
    expect(shownModel()).toEqual(readModelOf(server.catalogue));
  });

  it("loads again when it missed a revision, and ignores what it has already", async () => {
    const stream = server.stream;
    server.stream = null;
    server.commit([level(3)]);
    server.stream = stream;
    const loads = server.loads;
    server.commit([level(4, 3)]);
    await until(() => shown() === 4);
    expect(server.loads).toBe(loads + 1);
    stream?.send("beat", { revision: server.catalogue.revision });
    expect(server.loads).toBe(loads + 1);
  });

  it("tells what a change moved although the pantry was read again before it was told", async () => {
    const stream = server.stream as FakeEvents;
    const held: [string, unknown][] = [];
    const send = stream.send.bind(stream);
    stream.send = (name, data) => void held.push([name, data]);
    server.commit([level(9)]);
    stream.send = send;
    send("beat", { revision: server.catalogue.revision });
    await until(() => shown() === 9);
    expect(last()).toBeNull();
    for (const [name, data] of held) send(name, data);
    expect(last()?.message).toContain("→ 9");
    // Told once more, or an older one told late, it stays what it is.
    const before = last();
    for (const [name, data] of held) send(name, data);
    expect(last()).toBe(before);
  });

  it("tells what a change moved although the change before it was never told here", async () => {
    const { stream } = server;
    server.stream = null;
    server.commit([level(3)]);
    server.stream = stream;
    server.commit([level(4, 3)]);
    await until(() => last() !== null);
    expect(last()?.message).toBe("Level of Eel 3 → 4");
    expect([shown(), store.snapshot().state?.model.revision]).toEqual([4, server.catalogue.revision]);
  });

  it("tells a change also where its consequences were computed again, and what it moved if that is told after all", async () => {
    const events: LiveEvent[] = [];
    const { stream, catalogue: before } = server;
    server.stream = { send: (_: string, event: unknown) => events.push(event as LiveEvent) } as never;
    server.commit([level(3)]);
    stream?.send("change", { changes: events[0].changes, ripple: null });
    expect(last()).toBeNull();
    stream?.send("beat", { revision: server.catalogue.revision, analysed: server.catalogue.revision });
    await until(() => last() !== null);
    expect(last()).toMatchObject({ message: "Level of Eel nothing → 3", moved: null });
    stream?.send("change", { changes: [], ripple: events[0].ripple });
    expect(last()?.moved).toEqual(events[0].ripple?.moved);
    expect(before.revision).toBeLessThan(server.catalogue.revision);
  });

  it("finds out by a beat that it fell behind", async () => {
    const stream = server.stream;
    server.stream = null;
    server.commit([level(9)]);
    stream?.send("beat", { revision: server.catalogue.revision });
    await until(() => shown() === 9);
  });

  it("says when the link is lost, and when it is back", () => {
    server.stream?.onerror?.();
    expect(store.snapshot().link).toBe("away");
    server.stream?.send("hello", { revision: server.catalogue.revision });
    expect(store.snapshot().link).toBe("live");
  });

  it("sends edits with the author's name and answers once the readings followed", async () => {
    server.answer = (_, { edits }) => json({ revision: server.commit(edits ?? []) });
    const answer = await store.submit([level(5)]);
    expect(answer).toEqual({ ok: true, revision: server.catalogue.revision });
    expect(shown()).toBe(5);
    expect(decodeURIComponent(server.requests[0].author ?? "")).toBe("Ida Märsch");
    expect(store.snapshot()).toMatchObject({ busy: 0, canUndo: true, canRedo: false });
  });

  it("does not trouble the server with nothing", async () => {
    expect((await store.submit([])).ok).toBe(true);
    expect(server.requests).toEqual([]);
  });

  it("undoes its own last change, and takes the undo back again", async () => {
    server.answer = (path, { edits }) => {
      const undone = /changes\/(\d+)\/undo/.exec(path)?.[1];
      if (!undone) return json({ revision: server.commit(edits ?? []) });
      const now = item(server.catalogue, "Eel").level;
      return json({
        revision: server.commit([now === 5 ? ({ ...level(5), from: 5, to: null } as Edit) : level(5)], Number(undone)),
      });
    };
    const first = await store.submit([level(5)]);
    await store.undo();
    expect(server.requests[1].path).toBe(`/api/pantries/test/changes/${first.ok ? first.revision : ""}/undo`);
    expect(shown()).toBeNull();
    expect(store.snapshot()).toMatchObject({ canUndo: false, canRedo: true });
    const { answer } = server;
    server.answer = () => json({ title: "Too many requests", detail: "Later." }, 503);
    await store.redo();
    expect([shown(), store.snapshot().canRedo]).toEqual([null, true]);
    server.answer = answer;
    await store.redo();
    expect(shown()).toBe(5);
    expect(store.snapshot()).toMatchObject({ canUndo: true, canRedo: false });
  });

  it("can take back what it shows, even if the page is reloaded before the server has answered", async () => {
    const kept = new Map<string, string>();
    vi.stubGlobal("sessionStorage", {
      getItem: (name: string) => kept.get(name) ?? null,
      setItem: (name: string, text: string) => kept.set(name, text),
    });
    // The change reaches this window; the answer to it never does.
    server.answer = (path, { edits }) => {
      const undone = /changes\/(\d+)\/undo/.exec(path)?.[1];
      const now = item(server.catalogue, "Eel").level;
      server.commit(edits ?? [now === 5 ? level(null, 5) : level(5)], undone ? Number(undone) : null, "Ida Märsch");
      return new Promise<never>(() => {}) as never;
    };
    const reload = async () => {
      close();
      store = new PantryStore("test");
      store.author = "Ida Märsch";
      close = store.open();
      await until(() => store.snapshot().state !== null);
    };
    await reload();
    void store.submit([level(5)]);
    await until(() => shown() === 5);
    expect(store.snapshot()).toMatchObject({ canUndo: true, canRedo: false });
    await reload();
    expect(store.snapshot()).toMatchObject({ canUndo: true, canRedo: false });
    void store.undo();
    await until(() => shown() === null);
    await reload();
    expect(store.snapshot()).toMatchObject({ canUndo: false, canRedo: true });
    void store.redo();
    await until(() => shown() === 5);
    await reload();
    expect(store.snapshot()).toMatchObject({ canUndo: true, canRedo: false });
    // What someone else did in the meantime is not this window's.
    void store.submit([level(6, 5)]);
    await until(() => shown() === 6);
    server.commit([level(7, 6)], null, "Odo");
    await until(() => shown() === 7);
    await reload();
    server.answer = () => json({ title: "Too many requests", detail: "Later." }, 503);
    await store.undo();
    expect(server.requests.at(-1)?.path).toContain(`/changes/${server.catalogue.revision - 1}/undo`);
  });

  it("reads what was typed when its turn comes: two quick writes and an undo are no conflict with oneself", async () => {
    const seen: Edit[] = [];
    server.answer = (path, { edits }) => {
      if (path.endsWith("/undo")) return json({ revision: server.commit([level(5, 6)]) });
      seen.push(...(edits ?? []));
      return json({ revision: server.commit(edits ?? []) });
    };
    const typed = (to: number) => (now: Catalogue) => ({
      edits: [setField(now, "item", item(now, "Eel").id, "level", to)],
    });
    expect(store.unanswered).toBe(0);
    const answers = [
      store.write(typed(5)),
      store.write(typed(6)),
      store.undo(),
      store.write(() => ({ message: "“many” is not a number." })),
    ];
    // Whoever closes the window now is asked first.
    expect(store.unanswered).toBe(4);
    expect(await Promise.all(answers)).toMatchObject([
      { ok: true },
      { ok: true },
      undefined,
      { ok: false, message: "“many” is not a number." },
    ]);
    expect(store.unanswered).toBe(0);
    expect(seen).toEqual([level(5), level(6, 5)]);
    expect(server.requests[2].path).toContain(`/changes/${server.catalogue.revision - 1}/undo`);
    expect(shown()).toBe(5);
  });

  it("says when an icon that was written is none that anybody knows", async () => {
    const icon = (to: string): Edit => ({
      op: "set",
      kind: "item",
      id: item(server.catalogue, "Eel").id,
      field: "icon",
      from: item(server.catalogue, "Eel").icon,
      to,
    });
    server.strange = ["no-such-fish"];
    server.answer = (_, { edits = [] }) => Response.json({ revision: server.commit(edits), edits: 1 });
    expect(await store.submit([icon("no-such-fish")])).toMatchObject({ ok: true });
    await until(() => store.snapshot().notice !== null);
    expect(server.asked).toEqual(["/api/pantries/test/pictures?name=no-such-fish"]);
    expect(store.snapshot().notice?.message).toContain("There is no icon called “no-such-fish”");
    store.dismiss();
    await store.submit([level(4)]);
    expect(server.asked).toHaveLength(1);
  });

  it("shows a refusal with its reason and keeps everything as it was", async () => {
    server.answer = () => json({ title: "This can't be saved", detail: "99999 is outside 0 to 1000." }, 422);
    expect(await store.submit([level(99_999)])).toEqual({ ok: false, message: "99999 is outside 0 to 1000." });
    expect(store.snapshot().notice).toMatchObject({ title: "This can't be saved" });
    expect(shown()).toBeNull();
    store.dismiss();
    expect(store.snapshot().notice).toBeNull();
  });

  it("offers to write over a conflict, against the newer value", async () => {
    server.commit([level(7)]);
    const conflict = {
      kind: "item",
      id: level(9).op === "set" ? item(server.catalogue, "Eel").id : "",
      name: "Eel",
      field: "level",
      base: null,
      yours: 9,
      theirs: 7,
      message: "Someone else changed level of Eel.",
    };
    server.answer = (_, { edits }) => {
      const [edit] = edits ?? [];
      return edit.op === "set" && edit.from === 7
        ? json({ revision: server.commit(edits ?? []) })
        : json({ title: "Someone else changed this first", detail: conflict.message, conflicts: [conflict] }, 409);
    };
    expect((await store.submit([level(9)])).ok).toBe(false);
    const { notice } = store.snapshot();
    expect(notice?.conflicts[0]).toMatchObject({ yours: 9, theirs: 7 });
    notice?.insist?.();
    await until(() => shown() === 9);
    expect(store.snapshot().notice).toBeNull();
  });

  it("says that nothing was written when the server is away", async () => {
    vi.stubGlobal("fetch", () => Promise.reject(new TypeError("failed")));
    const answer = await store.submit([level(5)]);
    expect(answer.ok).toBe(false);
    expect(store.snapshot().notice?.message).toContain(
      "Nothing was saved. What you typed is still here. Try again when you are back online.",
    );
    expect(store.snapshot().busy).toBe(0);
  });

  it("uses the core's own edits, so that a set carries what it replaces", () => {
    const now = store.snapshot().state?.catalogue as Catalogue;
    expect(setField(now, "item", item(now, "Eel").id, "level", 2)).toEqual(level(2));
  });
});
