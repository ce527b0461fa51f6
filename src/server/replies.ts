/** What HTTP answers to the outcomes of use cases: 200 with what came of it, or problem details. */
import type { Edit } from "../core/catalogue/edit";
import type { Progress } from "../core/exchange/progress";
import { type Id, isId } from "../core/schema/id";
import { issue } from "../core/schema/issue";
import { withPictures } from "../core/exchange/pictures";
import { picturesOf } from "../store/pictures";
import type { Refused } from "../store/prepare";
import type { Actor } from "./acting";
import { BUNDLE, readBody } from "./body";
import type { AskedPlan } from "../core/analysis/plan-written";
import { type Ask, ASKED } from "../core/chains/chain";
import type { Engine } from "./engine";
import type { Host } from "./host";
import { json, jsonText, problem } from "./problem";
import {
  amountIn,
  type BundleAsked,
  type ChainAsked,
  type LogAsked,
  type PlanAsked,
  type RecipesAsked,
  type SinceAsked,
  type TrendAsked,
} from "./queries";
import type { Call } from "./route";
import type { Intent, Unread } from "./use-cases/intents";
import { allEditsOf, changeOf, changes, editsSince, lastEdits, MOST_SINCE } from "./use-cases/log";
import { endPantry, newPantry } from "./use-cases/pantries";
import { type Imported, importBundle, LONG, type Submitted } from "./use-cases/writing";

/** Changes that the history of a cost goes back. */
const MOST_TREND = 100;
/** Most of what is wrong that one answer tells. */
const TOLD = 50;

/**
 * Commits what is intended and answers once every reading has followed, or half a second later: the revision, 409
 * conflict or 422 refused.
 */
export async function change(
  engine: Engine,
  actor: Actor,
  intent: Intent,
  { note = "", signal }: { note?: string; signal?: AbortSignal } = {},
): Promise<Response> {
  return submitted(await engine.submit({ author: actor.name, note }, intent, { signal }));
}

function submitted(outcome: Submitted): Response {
  if ("issues" in outcome) return unread(outcome);
  const { committed } = outcome;
  return committed.ok ? json({ revision: committed.revision, edits: committed.change?.size ?? 0 }) : refusal(committed);
}

const refusal = ({ conflicts, issues }: Refused): Response =>
  conflicts.length
    ? problem(
        409,
        "Someone else changed this first",
        conflicts
          .slice(0, 3)
          .map((c) => c.message)
          .join(" "),
        { conflicts: conflicts.slice(0, TOLD), issues: issues.slice(0, TOLD) },
      )
    : problem(
        422,
        "This can't be saved",
        issues
          .slice(0, 3)
          .map((f) => f.message)
          .join(" "),
        { issues: issues.slice(0, TOLD) },
      );

const unread = ({ issues, notes }: Unread): Response =>
  problem(
    422,
    "The bundle has errors and nothing was saved",
    issues
      .slice(0, 3)
      .map((p) => `${p.path}: ${p.message}`)
      .join(" "),
    { issues, notes },
  );

const NO_CHANGE = problem.bind(null, 404, "No such change", "The Log has no such revision.");

/** The log, newest first, or one change of it with its edits. */
export async function log(engine: Engine, host: Host, { revision, of, before, most }: LogAsked): Promise<Response> {
  const number = (text: string | undefined) => (text === undefined ? undefined : Number(text));
  if (revision === undefined)
    return json(
      await changes(host.em, engine.pantry, { of: of as Id | undefined, before: number(before), most: number(most) }),
    );
  const found = await changeOf(host.em, engine.pantry, Number(revision));
  if (!found) return NO_CHANGE();
  const { edits, moved, ...head } = found;
  return jsonText(`${JSON.stringify(head).slice(0, -1)},"moved":${moved ?? "null"},"edits":${edits}}`);
}

