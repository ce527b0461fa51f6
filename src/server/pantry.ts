/** Use cases on one pantry: change, undo, costs of an item, import, export, new pantry. */
import type { LoggedChange } from "../core/analysis/board";
import { type Edit, invert, type Outcome } from "../core/catalogue/changes";
import { keyFrom, newId } from "../core/catalogue/names";
import { type Id, NEW_PANTRY } from "../core/catalogue/records";
import { tellChange } from "../core/catalogue/telling";
import { exportBundle } from "../core/exchange/bundle";
import { type Plan, planImport } from "../core/exchange/read";
import { createPantry } from "../store/commit";
import { changeAt, changesBefore, changesOf } from "../store/load";
import type { Actor } from "./acting";
import type { Engine, Host } from "./host";
import { json, problem } from "./problem";

/** Commits edits and answers once every reading has followed. 200 with the revision, 409 conflict, 422 refused. */
export async function change(engine: Engine, actor: Actor, edits: readonly Edit[], note = "", undoes?: number): Promise<Response> {
  const outcome = await engine.submit({ author: actor.name, note, edits, undoes });
  if (outcome.ok) {
    await engine.advance();
    return json({ revision: outcome.revision, edits: outcome.edits.length });
  }
  return refusal(outcome);
}

const refusal = ({ conflicts, faults }: Extract<Outcome, { ok: false }>): Response =>
  conflicts.length
    ? problem(409, "Somebody else was quicker", conflicts.map((c) => c.says).join(" "), { conflicts, faults })
    : problem(422, "This can't be written", faults.map((f) => f.says).join(" "), { faults });

/** One change with all its edits, or the refusal that says it is not there. */
async function changeOr404(engine: Engine, host: Host, revision: number): Promise<LoggedChange | Response> {
  const found = Number.isInteger(revision) && revision > 0 && revision < NEWEST ? await changeAt(host.em, engine.pantry, revision) : null;
  return found ?? problem(404, "No such change", `There is no revision ${revision} in the log.`);
}
const NEWEST = 2 ** 31 - 1;

export interface LogQuery {
  /** One change with all its edits. */
  readonly revision?: number;
  /** The history of one record. */
  readonly of?: string;
  /** Only changes below this revision. */
  readonly before?: number;
  readonly most?: number;
}

/** The log, newest first; see LogQuery. */
export async function log(engine: Engine, host: Host, { revision, of, before, most }: LogQuery): Promise<Response> {
  if (revision !== undefined) {
    const found = await changeOr404(engine, host, revision);
    return found instanceof Response ? found : json(found);
  }
  const limit = Math.min(200, Math.max(1, Math.floor(most ?? 50) || 50));
  if (of) return json(await changesOf(host.em, engine.pantry, of as Id, limit));
  return json(await changesBefore(host.em, engine.pantry, Math.min(NEWEST, Math.max(0, Math.floor(before ?? NEWEST) || NEWEST)), limit));
}

/** The whole pantry as a bundle file. */
export function bundleOf({ catalogue }: Engine): Response {
  return new Response(exportBundle(catalogue), { headers: { "content-type": "application/json", "content-disposition": `attachment; filename="${catalogue.pantry.key}.json"` } });
}

export async function undo(engine: Engine, host: Host, actor: Actor, revision: number): Promise<Response> {
  const logged = await changeOr404(engine, host, revision);
  if (logged instanceof Response) return logged;
  return change(engine, actor, invert(logged.edits), tellChange(engine.catalogue, logged.edits).slice(0, 300), revision);
}

/** What one of an item costs and what it gives back; see ItemCosts. */
export async function costsOf(engine: Engine, id: string): Promise<Response> {
  const costs = await engine.ask("costs", { item: id as Id });
  return costs ? json(costs) : problem(404, "No such item", "It may have been removed in the meantime.");
}

/** What edits would move, without making them: 200 with the ripple, 409 conflict, 422 refused. */
export async function whatIf(engine: Engine, edits: readonly Edit[]): Promise<Response> {
  const answer = await engine.ask("whatIf", { edits });
  return answer.ok ? json({ revision: answer.revision, edits: answer.edits.length, ripple: answer.ripple }) : refusal(answer);
}

const summary = (plan: Plan) => ({ added: plan.added, changed: plan.changed, removed: plan.removed, same: plan.same, notes: plan.notes, edits: plan.edits.length });

/** Imports a bundle into the pantry: everything or nothing. With `dry` only says what it would do. */
export async function importBundle(engine: Engine, actor: Actor, text: string, options: { dry: boolean; replace: boolean; name?: string }): Promise<Response> {
  const plan = planImport(engine.catalogue, text, options.replace);
  if (plan.problems.length)
    return problem(422, "The bundle was refused and nothing was written", plan.problems.slice(0, 3).map((p) => `${p.place}: ${p.says}`).join(" "), { problems: plan.problems, notes: plan.notes });
  if (options.dry || !plan.edits.length) return json({ ...summary(plan), revision: engine.catalogue.revision, dry: true });
  const answer = await change(engine, actor, plan.edits, `Imported ${options.name ?? "a bundle"}`);
  return answer.ok ? json({ ...summary(plan), revision: engine.catalogue.revision, dry: false }) : answer;
}

/** A new pantry with the resting settings. */
export async function newPantry(host: Host, name: string): Promise<Response> {
  const taken = new Set((await host.pantries()).map((p) => p.key));
  const key = keyFrom(name);
  if (taken.has(key)) return problem(409, "This name is taken", `There is a pantry with the key “${key}” already. Choose another name.`);
  await createPantry(host.em, { id: newId(), key, name: name.trim(), ...NEW_PANTRY });
  return json({ key, name }, 201);
}
