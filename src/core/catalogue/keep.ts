/** Which items a filter keeps, as an address or a saved view says it. */
import { definition, type Item } from "../kinds/index";
import { demandOn } from "./fields";
import { pathByKey, readConditions, type Seen, testOf } from "./filters";
import { heldAt } from "./inheritance";
import { around } from "./surroundings";
import { lineage } from "./tree";
import type { Catalogue } from "./catalogue";
import { byKey } from "./keys";
import { searchTexts } from "./search";
import type { Id } from "../schema/id";
import { normalise } from "../schema/names";
import { fieldAt, pathOf } from "../schema/record";

/** What is computed for an item, by the name of its column. */
export type Readings = ReadonlyMap<string, (item: Item) => number | null>;

/** What is kept of all items. */
export interface Filter {
  keep(item: Item): boolean;
  /** Where they are found by a text: no other items are kept. */
  readonly among: ReadonlySet<Id> | null;
}

/** A cell as conditions see it; null: there is no such column. */
function seen(catalogue: Catalogue, item: Item, path: string, readings: Readings): Seen | null {
  const at = pathOf(definition("item"), path);
  if (!at) {
    const reading = readings.get(path);
    if (!reading) return null;
    const number = reading(item);
    return {
      text: number === null ? "" : String(number),
      number,
      from: number === null ? "none" : "worked",
      over: false,
      out: false,
    };
  }
  const here = around(catalogue);
  const field = fieldAt(at, here);
  const { here: held, above } = heldAt(catalogue, "item", item, path);
  const text = held.from === "none" ? "" : field.format(held.value, here);
  const number = typeof held.value === "number" ? held.value : null;
  return { text, number, from: held.from, over: above.from !== "none", out: number !== null && outside(number) };

  function outside(value: number): boolean {
    const which = at?.name === "stats" ? "measures" : at?.name === "own" ? "takes" : null;
    if (!which || !at?.part) return false;
    const id = at.part as Id;
    const own = which === "measures" ? catalogue.records.stat.get(id) : catalogue.records.field.get(id);
    return [own, demandOn(catalogue, item, which, id)].some(
      (range) => range && ((range.min !== null && value < range.min) || (range.max !== null && value > range.max)),
    );
  }
}

/**
 * What the filters of an address keep; null: everything. A condition on a column that is not there keeps everything.
 * @param query  its members type, rarity, tag, status, text, where, found
 * @param troubled  items that have findings
 */
export function filterOf(
  query: { get(name: string): string | null },
  catalogue: Catalogue,
  readings: Readings,
  troubled: { has(id: Id): boolean },
): Filter | null {
  const wanted = (kind: "type" | "rarity" | "tag") => {
    const key = query.get(kind);
    return key ? (byKey(catalogue, kind, key)?.id ?? null) : undefined;
  };
  const [type, rarity, tag, status] = [wanted("type"), wanted("rarity"), wanted("tag"), query.get("status")];
  const text = normalise(query.get("text") ?? "");
  const among = text ? searchTexts(catalogue, "item").find(text) : null;
  const tests: ((item: Item) => boolean)[] = [];
  if (among) tests.push((i) => among.has(i.id));
  if (type !== undefined) tests.push((i) => lineage(catalogue, i.type).some((t) => t.id === type));
  if (rarity !== undefined) tests.push((i) => rarity !== null && i.rarity === rarity);
  if (tag !== undefined) tests.push((i) => tag !== null && i.tags.includes(tag));
  if (status) tests.push((i) => i.status === status);
  for (const { column, test, value } of readConditions(query.get("where") ?? "")) {
    const path = pathByKey(catalogue, "item", column);
    const holds = testOf(test).ready(value);
    if ("message" in holds) continue;
    tests.push((i) => {
      const cell = seen(catalogue, i, path, readings);
      return cell === null || holds(cell);
    });
  }
  if (query.get("found")) tests.push((i) => troubled.has(i.id));
  return tests.length ? { keep: (item) => tests.every((test) => test(item)), among } : null;
}