/** The whole pantry as a bundle file, with the pictures that its records show. */
export async function bundleOf(engine: Engine, host: Host): Promise<Response> {
  const { text, key, pictures } = await engine.bundle({ limit: LONG });
  const response = jsonText(
    pictures.length
      ? streamed(withPictures(Buffer.from(text).toString(), picturesOf(host.em, engine.pantry, pictures)))
      : text,
  );
  response.headers.set("content-disposition", `attachment; filename="${key.replace(/[^a-z0-9_]/g, "_")}.json"`);
  return response;
}

/** Text that is made while it is read. */
function streamed(parts: AsyncGenerator<string>): ReadableStream<Uint8Array> {
  const encoder = new TextEncoder();
  return new ReadableStream({
    async pull(controller) {
      const { done, value } = await parts.next();
      if (done) controller.close();
      else controller.enqueue(encoder.encode(value));
    },
    cancel: async () => void (await parts.return(undefined)),
  });
}

export async function undo({
  engine,
  host,
  actor,
  request: { signal },
  params,
}: Call & { engine: Engine }): Promise<Response> {
  const revision = /^[1-9]\d{0,9}$/.test(params.revision) ? Number(params.revision) : 0;
  const edits = await allEditsOf(host.em, engine.pantry, revision);
  if (!edits) return NO_CHANGE();
  return submitted(
    await engine.submit(
      { author: actor.name, note: "", undoes: revision },
      { do: "undo", edits },
      { limit: LONG, signal },
    ),
  );
}

/** What one of an item costs and what it gives back; see ItemCosts. */
export async function costsOf(engine: Engine, id: string): Promise<Response> {
  const costs = isId(id) ? await engine.ask("costs", { item: id as Id }, { limit: 20_000 }) : null;
  return costs ? json(costs) : problem(404, "No such item", "It may have been removed.");
}

/** What one run of a recipe costs, by each of its ways; see RecipeCosts. */
export async function runsOf(engine: Engine, id: string): Promise<Response> {
  const runs = isId(id) ? await engine.ask("runs", { recipe: id as Id }, { limit: 20_000 }) : null;
  return runs ? json(runs) : problem(404, "No such recipe", "It may have been removed.");
}

/** What the first thing that recipes make costs by each of them. */
export const madeForReply = async (engine: Engine, { of }: RecipesAsked): Promise<Response> =>
  json(await engine.ask("madeFor", { recipes: of as Id[] }, { limit: 20_000 }));

/** The chain of an item; see Chain. */
export async function chainReply(engine: Engine, id: string, query: ChainAsked): Promise<Response> {
  const of: Ask = {
    measure: query.by ?? ASKED.measure,
    ways: query.way,
    onward: Number(query.onward ?? ASKED.onward),
    most: Number(query.most ?? ASKED.most),
  };
  const chain = isId(id) ? await engine.ask("chain", { item: id as Id, of }, { limit: 20_000 }) : null;
  return chain ? json(chain) : problem(404, "No such item", "It may have been removed.");
}

/** What to run, gather and bring for a basket; see WrittenPlan. */
export async function planReply(engine: Engine, { make, stock, by, confidence }: PlanAsked): Promise<Response> {
  const of: AskedPlan = {
    make: make.map(amountIn),
    stock: stock.map(amountIn),
    measure: by ?? "value",
    ...(confidence === undefined ? {} : { confidence: Number(confidence) }),
  };
  const { plan } = await engine.ask("plan", { of }, { limit: 20_000 });
  return plan ? json(plan) : problem(404, "No such item", "It may have been removed.");
}

/** What an item costs at each level and, where asked for, cost after each of the last changes; see CostTrend. */
export async function costTrend(
  engine: Engine,
  host: Host,
  id: string,
  { history }: TrendAsked,
  signal: AbortSignal,
): Promise<Response> {
  const wanted = isId(id) && history === "1";
  const changes = wanted ? await lastEdits(host.em, engine.pantry, MOST_TREND) : [];
  const trend = isId(id) ? await engine.ask("costTrend", { item: id as Id, changes }, { signal, limit: 20_000 }) : null;
  return trend ? json(trend) : problem(404, "No such item", "It may have been removed.");
}

