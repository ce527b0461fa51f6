/**
 * Random pantries and random changes to them: for tests that hold what was followed against what is found from scratch.
 */
import { type Catalogue, emptyCatalogue } from "../catalogue/catalogue";
import { apply } from "../catalogue/apply";
import { type Edit, setField, type Value } from "../catalogue/edit";
import { withDefaults, type Recipe, type Source } from "../kinds/index";
import { type Draw, type Line, line } from "../notation/line";
import type { Id } from "../schema/id";
import { must, newItem, pantry, shells } from "./kitchen";

type Random = () => number;
const between = (random: Random, low: number, high: number): number => low + Math.floor(random() * (high - low + 1));
const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)];

const TAKEN = [1, 1, 2, 2, 3, 4, 0.5];
const GIVEN = [1, 1, 1, 1, 2, 0.5, 3];

function lineOf(random: Random, items: readonly Id[], role: Line["role"]): Line {
  const item = pick(random, items);
  if (role === "station") return line(role, item);
  if (role === "tool") return line(role, item, 1, 1, 1, random() < 0.5 ? between(random, 1, 20) : null);
  const amount = pick(random, role === "output" ? GIVEN : TAKEN);
  return line(
    role,
    item,
    amount,
    random() < 0.2 ? amount + 2 : amount,
    role === "output" && random() < 0.25 ? pick(random, [0.5, 0.1, 0.25]) : 1,
  );
}

function linesOf(random: Random, items: readonly Id[]): Line[] {
  const lines = Array.from({ length: between(random, 1, 3) }, () => lineOf(random, items, "ingredient"));
  for (let n = between(random, 1, 2); n > 0; n--) lines.push(lineOf(random, items, "output"));
  if (random() < 0.15) {
    const weights = [between(random, 1, 5), between(random, 1, 5)];
    const of = weights[0] + weights[1] + between(random, 0, 3);
    const times = between(random, 1, 3);
    for (const weight of weights)
      lines.push({ ...line("output", pick(random, items)), draw: { group: 1, times, weight, of } satisfies Draw });
  }
  if (random() < 0.2) lines.push(lineOf(random, items, "tool"));
  if (random() < 0.2) lines.push(lineOf(random, items, "station"));
  return lines;
}

const idOf = (random: Random): Id =>
  Array.from({ length: 12 }, () => Math.floor(random() * 36).toString(36)).join("") as Id;
const named = (random: Random, kind: string) => ({
  id: idOf(random),
  key: `${kind}_${Math.floor(random() * 1e12).toString(36)}`,
  name: `${kind} ${between(random, 1, 400)}`,
});

const recipeOf = (random: Random, items: readonly Id[]): Recipe =>
  withDefaults("recipe", {
    ...named(random, "make"),
    status: "ready",
    kind: random() < 0.25 ? "salvage" : "craft",
    lines: linesOf(random, items),
    ticks: between(random, 0, 4) * 20,
    fee: random() < 0.15 ? between(random, 1, 4) : 0,
    feeCurrency: random() < 0.5 ? shells.id : null,
    level: random() < 0.2 ? between(random, 0, 9) : null,
    taughtBy: random() < 0.05 ? pick(random, items) : null,
  });

const sourceOf = (random: Random, items: readonly Id[]): Source =>
  withDefaults("source", {
    ...named(random, "gather"),
    kind: random() < 0.5 ? "gathering" : "shop",
    lines: [lineOf(random, items, "output")],
    ticks: between(random, 0, 3) * 20,
    price: random() < 0.5 ? between(random, 1, 9) : 0,
    currency: shells.id,
  });

/** A pantry with some items, about 1.3 recipes and 0.4 sources for each. */
export function randomPantry(random: Random, items: number): Catalogue {
  const empty = must(emptyCatalogue(pantry({ labourPerHour: random() < 0.5 ? 360 : 0 })), [
    { op: "add", kind: "currency", record: shells },
  ]);
  const stock = Array.from({ length: items }, (_, i) =>
    newItem(`Item ${i}`, {
      id: idOf(random),
      key: `item_${i}`,
      level: random() < 0.3 ? between(random, 1, 9) : null,
      sell: random() < 0.25 ? between(random, 1, 30) : null,
    }),
  );
  const ids = stock.map((i) => i.id);
  const edits: Edit[] = stock.map((record) => ({ op: "add", kind: "item", record }));
  for (let n = Math.round(items * 1.3); n > 0; n--)
    edits.push({ op: "add", kind: "recipe", record: recipeOf(random, ids) });
  for (let n = Math.max(1, Math.round(items * 0.4)); n > 0; n--)
    edits.push({ op: "add", kind: "source", record: sourceOf(random, ids) });
  return must(empty, edits);
}

