/** Formulas that name what is never set, divide by zero, or fall below zero where nothing may. */
import type { Catalogue } from "../catalogue/catalogue";
import { held, heldOwn, heldStat } from "../catalogue/inheritance";
import { around } from "../catalogue/surroundings";
import { itemsBelow } from "../catalogue/types";
import { formulaOf, writeFormula } from "../formulas/field";
import type { Formula } from "../formulas/formula";
import { namesOf, RANGE_STEPS, type Range, type Witness, witnesses } from "../formulas/ranges";
import { type Scope, variableOf, writtenNames } from "../formulas/scope";
import type { Index } from "../catalogue/persistent-map";
import type { AnyRecord, Condition, Item, Kind, TrialSubject, Use } from "../kinds/index";
import { list, sayQuantity } from "../numbers/format";
import type { Id } from "../schema/id";
import { type FindingCache, type FindingDraft, perRecord, ref } from "./check";
import { standing } from "./used";

/** A formula of a record. */
interface Written {
  readonly scope: Scope;
  readonly kept: string;
  /** What it says, in a sentence: "the amount of effect 2". */
  readonly what: string;
  /** Whether it may come to less than nothing. */
  readonly signed: boolean;
  /** Items that it is evaluated for. */
  readonly items: () => Iterable<Item>;
}
const HOLDERS = ["use", "condition", "resource", "subject"] as const;
const NAMED: readonly Kind[] = ["stat", "resource", "field", "constant", "item", "type", "subject", ...HOLDERS];

function* formulasOf(catalogue: Catalogue, kind: Kind, id: Id): Generator<Written> {
  const { records } = catalogue;
  const nobody = () => [];
  if (kind === "use") {
    const use = records.use.get(id);
    const items = function* () {
      const ids = use?.item ? [use.item] : use?.type ? itemsBelow(catalogue, new Set([use.type])) : [];
      for (const each of ids) {
        const item = records.item.get(each);
        if (item && item.status !== "retired") yield item;
      }
    };
    for (const [k, { amount, does }] of (use?.effects ?? []).entries())
      if (amount !== null)
        yield {
          scope: "use",
          kept: amount,
          what: `the amount of effect ${k + 1}`,
          signed: does.is === "change",
          items,
        };
  }
  const condition = kind === "condition" ? records.condition.get(id) : undefined;
  for (const { stat, how, by } of condition?.changes ?? [])
    if (by !== null)
      yield {
        scope: "bearer",
        kept: by,
        what: `the change of ${records.stat.get(stat)?.name}`,
        signed: how !== "multiply",
        items: nobody,
      };
  for (const { resource, amount } of condition?.pulses ?? [])
    if (amount !== null)
      yield {
        scope: "bearer",
        kept: amount,
        what: `the pulse on ${records.resource.get(resource)?.name}`,
        signed: true,
        items: nobody,
      };
  const resource = kind === "resource" ? records.resource.get(id) : undefined;
  if (resource) {
    const { most, start, recovery } = resource;
    if (most !== null)
      yield { scope: "stats", kept: most, what: "its maximum", signed: resource.min < 0, items: nobody };
    if (start !== null)
      yield { scope: "stats", kept: start, what: "its starting value", signed: resource.min < 0, items: nobody };
    if (recovery !== null)
      yield { scope: "recovery", kept: recovery, what: "its recovery", signed: true, items: nobody };
  }
  const subject = kind === "subject" ? records.subject.get(id) : undefined;
  for (const [stat, kept] of Object.entries(subject?.stats ?? {}))
    if (kept !== null)
      yield { scope: "level", kept, what: `its ${records.stat.get(stat as Id)?.name}`, signed: true, items: nobody };
}

/** Ranges that were found, of names and of what they are asked for. */
const ranges = new WeakMap<Catalogue, Map<string, Range | null>>();
/**
 * From which to which value a name goes: of its definition, else what is found in the pantry; null: it is never set.
 * @param of  whose items they are; found once for each
 */
function rangeOf(catalogue: Catalogue, token: string, of: Id | null, items: () => Iterable<Item>): Range | null {
  const known = ranges.get(catalogue) ?? new Map<string, Range | null>();
  ranges.set(catalogue, known);
  const key = variableOf(token)?.who === "item" ? `${of} ${token}` : token;
  let range = known.get(key);
  if (range === undefined) {
    range = foundRange(catalogue, token, items);
    known.set(key, range);
  }
  return range;
}

function foundRange(catalogue: Catalogue, token: string, items: () => Iterable<Item>): Range | null {
  const variable = variableOf(token);
  if (!variable) return null;
  const { who, kind, id, plain, most } = variable;
  const { records } = catalogue;
  const { bodies } = standing(catalogue);
  const seen: number[] = [];
  const between = (min: number | null, max: number | null, whole = false): Range | null => {
    if (!seen.length) return null;
    return { min: min ?? Math.min(...seen), max: max ?? Math.max(...seen), whole };
  };
  if (kind === "constant" && id) {
    const of = records.constant.get(id);
    return of ? { min: of.value, max: of.value } : null;
  }
  if (who === "item") {
    const field = kind === "field" && id ? records.field.get(id) : undefined;
    for (const item of items()) {
      const value =
        kind === "stat" && id
          ? heldStat(catalogue, item, id).value
          : kind === "field" && id
            ? heldOwn(catalogue, item, id).value
            : held(
                catalogue,
                item,
                ({ level: "level", mass: "mass", "buy price": "buy", "sell price": "sell" } as const)[plain as "level"],
              ).value;
      if (typeof value === "number")
        seen.push(field?.form === "duration" ? value / catalogue.pantry.ticksPerSecond : value);
    }
    const stat = kind === "stat" && id ? records.stat.get(id) : undefined;
    return between(null, null, stat?.form === "whole" || plain === "level");
  }
  if (kind === null) return { min: 1, max: Math.max(100, ...bodies.map((b) => b.level)), whole: true };
  if (kind === "stat" && id) {
    const stat = records.stat.get(id);
    for (const body of bodies) {
      const total = body.total(id);
      if (total.shares.length) seen.push(total.value);
    }
    for (const item of records.item.values()) {
      const worn = Object.hasOwn(item.stats, id) && held(catalogue, item, "slot").value !== null;
      if (worn) seen.push(item.stats[id], 0);
    }
    return between(stat?.min ?? null, stat?.max ?? null, stat?.form === "whole");
  }
  const resource = kind === "resource" && id ? records.resource.get(id) : undefined;
  if (!resource) return null;
  for (const body of bodies) if (body.pool(resource.id)) seen.push(body.most(resource.id));
  if (!seen.length) return null;
  return most ? between(null, null) : { min: resource.min, max: Math.max(...seen) };
}

