/** The program's own API as the browser calls it: every address, with what goes in and what comes back. */
import type { ItemCosts } from "@/core/analysis/item-costs";
import type { RecipeCosts } from "@/core/analysis/recipe-costs";
import type { CostTrend } from "@/core/analysis/cost-trend";
import type { Origin } from "@/core/analysis/origins";
import type { Glance } from "@/core/analysis/glance";
import type { AskedPlan, PlanAnswer } from "@/core/analysis/plan-written";
import type { Ask, Chain } from "@/core/chains/chain";
import type { EngineAsk, EngineQuestions } from "@/core/engine/answers";
import type { Conflict } from "@/core/catalogue/apply";
import type { Packed } from "@/core/catalogue/catalogue";
import { setupOf } from "@/core/exchange/setup";
import type { Edit } from "@/core/catalogue/edit";
import type { AnalysisState, FindingsSince, PackedReadModel, Ripple } from "@/core/engine/read-model";
import type { Progress } from "@/core/exchange/progress";
import type { LoggedChange } from "@/core/history/log";
import type { Id } from "@/core/schema/id";
import type { Issue } from "@/core/schema/issue";

/** Why something was not done; see the server's problem details. `status` 0: there was no answer. */
export interface Problem {
  readonly status: number;
  readonly title: string;
  readonly detail: string;
  readonly conflicts: readonly Conflict[];
  /** What is wrong, and where. */
  readonly issues: readonly Issue[];
}
export type Reply<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly problem: Problem };

export interface ImportPlan {
  readonly added: number;
  readonly changed: number;
  readonly removed: number;
  readonly same: number;
  readonly settings: number;
  readonly pictures: number;
  readonly notes: readonly Issue[];
}

const AWAY: Problem = {
  status: 0,
  title: "The server isn't responding",
  detail: "Nothing was saved. What you typed is still here. Try again when you are back online.",
  conflicts: [],
  issues: [],
};
const problemOf = (status: number, body: Partial<Problem> | null): Problem => ({
  status,
  title: body?.title ?? "Refused",
  detail: body?.detail ?? "",
  conflicts: body?.conflicts ?? [],
  issues: body?.issues ?? [],
});

/** Half a character can't be sent. */
const wellFormed = (text: string): string => text.replace(/\p{Surrogate}/gu, "");

async function reply<T>(asking: Promise<Response>): Promise<Reply<T>> {
  const answer = await asking.catch(() => null);
  if (!answer) return { ok: false, problem: AWAY };
  const body: unknown = await answer.json().catch(() => null);
  return answer.ok && body !== null
    ? { ok: true, value: body as T }
    : { ok: false, problem: problemOf(answer.status, body as Partial<Problem> | null) };
}

/** The value, or an exception with the problem's words: for what is asked again by itself. */
async function valueIn<T>(asking: Promise<Response>): Promise<T> {
  const got = await reply<T>(asking);
  if (got.ok) return got.value;
  throw new Error(got.problem.detail || got.problem.title);
}

const sent = (method: string, body: unknown, author = ""): RequestInit => ({
  method,
  headers: { "content-type": "application/json", "x-salty-author": encodeURIComponent(wellFormed(author)) },
  body: typeof body === "string" || body === undefined ? body : JSON.stringify(body),
});

/** Characters of a body that a browser still sends when the page is left meanwhile: 64 kB at most, of all that is on its way. */
const SMALL = 16_000;

/** The same for what must not be lost when someone goes elsewhere or reloads right after it. */
function writing(body: unknown, author: string): RequestInit {
  const init = sent("POST", body, author);
  return { ...init, keepalive: typeof init.body !== "string" || init.body.length <= SMALL };
}

export const newPantry = (name: string): Promise<Reply<{ readonly key: string }>> =>
  reply(fetch("/api/pantries", sent("POST", { name })));

/** Gives a new pantry what another was set up with: everything but items, and what is made of items. */
export async function copySetup(from: string, to: string): Promise<string | null> {
  const answer = await fetch(`/api/pantries/${encodeURIComponent(from)}/bundle`).catch(() => null);
  if (!answer?.ok) return AWAY.detail;
  const got = await new PantryApi(`/api/pantries/${encodeURIComponent(to)}`).importBundle(
    { name: "setup.json", text: setupOf(await answer.text()) },
    { dry: false, replace: false, author: "" },
    { progress: () => undefined, signal: new AbortController().signal },
  );
  return got.ok ? null : got.problem.detail;
}

