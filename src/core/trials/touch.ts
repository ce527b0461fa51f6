/** Which records a trial hangs on: what of a change can touch it, and what can't. */
import { type Catalogue, recordAt } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import { lineage } from "../catalogue/tree";
import { usesOf } from "../catalogue/uses";
import { type AnyRecord, definition, type Kind, type Recipe, type Trial, type Use } from "../kinds/index";
import { allLines } from "../kinds/ways";
import { makersOf } from "../process/makers";
import { type Reference, referred } from "../schema/field";
import type { Id } from "../schema/id";

/** Kinds through which it is not followed further: what names them names very much. */
const ENDS: readonly Kind[] = ["rarity", "tag", "field", "stat"];
/** Fields that change nothing of what happens. */
const SAID: ReadonlySet<string> = new Set(["note", "description", "icon", "help", "colour", "rarity", "tags", "key"]);

const referencesOf = (kind: Kind, record: AnyRecord): readonly Reference[] =>
  referred(definition(kind).members, record as never);

/** Stand for all records of a kind: steps without a shop look at every one, and those that make an item at every recipe. */
const ANY_SOURCE = "*source" as Id;
const ANY_RECIPE = "*recipe" as Id;
/** Stands for whatever may be the station that a recipe asks for by a tag. */
const ANY_STATION = "*station" as Id;
const OF_STATIONS: ReadonlySet<string> = new Set(["pace", "extra", "fuel", "tags", "status", "type", "parent"]);

/** Ids of everything that a trial uses, wears, makes, runs or names, however far it is followed. */
export function hangsOn(catalogue: Catalogue, trial: Trial): ReadonlySet<Id> {
  const seen = new Set<Id>();
  const open: Reference[] = [...referencesOf("trial", trial)];
  const put = (kind: Kind, id: Id) => open.push({ kind, id });
  for (const { does } of trial.steps) {
    if ((does.is === "buy" || does.is === "sell") && does.source === null) seen.add(ANY_SOURCE);
    if (does.is !== "make item") continue;
    seen.add(ANY_RECIPE);
    for (const recipe of makersOf(catalogue, does.item)) put("recipe", recipe.id);
  }
  for (let at = open.pop(); at; at = open.pop()) {
    const kind = at.kind as Kind;
    if (seen.has(at.id)) continue;
    seen.add(at.id);
    const record = recordAt(catalogue, kind, at.id);
    if (!record || ENDS.includes(kind)) continue;
    for (const reference of referencesOf(kind, record)) open.push(reference);
    if (kind === "recipe" && allLines(record as Recipe).some((l) => l.role === "station" && l.any !== undefined))
      seen.add(ANY_STATION);
    if (kind !== "item") continue;
    const item = record as Parameters<typeof usesOf>[1];
    for (const type of lineage(catalogue, "type" in item ? item.type : null)) put("type", type.id);
    for (const { chain } of usesOf(catalogue, item, true)) for (const use of chain) put("use", use.id);
  }
  return seen;
}

/** Whether an edit can change what happens in a trial that hangs on some records. */
export function canTouch(edit: Edit, on: ReadonlySet<Id>): boolean {
  if (edit.kind === "pantry") return true;
  if (edit.op === "set" && SAID.has(edit.field) && !(edit.field === "tags" && on.has(ANY_STATION))) return false;
  // A stat may have a range of its own, which everything that is worn is kept within.
  if (edit.kind === "stat") return true;
  if (on.has(ANY_SOURCE) && edit.kind === "source") return true;
  if (on.has(ANY_RECIPE) && edit.kind === "recipe") return true;
  if (on.has(ANY_STATION) && (edit.kind === "item" || edit.kind === "type"))
    if (edit.op !== "set" || OF_STATIONS.has(edit.field)) return true;
  const id = edit.op === "set" ? edit.id : edit.record.id;
  if (on.has(id)) return true;
  if (edit.kind !== "use") return false;
  if (edit.op === "set") {
    const named = [edit.from, edit.to].flat();
    return edit.field === "effects"
      ? named.some((effect) => teaches(effect as Use["effects"][number] | null, on))
      : named.some((value) => typeof value === "string" && on.has(value as Id));
  }
  const { item, type, varies, effects } = edit.record as Use;
  return [item, type, varies].some((each) => each !== null && on.has(each)) || effects.some((e) => teaches(e, on));
}
const teaches = (effect: Use["effects"][number] | null, on: ReadonlySet<Id>): boolean =>
  effect?.does?.is === "teach" && on.has(effect.does.recipe);