/** Steps that all formulas of a pantry may take together, about half a second, and each of them at least. */
const ALL_STEPS = 4_000_000;
const LEAST_STEPS = 400;

/** What was found of formulas within their ranges; the same formula within the same ranges is searched once. */
class KnownWitnesses {
  private static readonly of = new WeakMap<FindingCache, KnownWitnesses>();
  static in(cache: FindingCache, catalogue: Catalogue): KnownWitnesses {
    const known = KnownWitnesses.of.get(cache) ?? new KnownWitnesses();
    KnownWitnesses.of.set(cache, known);
    const { use, condition, resource, subject } = catalogue.records;
    const formulas = [use, condition, resource, subject].reduce((sum, of) => sum + of.index(FORMULAS), 0);
    const steps = Math.max(LEAST_STEPS, Math.min(RANGE_STEPS, Math.floor(ALL_STEPS / (formulas + 1))));
    if (steps !== known.steps || known.found.size > 2 * formulas + 1000) known.found.clear();
    known.steps = steps;
    return known;
  }

  private steps = 0;
  private readonly found = new Map<string, readonly Witness[]>();

  of({ scope, kept, signed }: Written, tree: Formula, ranges: ReadonlyMap<string, Range>): readonly Witness[] {
    const key = JSON.stringify([scope, kept, signed, [...ranges]]);
    let found = this.found.get(key);
    if (!found) {
      found = witnesses(tree, (token) => ranges.get(token) ?? { min: 0, max: 0 }, !signed, this.steps);
      this.found.set(key, found);
    }
    return found;
  }
}

/** How many formulas the records of a kind hold at most. */
const FORMULAS: Index<AnyRecord, number> = {
  build(records) {
    let sum = 0;
    for (const record of records.values()) {
      const { effects, changes, pulses, stats } = record as Partial<Use & Condition & TrialSubject>;
      sum += (effects?.length ?? 0) + (changes?.length ?? 0) + (pulses?.length ?? 0) + Object.keys(stats ?? {}).length;
    }
    return sum + (records.size ? 3 : 0);
  },
  follow: () => null,
};

/** A formula that names what nothing sets, divides by zero, or falls below zero, with values that show it. */
export const formulaFaults = perRecord<(typeof HOLDERS)[number]>({
  id: "formula-faults",
  reads: [],
  per: HOLDERS,
  also: ({ catalogue }, _, edits) =>
    edits.some(
      (e) => NAMED.includes(e.kind as Kind) && !(e.op === "set" && ["note", "description", "icon"].includes(e.field)),
    )
      ? HOLDERS.flatMap((kind) => [...catalogue.records[kind].keys()])
      : [],
  *at({ catalogue, told }, record, kind) {
    const known = KnownWitnesses.in(told, catalogue);
    const owner = kind === "use" ? ((record as Use).item ?? (record as Use).type) : null;
    const whose = owner && (catalogue.records.item.get(owner) ?? catalogue.records.type.get(owner));
    const called = whose ? `${record.name} of ${whose.name}` : record.name;
    for (const written of formulasOf(catalogue, kind, record.id)) {
      const tree = formulaOf(written.kept, written.scope);
      if (!tree || tree.is === "number") continue;
      const here = around(catalogue);
      const name = writtenNames(written.scope, here);
      const between = new Map<string, Range>();
      const unset: string[] = [];
      for (const token of namesOf(tree)) {
        const range = rangeOf(catalogue, token, owner, written.items);
        if (range) between.set(token, range);
        else unset.push(name(token));
      }
      const text = writeFormula(written.kept, written.scope, here);
      if (unset.length) yield finding("unset", `names ${list(unset)}, which has no value`, []);
      // What is never set counts as 0: what it does then is told with that.
      const faults = unset.length ? [] : known.of(written, tree, between);
      for (const { message, at, value } of faults) {
        const where = [...at].map(([token, v]) => `${name(token)} ${sayQuantity(v)}`);
        const rows = [...at].map(([token, v]) => ({ label: name(token), value: v }));
        yield finding(
          message,
          `${message} where ${list(where)}${message === "falls below zero" ? ` (${sayQuantity(value)})` : ""}`,
          rows,
        );
      }

      function finding(sort: string, message: string, rows: { label: string; value: number }[]): FindingDraft {
        return {
          subject: [ref(catalogue, kind, record.id)],
          message: `${called}: ${written.what}, ${text}, ${message}.`,
          evidence: rows.length ? { type: "amounts", unit: "", rows } : { type: "names", names: [text, sort] },
          fixes: [{ message: `Open ${record.name}`, do: "open", kind, id: record.id }],
        };
      }
    }
  },
});