/** A new pantry with what a bundle holds, named as the bundle says, else as its file. */
export async function importAsNew(file: {
  readonly name: string;
  readonly text: string;
}): Promise<{ readonly key: string } | { readonly message: string }> {
  let name = file.name.replace(/\.json$/i, "");
  try {
    const said = (JSON.parse(file.text) as { pantry?: { name?: unknown } } | null)?.pantry?.name;
    if (typeof said === "string" && said.trim()) name = said.trim().slice(0, 120);
  } catch {
    return { message: `${file.name} isn't a bundle: it is not valid JSON.` };
  }
  const made = await newPantry(name);
  if (!made.ok) return { message: made.problem.detail };
  const { key } = made.value;
  const api = new PantryApi(`/api/pantries/${encodeURIComponent(key)}`);
  const got = await api.importBundle(
    file,
    { dry: false, replace: false, author: "" },
    { progress: () => undefined, signal: new AbortController().signal },
  );
  if (got.ok) return { key };
  // Nothing is left of a pantry whose bundle has errors.
  await api.deletePantry(name, "");
  const [first] = got.problem.issues;
  return { message: `${got.problem.title}. ${first ? `${first.path}: ${first.message}` : got.problem.detail}` };
}

/** Every pantry of this server. */
export const allPantries = (): Promise<readonly { readonly key: string; readonly name: string }[]> =>
  valueIn(fetch("/api/pantries"));

/** Names of icons in which all words stand. */
export const findIcons = (words: string): Promise<readonly string[]> =>
  valueIn(fetch(`/api/icons?q=${encodeURIComponent(words)}`));

/** Icons whose drawings are asked for at once. */
export const MOST_ICONS = 100;
/** Drawings of icons by name; those without one are left out. */
export const iconBodies = (names: readonly string[]): Promise<Readonly<Record<string, string>>> =>
  valueIn(fetch(`/api/icon-bodies?${new URLSearchParams([...names].sort().map((name) => ["name", name]))}`));

export interface Snapshot extends Packed {
  readonly model: PackedReadModel | null;
  readonly analysis: AnalysisState;
}

/** How often, and how long apart [ms], readings that are still being computed are asked for again. */
const [MOST_TRIES, BETWEEN] = [240, 250];

/** @throws where there is no such record */
function found<T>(answer: T): NonNullable<T> {
  if (answer === null || answer === undefined) throw new Error("It may have been removed.");
  return answer;
}

/** One pantry. */
export class PantryApi {
  /** The revision that the window is at: answers of an earlier one are asked for again. */
  revision = 0;

  constructor(private readonly path: string) {}

  /** A reading of the revision that the window is at; waits while it is still being computed. */
  private async current<T>(path: string): Promise<T> {
    for (let tries = 0; ; tries++) {
      const got = await reply<T>(fetch(`${this.path}${path}`));
      const behind = got.ok
        ? ((got.value as { readonly revision?: number }).revision ?? this.revision) < this.revision
        : got.problem.title === "Still computing";
      if (!behind || tries >= MOST_TRIES) {
        if (got.ok) return got.value;
        throw new Error(got.problem.detail || got.problem.title);
      }
      await new Promise((done) => setTimeout(done, BETWEEN));
    }
  }

  /** Answers in place of the server, while the window looks at the pantry through a scenario. */
  through:
    | (<Q extends EngineAsk>(ask: Q, question: EngineQuestions[Q]["question"]) => Promise<EngineQuestions[Q]["answer"]>)
    | null = null;

  private async read<Q extends EngineAsk>(
    ask: Q,
    question: EngineQuestions[Q]["question"],
    path: string,
  ): Promise<NonNullable<EngineQuestions[Q]["answer"]>> {
    return this.through ? found(await this.through(ask, question)) : this.current(path);
  }

  /** Where its bundle can be had. */
  get bundleAddress(): string {
    return `${this.path}/bundle`;
  }
  events = (): EventSource => new EventSource(`${this.path}/events`);

  /** All records of one revision, with the newest readings there are; null: it can't be read right now. */
  async snapshot(): Promise<Snapshot | "missing" | null> {
    const answer = await fetch(this.path, { cache: "no-store", headers: { accept: "application/gzip" } }).catch(
      () => null,
    );
    if (answer?.status === 404) return "missing";
    if (!answer?.ok || !answer.body) return null;
    return new Response(answer.body.pipeThrough(new DecompressionStream("gzip"))).json().catch(() => null);
  }

  change = (edits: readonly Edit[], note: string, author: string): Promise<Reply<{ readonly revision: number }>> =>
    reply(fetch(`${this.path}/changes`, writing({ edits, note }, author)));
  /** What edits would move, without writing them. */
  whatIf = (edits: readonly Edit[]): Promise<Reply<{ readonly ripple: Ripple }>> =>
    reply(fetch(`${this.path}/what-if`, sent("POST", { edits })));
  /** What the checks find now and did not find at a revision, and what is gone since. */
  findingsSince = (revision: number): Promise<FindingsSince> => this.current(`/findings/since?revision=${revision}`);
  undo = (revision: number, author: string): Promise<Reply<{ readonly revision: number }>> =>
    reply(fetch(`${this.path}/changes/${revision}/undo`, writing(undefined, author)));
  deletePantry = (name: string, author: string): Promise<Reply<unknown>> =>
    reply(fetch(this.path, sent("DELETE", { name }, author)));

