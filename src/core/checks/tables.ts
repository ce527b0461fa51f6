/** Tables: entries that never come, tables in themselves, containers that never pay or always do. */
import { bare, value } from "../analysis/registry";
import type { Catalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import { soldFor } from "../catalogue/inheritance";
import { type Draws, type Content, everyContent, innerFirst, splitThing, thingOf } from "../network/box";
import { circularTables, tableMeans } from "../network/table-means";
import { list, sayCost, sayPercent } from "../numbers/format";
import type { Id } from "../schema/id";
import { type CheckContext, perRecord, ref } from "./check";
import { aboutUse, amountFor, nameOfUse, openUse, standing, usedBeside, usesIn } from "./used";

const open = (catalogue: Catalogue, id: Id) =>
  ({ message: `Open ${catalogue.records.table.get(id)?.name ?? ""}`, do: "open", kind: "table", id }) as const;
const saysOf = (catalogue: Catalogue, { what }: Content): string => {
  if (what.is === "nothing") return "nothing";
  if (what.is === "item") return catalogue.records.item.get(what.item)?.name ?? what.item;
  if (what.is === "currency") return catalogue.records.currency.get(what.currency)?.name ?? what.currency;
  return catalogue.records.table.get(what.table)?.name ?? what.table;
};

/** An entry of a table that never drops: no chance, no weight, no amount, or no level at which it does. */
export const entryNeverComes = perRecord<"table">({
  id: "entry-never-comes",
  reads: [],
  per: ["table"],
  *at({ catalogue }, table) {
    const found: string[] = [];
    const look = (content: Content, why: string | null) => {
      const { from, to, max } = content;
      const because =
        why ??
        (from !== null && to !== null && from > to
          ? `it starts at level ${from} and ends at level ${to}`
          : max === 0 && content.what.is !== "nothing"
            ? "its amount is 0"
            : null);
      if (because) found.push(`${saysOf(catalogue, content)} (${because})`);
    };
    for (const content of table.always) look(content, null);
    for (const content of table.chances) look(content, content.chance === 0 ? "its chance is 0%" : null);
    for (const { entries } of table.draws) for (const e of entries) look(e, e.weight === 0 ? "its weight is 0" : null);
    if (!found.length) return;
    yield {
      subject: ref(catalogue, "table", table.id),
      message: `${table.name} has ${found.length === 1 ? "an entry that never drops" : `${found.length} entries that never drop`}: ${list(found)}.`,
      evidence: { type: "names", names: found },
      fixes: [open(catalogue, table.id)],
    };
  },
});

/** A table that stands within itself. */
export const tableInItself = perRecord<"table">({
  id: "table-in-itself",
  reads: [],
  per: ["table"],
  also: ({ catalogue }, _, edits) => (edits.some((e) => e.kind === "table") ? catalogue.records.table.keys() : []),
  *at({ catalogue }, table) {
    if (!circularTables(catalogue).has(table.id)) return;
    const through = [...everyContent(table)].flatMap(({ what }) => (what.is === "table" ? [what.table] : []));
    yield {
      subject: ref(catalogue, "table", table.id),
      message: `${table.name} contains itself, through ${list([...new Set(through)].map((id) => catalogue.records.table.get(id)?.name ?? id))}, and gives nothing there.`,
      evidence: { type: "names", names: [table.name] },
      fixes: [open(catalogue, table.id)],
    };
  },
});

/** Value units of the least that can come. Each table once, however often it stands in others. */
export function least(
  box: Draws,
  tables: ReadonlyMap<Id, Draws>,
  level: number,
  worth: (c: Content) => number,
): number {
  const known = new Map<Draws, number>();
  const of = (content: Content): number => {
    if ((content.from !== null && level < content.from) || (content.to !== null && level > content.to)) return 0;
    const inner = content.what.is === "table" ? tables.get(content.what.table) : undefined;
    // A table within itself gives nothing there.
    return content.min * (inner ? (known.get(inner) ?? 0) : worth(content));
  };
  for (const each of innerFirst(box, tables)) known.set(each, leastOf(each, of));
  return known.get(box) ?? 0;
}
function leastOf(box: Draws, of: (content: Content) => number): number {
  let sum = box.always.reduce((t, c) => t + of(c), 0);
  for (const c of box.chances) if (c.chance >= 1) sum += of(c);
  for (const { times, back, entries } of box.draws) {
    const values = entries
      .filter((e) => e.weight > 0)
      .map(of)
      .sort((a, b) => a - b);
    if (!values.length) continue;
    sum += back ? times * values[0] : values.slice(0, times).reduce((a, b) => a + b, 0);
  }
  return sum;
}

/** What a container gives on average against what it costs: it never pays, or pays whatever comes. */
export const containerPays = perRecord<"item">({
  id: "container-pays",
  // What costs moved matters to containers alone, which are few: see below.
  reads: [],
  per: ["item"],
  concerns: ({ records }) => records.use.size > 0,
  *also({ catalogue }, delta, edits) {
    yield* usedBeside(catalogue, edits);
    if (!delta.of(bare).size && !delta.of(value).size) return;
    for (const use of catalogue.records.use.values())
      if (use.effects.some(({ does }) => does.is === "draw"))
        yield* usedBeside(catalogue, [
          { op: "set", kind: "use", id: use.id, field: "effects", from: null, to: null } as Edit,
        ]);
  },
  *at({ catalogue, readings }, item) {
    for (const use of usesIn(catalogue, item)) {
      if (use.fate === "kept" || !use.effects.some(({ does }) => does.is === "draw")) continue;
      const i = readings.compiled.numberOf(item.id);
      const cost =
        i === undefined
          ? Number.POSITIVE_INFINITY
          : (readings.value.cost[i] / (use.fate === "worn" ? use.count : 1)) * (use.fate === "used up" ? use.count : 1);
      if (!Number.isFinite(cost) || cost <= 0) continue;
      const { mean, low, unknown } = worthOf({ catalogue, readings }, item, use);
      const { crateFloor, crateCeiling } = catalogue.pantry;
      const never = mean < cost * crateFloor && !unknown.length;
      const always = low > cost * crateCeiling;
      if (!never && !always) continue;
      const share = sayPercent(Math.round((mean / cost) * 1000) / 1000);
      yield {
        subject: aboutUse(catalogue, item, use),
        message: never
          ? `${nameOfUse(item, use)} gives ${sayCost(mean)} on average and costs ${sayCost(cost)}: ${share} of its cost, so it never pays.`
          : `${nameOfUse(item, use)} gives at least ${sayCost(low)}, on average ${sayCost(mean)}, and costs ${sayCost(cost)}, so it always overpays.`,
        evidence: {
          type: "amounts",
          unit: "value",
          rows: [
            { label: "costs", value: cost },
            { label: "gives on average", value: mean },
            { label: "gives at least", value: low },
          ],
        },
        size: never ? cost / mean : low / cost,
        fixes: openUse(catalogue, item, use),
      };
    }
  },
});

/**
 * What one use gives, in value units: a thing counts what it costs without taking anything apart, or what it is sold for
 * where it can't be had otherwise.
 */
export function worthOf(
  { catalogue, readings }: Pick<CheckContext, "catalogue" | "readings">,
  item: Parameters<typeof usesIn>[1],
  use: ReturnType<typeof usesIn>[number],
): { readonly mean: number; readonly low: number; readonly unknown: readonly string[] } {
  const unknown = new Set<string>();
  const worth = (thing: string): number => {
    const { kind, id } = splitThing(thing);
    if (kind === "currency") return catalogue.records.currency.get(id)?.worth ?? 0;
    const at = readings.compiled.numberOf(id);
    const cost = at === undefined ? Number.POSITIVE_INFINITY : readings.bare.cost[at];
    if (Number.isFinite(cost)) return cost;
    const of = catalogue.records.item.get(id);
    const sold = of ? soldFor(catalogue, of) : null;
    if (sold === null) unknown.add(of?.name ?? id);
    return sold ?? 0;
  };
  const [body] = standing(catalogue).bodies;
  const level = Math.max(use.level, body?.level ?? 0);
  let [mean, low] = [0, 0];
  for (const effect of use.effects) {
    const { does, chance } = effect;
    const amount = body ? amountFor(catalogue, effect, item, body) : Number(effect.amount ?? 1) || 0;
    const put = (thing: string) => {
      mean += amount * chance * worth(thing);
      if (chance >= 1) low += amount * worth(thing);
    };
    if (does.is === "give") put(`item:${does.item}`);
    if (does.is === "pay") put(`currency:${does.currency}`);
    const table = does.is === "draw" ? catalogue.records.table.get(does.table) : undefined;
    if (!table) continue;
    for (const [thing, m] of tableMeans(catalogue).of(table, level)) mean += amount * chance * m * worth(thing);
    const of = (content: Content) => {
      const thing = thingOf(content);
      return thing ? worth(thing) : 0;
    };
    if (chance >= 1) low += amount * least(table, catalogue.records.table, level, of);
  }
  return { mean, low, unknown: [...unknown] };
}
