/** A server of one pantry inside the test: the same answers, the same events. */
import { gzipSync } from "node:zlib";
import type { Catalogue } from "@/core/catalogue/catalogue";
import type { Edit } from "@/core/catalogue/edit";
import { costByLevel } from "@/core/analysis/cost-by-level";
import { itemCosts } from "@/core/analysis/item-costs";
import { originsOf } from "@/core/analysis/origins";
import { Engine } from "@/core/engine/engine";
import type { PackedReadModel } from "@/core/engine/read-model";
import type { Id } from "@/core/schema/id";
import type { LoggedChange } from "@/core/history/log";
import { KINDS } from "@/core/kinds/index";
import { kitchen, must } from "@/core/testing/kitchen";
import { readModelOf, rippleOf } from "@/core/testing/read-model";

export class FakeServer {
  constructor(
    public catalogue: Catalogue = kitchen("gather Eel in 20s\nbuy Salt for 1\nSmoke: 2 Eel + 4 Salt -> 1 Smoked eel"),
  ) {
    FakeEvents.of = this;
  }
  loads = 0;
  /** No readings yet. */
  computing = false;
  requests: { path: string; body: { edits?: Edit[] }; author: string | null }[] = [];
  answer: (path: string, body: { edits?: Edit[] }) => Response = () => new Response("{}", { status: 500 });
  stream: FakeEvents | null = null;
  /** Icons that no one knows, and what was asked about them. */
  strange: string[] = [];
  asked: string[] = [];

  fetch = async (path: string, init: RequestInit = {}): Promise<Response> => {
    if (path.includes("/pictures?")) {
      this.asked.push(path);
      return Response.json(this.strange);
    }
    const read = this.reading(path);
    if (read) return Response.json({ revision: this.catalogue.revision, ...read });
    if (path.includes("/findings/since?")) return this.since(Number(path.split("revision=")[1]));
    if (path.includes("/changes?")) return Response.json(this.changes);
    if (init.method !== "POST") {
      this.loads++;
      const records = Object.fromEntries(
        KINDS.map((k) => [k, [...(this.catalogue.records[k] as ReadonlyMap<string, object>).values()]]),
      );
      const text = JSON.stringify({
        revision: this.catalogue.revision,
        pantry: this.catalogue.pantry,
        records,
        model: this.computing ? null : readModelOf(this.catalogue),
        analysis: {
          revision: this.computing ? -1 : this.catalogue.revision,
          state: this.computing ? "computing" : "done",
        },
      });
      return new Response(new Uint8Array(gzipSync(text)));
    }
    const body = init.body ? (JSON.parse(init.body as string) as { edits?: Edit[] }) : {};
    if (path.endsWith("/what-if"))
      return Response.json({
        ripple: rippleOf(readModelOf(this.catalogue), readModelOf(must(this.catalogue, body.edits ?? []))),
      });
    this.requests.push({ path, body, author: new Headers(init.headers).get("x-salty-author") });
    return this.answer(path, body);
  };

  /** Commits and tells everyone, as the real one does. */
  commit(edits: readonly Edit[], undoes: number | null = null, author = "Ida"): number {
    const before = readModelOf(this.catalogue);
    this.earlier.set(this.catalogue.revision, before);
    this.catalogue = must(this.catalogue, edits);
    const after = readModelOf(this.catalogue);
    const ripple = rippleOf(before, after);
    const { revision } = this.catalogue;
    const at = new Date().toISOString();
    const change = { revision, author, at, note: "", undoes, edits, size: edits.length, moved: ripple.moved };
    this.changes.unshift(change);
    this.stream?.send("change", { changes: [change], ripple });
    return revision;
  }
  /** What the real one answers from its readings. */
  private reading(path: string): object | null {
    const engine = () => new Engine(this.catalogue);
    if (path.endsWith("/origins")) return originsOf(engine().readings);
    const [, id, what] = /\/items\/([0-9a-z]{12})\/(costs|trend)(?:\?|$)/.exec(path) ?? [];
    if (what === "costs") return itemCosts(engine().readings, id as Id);
    if (what !== "trend") return null;
    const here = engine();
    const { steps, more } = costByLevel(here.readings, here.readings.compiled.numberOf(id as Id) ?? -1);
    const history = here.costHistory(id as Id, [...this.changes].reverse());
    return { history, levels: steps, moreLevels: more };
  }

  /** The log, newest first. */
  readonly changes: LoggedChange[] = [];
  private readonly earlier = new Map<number, PackedReadModel>();

  private since(revision: number): Response {
    const before = this.earlier.get(revision) ?? readModelOf(this.catalogue);
    const { put, drop } = rippleOf(before, readModelOf(this.catalogue));
    const there = new Set(before.findings.map((f) => f.fingerprint));
    return Response.json({
      from: revision,
      revision: this.catalogue.revision,
      added: put.flatMap((f) => (there.has(f.fingerprint) ? [] : [f.fingerprint])),
      gone: before.findings.filter((f) => drop.includes(f.fingerprint)),
      moreGone: 0,
    });
  }
}

/** The event stream of the fake server that was created last. */
export class FakeEvents {
  static of: FakeServer;
  static CLOSED = 2;
  readyState = 1;
  onerror: (() => void) | null = null;
  private readonly listeners = new Map<string, (m: { data: string }) => void>();
  constructor() {
    FakeEvents.of.stream = this;
  }
  addEventListener(name: string, listener: (m: { data: string }) => void): void {
    this.listeners.set(name, listener);
  }
  send(name: string, data: unknown): void {
    this.listeners.get(name)?.({ data: JSON.stringify(data) });
  }
  close(): void {
    this.readyState = 2;
  }
}
