/** Use cases on one pantry: change, undo, costs of an item, import, export, new pantry. */
import { breakdown } from "../core/analysis/breakdown";
import { salvageReturns } from "../core/analysis/salvage";
import { type Edit, invert } from "../core/catalogue/changes";
import { keyFrom, newId } from "../core/catalogue/names";
import { type Id, NEW_PANTRY } from "../core/catalogue/records";
import { tellChange } from "../core/catalogue/telling";
import { bundlePantry, parseBundle, type Plan, planImport } from "../core/exchange/read";
import { changeAt } from "../store/load";
import { createPantry } from "../store/commit";
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
  if (outcome.conflicts.length)
    return problem(409, "Somebody else was quicker", outcome.conflicts.map((c) => c.says).join(" "), { conflicts: outcome.conflicts, faults: outcome.faults });
  return problem(422, "This can't be written", outcome.faults.map((f) => f.says).join(" "), { faults: outcome.faults });
}

export async function undo(engine: Engine, host: Host, actor: Actor, revision: number): Promise<Response> {
  const logged = await changeAt(host.em, engine.pantry, revision);
  if (!logged) return problem(404, "No such change", `There is no revision ${revision} in the log.`);
  return change(engine, actor, invert(logged.edits), tellChange(engine.state.catalogue, logged.edits).slice(0, 300), revision);
}

/** Cost of one unit in both measures, with what it consists of, and what salvaging it gives back. */
export function itemCosts(engine: Engine, id: Id): Response {
  const { readings, catalogue } = engine.state;
  const { network } = readings;
  const item = network.index.get(id);
  if (item === undefined) return problem(404, "No such item", "It may have been removed in the meantime.");
  const of = (process: number) => ({ kind: network.processes[process].of, id: network.processes[process].record.id });
  const measure = (name: "value" | "time") => {
    const least = readings[name];
    const parts = breakdown(network, readings.own[name], least, item);
    if (!parts) return null;
    return {
      cost: least.cost[item],
      by: of(least.by[item]),
      circular: least.circular.has(item),
      base: parts.base.map((b) => ({ item: network.items[b.item], by: of(b.process), quantity: b.quantity, cost: b.cost })),
      work: parts.work.map((w) => ({ by: of(w.process), runs: w.runs, cost: w.cost })),
    };
  };
  const salvages = salvageReturns(network, readings.own.value)
    .filter(({ process }) => network.processes[process].record.lines.some((l) => l.role === "ingredient" && l.item === id))
    .map(({ process, cost, back, unpriced }) => ({ recipe: network.processes[process].record.id, cost: Number.isFinite(cost) ? cost : null, back, unpriced: unpriced.map((i) => network.items[i]) }));
  return json({ revision: catalogue.revision, value: measure("value"), time: measure("time"), salvages });
}

const summary = (plan: Plan) => ({ added: plan.added, changed: plan.changed, removed: plan.removed, same: plan.same, notes: plan.notes, edits: plan.edits.length });

/** Imports a bundle into the pantry: everything or nothing. With `dry` only says what it would do. */
export async function importBundle(engine: Engine, actor: Actor, text: string, options: { dry: boolean; replace: boolean; name?: string }): Promise<Response> {
  const plan = planImport(engine.state.catalogue, text, options.replace);
  if (plan.problems.length)
    return problem(422, "The bundle was refused and nothing was written", plan.problems.slice(0, 3).map((p) => `${p.place}: ${p.says}`).join(" "), { problems: plan.problems, notes: plan.notes });
  if (options.dry || !plan.edits.length) return json({ ...summary(plan), revision: engine.state.catalogue.revision, dry: true });
  const answer = await change(engine, actor, plan.edits, `Imported ${options.name ?? "a bundle"}`);
  return answer.ok ? json({ ...summary(plan), revision: engine.state.catalogue.revision, dry: false }) : answer;
}

/** A new pantry with the resting settings. */
export async function newPantry(host: Host, name: string): Promise<Response> {
  const taken = new Set((await host.pantries()).map((p) => p.key));
  const key = keyFrom(name);
  if (taken.has(key)) return problem(409, "This name is taken", `There is a pantry with the key “${key}” already. Choose another name.`);
  await createPantry(host.em, { id: newId(), key, name: name.trim(), ...NEW_PANTRY });
  return json({ key, name }, 201);
}

/** The pantry a bundle belongs to, made when it does not exist yet. */
export async function pantryFor(host: Host, text: string, wanted?: string): Promise<{ key: string } | { problems: { place: string; says: string }[] }> {
  const parsed = parseBundle(text);
  if ("problems" in parsed) return parsed;
  const settings = bundlePantry(parsed.bundle);
  const key = wanted ?? settings.key;
  if (!(await host.pantries()).some((p) => p.key === key)) await createPantry(host.em, { id: newId(), ...NEW_PANTRY, key, name: settings.name });
  return { key };
}
