/**
 * Small pantries for tests, written as lines: `gather 2 Kelp in 30s`, `give 2 Flag`, `buy Salt for 1.5`,
 * `Eel, Bass are fish`, `set Stew vessel = Crock`, `stat Deftness = 20` (what a maker has of it), and recipe lines.
 */
import { type Catalogue, emptyCatalogue } from "../catalogue/catalogue";
import { apply } from "../catalogue/apply";
import { type Edit, setField } from "../catalogue/edit";
import { exportBundle } from "../exchange/bundle";
import { around } from "../catalogue/surroundings";
import { normalise, keyFrom } from "../schema/names";
import { newId, type Id } from "../schema/id";
import {
  definition,
  withDefaults,
  type Currency,
  type Item,
  PANTRY_DEFAULTS,
  type Pantry,
  type Recipe,
  type Source,
} from "../kinds/index";
import { line } from "../notation/line";
import { parseLine } from "../notation/parser";
import { recipeFrom, wordsOf } from "../editing/recipes";
import { NewNames } from "../editing/new-names";

export const pantry = (settings: Partial<Pantry> = {}): Pantry => ({
  id: newId(),
  key: "test",
  name: "Test",
  ...PANTRY_DEFAULTS,
  ...settings,
});

/** What every ready item is to have. */
const SHOWN = { status: "ready", icon: "crock", description: "For tests." } as const;

export const must = (catalogue: Catalogue, edits: readonly Edit[]): Catalogue => {
  const outcome = apply(catalogue, edits);
  if (!outcome.ok) throw new Error(JSON.stringify([outcome.issues, outcome.conflicts]));
  return outcome.catalogue;
};

export const shells: Currency = withDefaults("currency", {
  id: "shells000000" as Id,
  key: "shells",
  name: "shells",
  symbol: "sh",
  worth: 1,
});

export function kitchen(text: string, settings: Partial<Pantry> = {}): Catalogue {
  let catalogue = must(emptyCatalogue(pantry(settings)), [{ op: "add", kind: "currency", record: shells }]);
  for (const row of text
    .split("\n")
    .map((t) => t.trim())
    .filter(Boolean))
    catalogue = must(catalogue, read(catalogue, row));
  return catalogue;
}

/** Names with digits in them ask to be quoted where they are new; here they are meant. */
const quoted = (line: string): string =>
  line.replace(/(?<![\w"])(?!x\d)([A-Za-z]+\d\w*)(?![\w"])/g, (name) => `"${name}"`);

function read(catalogue: Catalogue, row: string): Edit[] {
  const writing = new NewNames(catalogue);
  const are = /^(.+) are ([^>]+)$/.exec(row);
  if (are) return tagged(catalogue, writing, are[1].split(", "), are[2]);
  const stat = /^stat (.+) = (-?[\d.]+)$/.exec(row);
  if (stat) {
    const there = [...catalogue.records.stat.values()].find((s) => s.name === stat[1]);
    if (there) return [setField(catalogue, "stat", there.id, "maker", Number(stat[2]))];
    const record = { id: newId(), key: keyFrom(stat[1], "stat"), name: stat[1], maker: Number(stat[2]) };
    return [{ op: "add", kind: "stat", record: withDefaults("stat", record) }];
  }
  const set = /^set (.+?) (\w+) = (.+)$/.exec(row);
  if (set) return said(catalogue, writing, set[1], set[2], set[3]);
  const buy = /^buy (.+) for ([\d.]+)$/.exec(row);
  const gather = /^gather (.+)$/.exec(row);
  const give = /^give (.+)$/.exec(row);
  const given = gather ?? give;
  const text = quoted(buy ? `nothing -> 1 ${buy[1]}` : given ? `nothing -> ${given[1]}` : row);
  const parsed = parseLine(text, wordsOf(catalogue));
  if (!parsed.ok) throw new Error(`${row}: ${parsed.issues.map((r) => r.message).join(" ")}`);
  const recipe = recipeFrom(parsed, writing);
  const items = writing.edits.map(
    (e): Edit => (e.op === "add" && e.kind === "item" ? { ...e, record: { ...e.record, ...SHOWN } as Item } : e),
  );
  if (!buy && !given) return [...items, { op: "add", kind: "recipe", record: recipe }];
  const base = {
    id: newId(),
    key: writing.keys.next("source", recipe.name),
    name: recipe.name,
    lines: recipe.lines,
    ticks: recipe.ticks,
  };
  const source: Source = withDefaults(
    "source",
    buy
      ? { ...base, kind: "shop", price: Number(buy[2]), currency: shells.id }
      : { ...base, kind: give ? "gift" : "gathering" },
  );
  return [...items, { op: "add", kind: "source", record: source }];
}

/** "set Stew vessel = Crock" */
function said(catalogue: Catalogue, writing: NewNames, name: string, field: string, text: string): Edit[] {
  const of = item(catalogue, name);
  const words = { ...around(catalogue), make: (kind: string, typed: string) => writing.named(typed, kind as "item") };
  const read = definition("item").fields[field].parse(text, words);
  if ("message" in read) throw new Error(read.message);
  return [...writing.edits, setField(catalogue, "item", of.id, field, read.value as never)];
}

/** "Eel, Bass are fish" */
function tagged(catalogue: Catalogue, writing: NewNames, names: readonly string[], tag: string): Edit[] {
  const known = [...catalogue.records.tag.values()].find((t) => t.name === tag);
  const id = known?.id ?? writing.named(tag, "tag");
  const items = [...catalogue.records.item.values()];
  const edits = names.map((name): Edit => {
    const there = items.find((i) => i.name === name);
    if (there) return setField(catalogue, "item", there.id, "tags", [...there.tags, id]);
    return { op: "add", kind: "item", record: newItem(name, { tags: [id] }) };
  });
  return [...writing.edits, ...edits];
}

/** The bundle of a small pantry, without settings: as it is brought into another. */
export const bundleOf = (text: string): string => exportBundle(kitchen(text)).replace(/ "pantry": \{[^}]*\},/, "");
/** Few records of which one is made of the others. */
export const SMOKEHOUSE = "gather River eel in 20s\nbuy Salt for 1\nSmoke: 2 River eel + 1 Salt -> 1 Smoked eel in 30s";

export function item(catalogue: Catalogue, name: string): Item {
  const found = [...catalogue.records.item.values()].find((i) => normalise(i.name) === normalise(name));
  if (!found) throw new Error(`no item ${name}`);
  return found;
}

export function recipe(catalogue: Catalogue, name: string): Recipe {
  const found = [...catalogue.records.recipe.values()].find((r) => normalise(r.name) === normalise(name));
  if (!found) throw new Error(`no recipe ${name}`);
  return found;
}

/** A bare item, for tests that build records by hand. */
export const newItem = (name: string, given: Partial<Item> = {}): Item =>
  withDefaults("item", { id: newId(), key: keyFrom(name, "item"), name, ...SHOWN, ...given });
export { line };