/** What the checks find now and did not at an earlier revision, and what is gone since; see FindingsSince. */
export async function findingsSince(
  engine: Engine,
  host: Host,
  { revision }: SinceAsked,
  signal: AbortSignal,
): Promise<Response> {
  const from = Number(revision);
  const changes = await editsSince(host.em, engine.pantry, from);
  if (changes === "too many")
    return problem(
      422,
      "Too many changes",
      `More than ${MOST_SINCE} values changed since revision ${from}. Choose a later revision.`,
    );
  const since = await engine.ask("since", { changes }, { signal, limit: 20_000 });
  return since
    ? json({ from, ...since })
    : problem(422, "Can't compare", `Too much changed since revision ${from}. Choose a later revision.`);
}

/** What edits would move, without making them: 200 with the ripple, 409 conflict, 422 refused. */
export async function whatIf(engine: Engine, edits: readonly Edit[], signal: AbortSignal): Promise<Response> {
  const answer = await engine.ask("whatIf", { edits }, { signal, limit: 20_000 });
  return answer.ok ? jsonText(answer.json) : refusal(answer);
}

/**
 * Imports the bundle in the body. ?dry=1 only says what it would do, ?replace=1 takes out what it does not name, ?name=
 * is the file's. With ?progress=1 the answer is lines of JSON: how far it is, and in the end `status` and `body`.
 */
export async function postBundle(call: Call<BundleAsked> & { engine: Engine }): Promise<Response> {
  const { request, engine, actor, host, query } = call;
  const read = await readBody(request, BUNDLE, host.bodies);
  if ("refusal" in read) return read.refusal;
  const { signal } = request;
  const of = {
    bundle: read.bytes,
    replace: query.replace === "1",
    dry: query.dry === "1",
    author: actor.name,
    name: query.name ?? "a bundle",
  };
  const work = (progress?: (p: Progress) => void) =>
    importBundle(engine, of, { signal, progress }).finally(() => read.done());
  return query.progress === "1" ? inLines(work, call) : imported(await work());
}

function imported(outcome: Imported): Response {
  if (outcome.is === "unread") return unread(outcome);
  if (outcome.is === "refused") return refusal(outcome.refused);
  const { plan, revision, is } = outcome;
  return json({ ...plan, revision, dry: is === "planned" });
}

/** The answer to something that takes long: a line for each piece of progress, and a last one with what came of it. */
function inLines(
  work: (progress: (p: Progress) => void) => Promise<Imported>,
  { failed }: Pick<Call, "failed">,
): Response {
  const encoder = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    async start(controller) {
      const line = (value: unknown) => {
        try {
          controller.enqueue(encoder.encode(`${JSON.stringify(value)}\n`));
        } catch {
          // No one reads any more; the request's own signal ends the work.
        }
      };
      const answer = await work((progress) => line({ progress }))
        .then(imported)
        .catch(failed);
      line({ status: answer.status, body: await answer.json() });
      try {
        controller.close();
      } catch {
        // Closed by the other side already.
      }
    },
  });
  return new Response(body, { headers: { "content-type": "application/x-ndjson", "cache-control": "no-store" } });
}

export async function postPantry(host: Host, name: string): Promise<Response> {
  const outcome = await newPantry(host, name);
  if (outcome.is === "made") return json({ key: outcome.key, name: outcome.name }, 201);
  if (outcome.is === "taken")
    return problem(
      409,
      "This name is already used",
      `There is a pantry with the key “${outcome.key}” already. Choose another name.`,
    );
  const { message } = outcome;
  return problem(422, "This isn't a valid pantry name", message, { issues: [issue("name", message)] });
}

export async function deletePantry(host: Host, engine: Engine, typed: string): Promise<Response> {
  const outcome = await endPantry(host, engine.pantry, typed);
  if (outcome.is === "deleted") return json({ deleted: outcome.key });
  if (outcome.is === "gone") return problem(404, "No such pantry", "It was deleted.");
  return problem(422, "Nothing was deleted", `To delete this pantry, type its exact name: ${outcome.name}`);
}