/** One to three edits as designers make them, of every kind; refused ones are left out. */
export function randomEdits(random: Random, catalogue: Catalogue): Edit[] {
  for (;;) {
    const outcome = apply(
      catalogue,
      Array.from({ length: between(random, 1, 3) }, () => randomEdit(random, catalogue)),
    );
    if (outcome.ok && outcome.edits.length) return [...outcome.edits];
  }
}

function randomEdit(random: Random, catalogue: Catalogue): Edit {
  const ids = [...catalogue.records.item.keys()];
  const [item, recipe, source] = [
    pick(random, [...catalogue.records.item.values()]),
    pick(random, [...catalogue.records.recipe.values()]),
    pick(random, [...catalogue.records.source.values()]),
  ];
  const set = (kind: "item" | "recipe" | "source" | "pantry" | "currency", id: Id, field: string, to: Value) =>
    setField(catalogue, kind, id, field, to);
  const lines = (kind: "recipe" | "source", record: Recipe | Source, to: readonly Line[]) =>
    set(kind, record.id, "lines", to as unknown as Value);
  const kinds: (() => Edit | null)[] = [
    () => ({
      op: "add",
      kind: "item",
      record: newItem(`New ${between(random, 1, 1e9)}`, {
        id: idOf(random),
        key: `new_${Math.floor(random() * 1e12).toString(36)}`,
      }),
    }),
    () => ({ op: "remove", kind: "item", record: item }),
    () => set("item", item.id, "sell", random() < 0.4 ? null : between(random, 1, 40)),
    () => set("item", item.id, "level", random() < 0.4 ? null : between(random, 1, 12)),
    () => set("item", item.id, "status", pick(random, ["ready", "retired", "stub"])),
    () => set("item", item.id, "name", pick(random, ["Grey eel", "grey  eel", `Item ${between(random, 1, 99)}`])),
    () => ({ op: "add", kind: "recipe", record: recipeOf(random, ids) }),
    () => recipe && { op: "remove", kind: "recipe", record: recipe },
    () => recipe && set("recipe", recipe.id, "status", recipe.status === "retired" ? "ready" : "retired"),
    () => recipe && set("recipe", recipe.id, "ticks", between(random, 0, 9) * 20),
    () => recipe && set("recipe", recipe.id, "fee", random() < 0.6 ? 0 : between(random, 1, 5)),
    () => recipe && set("recipe", recipe.id, "level", random() < 0.5 ? null : between(random, 1, 12)),
    () => recipe && set("recipe", recipe.id, "taughtBy", random() < 0.6 ? null : item.id),
    () => recipe && set("recipe", recipe.id, "kind", recipe.kind === "craft" ? "salvage" : "craft"),
    () => recipe && set("recipe", recipe.id, "key", `renamed_${Math.floor(random() * 1e9).toString(36)}`),
    () => recipe && lines("recipe", recipe, linesOf(random, ids)),
    () =>
      recipe &&
      lines(
        "recipe",
        recipe,
        recipe.lines.map((l) =>
          l.role === "output" && !l.draw && random() < 0.7 ? { ...l, min: l.min + 1, max: l.max + 1 } : l,
        ),
      ),
    () =>
      recipe &&
      lines(
        "recipe",
        recipe,
        recipe.lines.map((l) =>
          l.role === "ingredient" && random() < 0.7
            ? { ...l, min: Math.max(0.5, l.min / 2), max: Math.max(0.5, l.max / 2) }
            : l,
        ),
      ),
    () => ({ op: "add", kind: "source", record: sourceOf(random, ids) }),
    () => source && { op: "remove", kind: "source", record: source },
    () => source && set("source", source.id, "price", between(random, 0, 12)),
    () => source && set("source", source.id, "ticks", between(random, 0, 9) * 20),
    () => source && lines("source", source, [lineOf(random, ids, "output")]),
    () =>
      random() < 0.1
        ? set(
            "pantry",
            catalogue.pantry.id,
            pick(random, ["labourPerHour", "priceFloor", "salvageCeiling"]),
            between(random, 1, 3),
          )
        : null,
    () => (random() < 0.1 ? set("currency", shells.id, "worth", between(random, 1, 3)) : null),
  ];
  return pick(random, kinds)() ?? randomEdit(random, catalogue);
}
