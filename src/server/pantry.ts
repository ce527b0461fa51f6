/** Use cases on one pantry: change, undo, costs of an item, import, export, new pantry, its end. */
import { keyFrom } from "../core/schema/names";
import { newId, type Id, isId } from "../core/schema/id";
import { PANTRY_DEFAULTS } from "../core/kinds/index";
import { cut, textProblem } from "../core/schema/characters";
import { changeAt, changesBefore, changesOf, type LoggedText } from "../store/load";
import type { Refused } from "../store/prepare";
import type { Actor } from "./acting";
import { BUNDLE, readBody } from "./body";
import type { Engine, Host, Submitted } from "./host";
import { json, jsonText, problem } from "./problem";
import type { Intent, PlanSummary } from "./questions";
import type { Call } from "./route";

/** Most of what is wrong that one answer tells. */
const TOLD = 50;
/** An import may take a while; everything else is soon done. */
const LONG = 5 * 60_000;

/**
 * Commits what is intended and answers once every reading has followed. 200 with the revision, 409 conflict, 422
 * refused.
 */
export async function change(
  engine: Engine,
  actor: Actor,
  intent: Intent,
  { note = "", undoes }: { note?: string; undoes?: number } = {},
): Promise<Response> {
  return answered(await engine.submit({ author: actor.name, note, undoes }, intent));
}

function answered(submitted: Submitted): Response {
  if ("problems" in submitted) return unreadable(submitted);
  const { committed, plan } = submitted;
  if (!committed.ok) return refusal(committed);
  return json(
    plan
      ? { ...plan, revision: committed.revision, dry: false }
      : { revision: committed.revision, edits: committed.change?.size ?? 0 },
  );
}

const refusal = ({ conflicts, faults }: Refused): Response =>
  conflicts.length
    ? problem(
        409,
        "Somebody else was quicker",
        conflicts
          .slice(0, 3)
          .map((c) => c.says)
          .join(" "),
        { conflicts: conflicts.slice(0, TOLD), faults: faults.slice(0, TOLD) },
      )
    : problem(
        422,
        "This can't be written",
        faults
          .slice(0, 3)
          .map((f) => f.says)
          .join(" "),
        { faults: faults.slice(0, TOLD) },
      );

const unreadable = ({ problems, notes }: Extract<Submitted, { problems: unknown }>): Response =>
  problem(
    422,
    "The bundle was refused and nothing was written",
    problems
      .slice(0, 3)
      .map((p) => `${p.place}: ${p.says}`)
      .join(" "),
    { problems, notes },
  );

/** One change with all its edits, or the refusal that says it is not there. */
async function changeOr404(engine: Engine, host: Host, revision: number): Promise<LoggedText | Response> {
  const found =
    Number.isInteger(revision) && revision > 0 && revision < NEWEST
      ? await changeAt(host.em, engine.pantry, revision)
      : null;
  return found ?? problem(404, "No such change", "There is no such revision in the log.");
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
    if (found instanceof Response) return found;
    const { edits, moved, ...head } = found;
    return jsonText(`${JSON.stringify(head).slice(0, -1)},"moved":${moved ?? "null"},"edits":${edits}}`);
  }
  const limit = Math.min(200, Math.max(1, Math.floor(most ?? 50) || 50));
  if (of !== undefined) return json(isId(of) ? await changesOf(host.em, engine.pantry, of, limit) : []);
  return json(
    await changesBefore(
      host.em,
      engine.pantry,
      Math.min(NEWEST, Math.max(0, Math.floor(before ?? NEWEST) || NEWEST)),
      limit,
    ),
  );
}

/** The whole pantry as a bundle file. */
export async function bundleOf(engine: Engine): Promise<Response> {
  const { text, key } = await engine.ask("bundle", {}, { limit: LONG });
  const response = jsonText(text);
  response.headers.set("content-disposition", `attachment; filename="${key.replace(/[^a-z0-9_]/g, "_")}.json"`);
  return response;
}