  /** A page of the log, newest first, below a revision. */
  changes = (most: number, before?: number): Promise<readonly LoggedChange[]> =>
    valueIn(fetch(`${this.path}/changes?most=${most}${before ? `&before=${before}` : ""}`));
  /** One change with its edits, of a large one the first. */
  changeAt = (revision: number): Promise<LoggedChange> => valueIn(fetch(`${this.path}/changes?revision=${revision}`));
  historyOf = (record: Id, most: number): Promise<readonly LoggedChange[]> =>
    valueIn(fetch(`${this.path}/changes?of=${record}&most=${most}`));
  costs = (item: Id): Promise<ItemCosts> => this.read("costs", { item }, `/items/${item}/costs`);
  /** @param history  going back over changes is work for the server: only where someone asks to see it */
  costTrend = (item: Id, history: boolean): Promise<CostTrend> =>
    this.read("costTrend", { item, changes: [] }, `/items/${item}/trend${history ? "?history=1" : ""}`);
  origins = (): Promise<{ readonly origins: readonly Origin[] }> => this.read("origins", {}, "/origins");
  runs = (recipe: Id): Promise<RecipeCosts> => this.read("runs", { recipe }, `/recipes/${recipe}/costs`);
  /** What the first thing that some recipes make costs by each; as many as can be asked for at once. */
  madeFor = async (of: readonly Id[]): Promise<ReadonlyMap<Id, number | null>> => {
    const recipes = of.slice(0, 100);
    const query = new URLSearchParams(recipes.map((id) => ["of", id]));
    return new Map((await this.read("madeFor", { recipes }, `/recipes?${query}`)).costs);
  };
  glance = (): Promise<Glance> => this.read("glance", {}, "/glance");
  plan = async (of: AskedPlan): Promise<NonNullable<PlanAnswer>> => {
    const query = new URLSearchParams({ by: of.measure });
    if (of.confidence !== undefined) query.set("confidence", String(of.confidence));
    for (const [item, n] of of.make) query.append("make", `${item}:${n}`);
    for (const [item, n] of of.stock) query.append("stock", `${item}:${n}`);
    if (!this.through) return this.current(`/plan?${query}`);
    return found((await this.through("plan", { of })).plan);
  };
  chain = (item: Id, of: Ask): Promise<Chain> => {
    const query = new URLSearchParams({ by: of.measure, onward: String(of.onward), most: String(of.most) });
    for (const way of of.ways) query.append("way", way);
    return this.read("chain", { item, of }, `/items/${item}/chain?${query}`);
  };

  /** Imports a bundle, or with `dry` says what that would do. What was begun is taken back where `signal` ends it. */
  async importBundle(
    file: { readonly name: string; readonly text: string },
    options: { readonly dry: boolean; readonly replace: boolean; readonly author: string },
    { progress, signal }: { readonly progress: (progress: Progress) => void; readonly signal: AbortSignal },
  ): Promise<Reply<ImportPlan>> {
    const query = `progress=1${options.dry ? "&dry=1" : ""}${options.replace ? "&replace=1" : ""}&name=${encodeURIComponent(wellFormed(file.name))}`;
    const answer = await fetch(`${this.path}/bundle?${query}`, {
      ...sent("POST", file.text, options.author),
      signal,
    }).catch(() => null);
    if (!answer?.ok || !answer.body) return reply(answer ? Promise.resolve(answer) : Promise.reject());
    let last: { readonly status: number; readonly body: unknown } | null = null;
    for await (const line of linesOf(answer.body)) {
      const said = JSON.parse(line) as { progress?: Progress; status?: number; body?: unknown };
      if (said.progress) progress(said.progress);
      else last = { status: said.status ?? 0, body: said.body };
    }
    if (!last) return { ok: false, problem: AWAY };
    return last.status < 300
      ? { ok: true, value: last.body as ImportPlan }
      : { ok: false, problem: problemOf(last.status, last.body as Partial<Problem>) };
  }

  /** Those of some icons' names that no one knows; as many as can be asked for at once. */
  strangeIcons = (names: readonly string[]): Promise<readonly string[]> =>
    valueIn(fetch(`${this.path}/pictures?${new URLSearchParams(names.slice(0, 50).map((name) => ["name", name]))}`));

  /** Keeps a picture; its name is what an icon says then. */
  bringPicture(bytes: Uint8Array): Promise<Reply<{ readonly icon: string; readonly leftOut: readonly string[] }>> {
    let text = "";
    for (let at = 0; at < bytes.length; at += 0x8000) text += String.fromCharCode(...bytes.subarray(at, at + 0x8000));
    return reply(fetch(`${this.path}/pictures`, sent("POST", { base64: btoa(text) })));
  }
}

/** Lines of a text that comes piece by piece; it may break off. */
async function* linesOf(body: ReadableStream<Uint8Array>): AsyncGenerator<string> {
  const reader = body.pipeThrough(new TextDecoderStream() as TransformStream<Uint8Array, string>).getReader();
  let rest = "";
  for (;;) {
    const { done, value } = await reader.read().catch(() => ({ done: true, value: undefined }));
    if (done || value === undefined) return;
    const lines = (rest + value).split("\n");
    rest = lines.pop() ?? "";
    yield* lines.filter(Boolean);
  }
}
