import { afterEach, describe, expect, it, vi } from "vitest";
import type { Progress } from "@/core/exchange/progress";
import { newPantry, PantryApi } from "./api";

const api = new PantryApi("/api/pantries/cellar");
const asked: { path: string; init?: RequestInit }[] = [];
const answering = (answer: () => Response | Promise<Response>) =>
  vi.stubGlobal("fetch", async (path: string, init?: RequestInit) => {
    asked.push({ path, init });
    return answer();
  });
/** A body that comes in pieces, cut anywhere. */
const pieces = (...texts: string[]) =>
  new Response(
    new ReadableStream<Uint8Array>({
      start(controller) {
        for (const text of texts) controller.enqueue(new TextEncoder().encode(text));
        controller.close();
      },
    }),
  );
afterEach(() => {
  asked.length = 0;
  vi.unstubAllGlobals();
});

const imported = async (progress: Progress[] = []) =>
  api.importBundle(
    { name: "a&b \uD800.json", text: "{}" },
    { dry: true, replace: true, author: "Ida Märsch" },
    { progress: (p) => progress.push(p), signal: new AbortController().signal },
  );

describe("an import", () => {
  it("tells how far it is, line by line however the lines are cut, and what came of it", async () => {
    answering(() =>
      pieces(
        '{"progress":{"stage":"reading","do',
        'ne":1,"of":2}}\n{"progress":{"stage":"writing","done":2,"of":2}}\n{"sta',
        'tus":200,"body":{"added":3,"notes":[]}}\n',
      ),
    );
    const told: Progress[] = [];
    expect(await imported(told)).toEqual({ ok: true, value: { added: 3, notes: [] } });
    expect(told.map((p) => [p.stage, p.done])).toEqual([
      ["reading", 1],
      ["writing", 2],
    ]);
    expect(asked[0].path).toBe("/api/pantries/cellar/bundle?progress=1&dry=1&replace=1&name=a%26b%20.json");
    expect(new Headers(asked[0].init?.headers).get("x-salty-author")).toBe("Ida%20M%C3%A4rsch");
  });

  it("says why it was refused, before or after it was begun, and that the server went away", async () => {
    answering(() => new Response('{"title":"Too large","detail":"At most 64 MB."}', { status: 413 }));
    expect(await imported()).toMatchObject({ ok: false, problem: { status: 413, title: "Too large", issues: [] } });
    answering(() =>
      pieces('{"status":422,"body":{"title":"Refused","issues":[{"path":"items[0]","message":"No."}]}}\n'),
    );
    expect(await imported()).toMatchObject({ ok: false, problem: { status: 422, issues: [{ path: "items[0]" }] } });
    answering(() => pieces('{"progress":{"stage":"reading","done":1,"of":2}}\n'));
    expect(await imported()).toMatchObject({ ok: false, problem: { status: 0 } });
    answering(() => Promise.reject(new TypeError("failed")));
    expect(await imported()).toMatchObject({ ok: false, problem: { status: 0, title: "The server isn't responding" } });
  });
});

describe("a change", () => {
  it("is sent even when the page is left meanwhile, unless it is too large for that", async () => {
    answering(() => new Response('{"revision":2}'));
    const named = (name: string) => api.change([{ op: "add", kind: "item", record: { name } } as never], "", "Ida");
    expect(await named("Oar")).toEqual({ ok: true, value: { revision: 2 } });
    await named("o".repeat(16_000));
    await api.undo(2, "Ida");
    await api.whatIf([]);
    expect(asked.map(({ init }) => init?.keepalive)).toEqual([true, false, true, undefined]);
  });
});

describe("other addresses", () => {
  it("give values, or the problem's words", async () => {
    answering(() => new Response('{"key":"cellar"}', { status: 201 }));
    expect(await newPantry("Cellar")).toEqual({ ok: true, value: { key: "cellar" } });
    answering(() => new Response("not JSON", { status: 500 }));
    expect(await newPantry("Cellar")).toMatchObject({ ok: false, problem: { status: 500, title: "Refused" } });
    answering(() => new Response('{"detail":"It may have been removed."}', { status: 404 }));
    await expect(api.costs("a" as never)).rejects.toThrow("It may have been removed.");
    expect(await api.snapshot()).toBe("missing");
    answering(() => new Response("{}", { status: 503 }));
    expect(await api.snapshot()).toBeNull();
  });
});