export async function undo(engine: Engine, host: Host, actor: Actor, revision: number): Promise<Response> {
  const logged = await changeOr404(engine, host, revision);
  return logged instanceof Response
    ? logged
    : change(engine, actor, { do: "undo", edits: logged.edits }, { undoes: revision });
}

/** What one of an item costs and what it gives back; see ItemCosts. */
export async function costsOf(engine: Engine, id: string): Promise<Response> {
  const costs = isId(id) ? await engine.ask("costs", { item: id as Id }, { limit: 20_000 }) : null;
  return costs ? json(costs) : problem(404, "No such item", "It may have been removed in the meantime.");
}

/** What edits would move, without making them: 200 with the ripple, 409 conflict, 422 refused. */
export async function whatIf(
  engine: Engine,
  edits: Extract<Intent, { do: "edit" }>["edits"],
  signal: AbortSignal,
): Promise<Response> {
  const answer = await engine.ask("whatIf", { edits }, { signal, limit: 20_000 });
  return answer.ok ? jsonText(answer.json) : refusal(answer);
}

/** Imports a bundle into the pantry: everything or nothing. With `dry` only says what it would do. */
export async function importBundle(call: Call & { engine: Engine }): Promise<Response> {
  const { request, engine, actor, host } = call;
  const query = new URL(request.url).searchParams;
  const name = query.get("name") ?? "a bundle";
  const says = textProblem(name, { max: 200, name: true });
  if (says) return problem(422, "The file's name can't be taken", `?name=: ${says}`);
  const read = await readBody(request, BUNDLE, host.bodies);
  if ("refusal" in read) return read.refusal;
  const replace = query.get("replace") === "1";
  const patience = { signal: request.signal, limit: LONG };
  try {
    if (query.get("dry") === "1") {
      const plan = await engine.plan(read.bytes, replace, patience);
      if ("problems" in plan) return unreadable(plan);
      return plan.answer.ok
        ? json({ ...(plan.plan as PlanSummary), revision: engine.revision, dry: true })
        : refusal(plan.answer);
    }
    const submitted = await engine.submit(
      { author: actor.name, note: cut(`Imported ${name}`, 300) },
      { do: "import", bundle: read.bytes, replace },
      patience,
    );
    if ("plan" in submitted && submitted.plan?.edits === 0)
      return json({ ...submitted.plan, revision: engine.revision, dry: true });
    return answered(submitted);
  } finally {
    read.done();
  }
}

/** A new pantry with the default settings; its key is made of its name. */
export async function newPantry(host: Host, name: string): Promise<Response> {
  const says =
    textProblem(name, { max: 120, name: true }) ?? (name.trim() ? null : "A name is needed: at least one letter.");
  if (says) return problem(422, "This can't be the name of a pantry", says, { complaints: [{ place: "name", says }] });
  const made = keyFrom(name, "pantry");
  const taken = new Set((await host.pantries()).map((p) => p.key));
  // Without a letter that can be written in a key they are numbered; a name that is there already is a slip.
  let key = made;
  if (made === "pantry" && name.trim().toLowerCase() !== "pantry")
    for (let n = 2; taken.has(key); n++) key = `${made}_${n}`;
  if (taken.has(key) || !(await host.makePantry({ id: newId(), key, name: name.trim(), ...PANTRY_DEFAULTS })))
    return problem(409, "This name is taken", `There is a pantry with the key “${key}” already. Choose another name.`);
  return json({ key, name: name.trim() }, 201);
}

/** Deletes a pantry for good. @param typed  its name, as somebody typed it to confirm */
export async function endPantry(host: Host, engine: Engine, typed: string): Promise<Response> {
  const head = (await host.pantries()).find((p) => p.id === engine.pantry);
  if (!head) return problem(404, "No such pantry", "It was deleted in the meantime.");
  if (typed.trim() !== head.name.trim())
    return problem(422, "Nothing was deleted", `To delete this pantry, type its name as it stands: ${head.name}`);
  await host.deletePantry(engine.pantry);
  return json({ deleted: head.key });
}
