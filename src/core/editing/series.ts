/**
 * A series: from one item several steps, each named by a pattern, its values made by rules, and made of the step before
 * where a recipe says so. The same rules asked again say what differs now.
 */
import { apply } from "../catalogue/apply";
import { type Catalogue, recordAt } from "../catalogue/catalogue";
import { difference, type Edit, fieldWord } from "../catalogue/edit";
import { recordsWith } from "../catalogue/references";
import { around, namesOf } from "../catalogue/surroundings";
import { evaluate, parseFormula } from "../formulas/formula";
import { definition, type Item, type Recipe, withDefaults } from "../kinds/index";
import { formatRecipe } from "../notation/format";
import { parseLine } from "../notation/parser";
import type { Field } from "../schema/field";
import { type Id, newId } from "../schema/id";
import { LONGEST_NAME } from "../schema/limits";
import { normalise } from "../schema/names";
import { roundedTo } from "../numbers/tidy";
import { typedNumber } from "../numbers/typed";
import { fieldAt, type Path, pathOf, valueAt, withValue } from "../schema/record";
import { FreeKeys, NewNames } from "./new-names";
import { numberAt, numberColumns } from "./number-columns";
import { recipeFrom, rewriteRecipe, wordsOf } from "./recipes";
import type { Series } from "./series-of";

export type SeriesRule = Series["rules"][number];

export interface SeriesCell {
  readonly label: string;
  /** "" where there was nothing, or no item yet. */
  readonly before: string;
  readonly after: string;
}
export interface SeriesStep {
  /** From 2: the first item is step 1. */
  readonly n: number;
  readonly name: string;
  /** Whether the item is there already. */
  readonly there: boolean;
  readonly cells: readonly SeriesCell[];
  /** The line of its recipe as it would be, and as it is; null: none. */
  readonly recipe: { readonly before: string; readonly after: string } | null;
  /** What keeps it from being written. */
  readonly messages: readonly string[];
}
export interface SeriesPlan {
  readonly steps: readonly SeriesStep[];
  /** What is wrong with the rules themselves. */
  readonly messages: readonly string[];
  readonly edits: readonly Edit[];
}

const ROMAN: readonly [number, string][] = [
  [50, "L"],
  [40, "XL"],
  [10, "X"],
  [9, "IX"],
  [5, "V"],
  [4, "IV"],
  [1, "I"],
];
export function roman(n: number): string {
  let [left, text] = [n, ""];
  for (const [worth, sign] of ROMAN) for (; left >= worth; left -= worth) text += sign;
  return text;
}

/** The path that a rule is about. */
export const pathOfRule = ({ field, stat, own }: SeriesRule): string =>
  stat ? `stats.${stat}` : own ? `own.${own}` : field;

interface Rule {
  readonly at: Path;
  readonly label: string;
  readonly field: Field;
  /** @param step  from 2. @param before  the value of the step before */
  value(step: number, before: unknown): { readonly value: unknown } | { readonly message: string };
}

/** A rule made ready, or why it can't be followed. */
function ruleOf(catalogue: Catalogue, first: Item, rule: SeriesRule): Rule | { readonly message: string } {
  const path = pathOfRule(rule);
  const at = pathOf(definition("item"), path);
  if (!at || ["key", "name"].includes(path))
    return { message: `There is no field “${path}” that a series can change.` };
  const here = around(catalogue);
  const field = fieldAt(at, here);
  const label = fieldWord(catalogue, "item", path);
  const wrong = (message: string) => ({ message: `${label}: ${message}` });
  const start = numberAt(catalogue, "item", first, path);
  const round = (value: number): number => roundedTo(value, rule.round || (field.type === "duration" ? 1 : 0));
  if (rule.how === "list") {
    const typed = rule.by
      .split(rule.by.includes(";") || rule.by.includes("\n") ? /[;\n]/ : /,/)
      .map((part) => part.trim());
    return {
      at,
      label,
      field,
      value(step) {
        const text = typed[step - 2] ?? "";
        if (text === "") return { message: `${label}: the list has no entry for step ${step}.` };
        const read = field.parse(text, { ...here, make: () => null });
        return "message" in read ? { message: `${label}: ${read.message}` } : read;
      },
    };
  }
  if (rule.how === "formula") {
    const columns = numberColumns(catalogue, "item");
    const parsed = parseFormula(rule.by, ["step", "first", "before", ...columns.keys()]);
    if (!parsed.ok) return wrong(parsed.message);
    if (!field.numeric) return wrong("a formula works only with numbers.");
    return {
      at,
      label,
      field,
      value(step, before) {
        const made = evaluate(parsed.formula, (name) => {
          if (name === "step") return step;
          if (name === "first") return start;
          if (name === "before") return typeof before === "number" ? before : null;
          return numberAt(catalogue, "item", first, columns.get(name) ?? "");
        });
        return "message" in made ? { message: `${label}: ${made.message}` } : { value: round(made.value) };
      },
    };
  }
  const read = typedNumber(rule.by, {
    format: catalogue.numbers,
    unit: rule.how === "add" ? field.options.unit : undefined,
    ticksPerSecond: catalogue.pantry.ticksPerSecond,
  });
  if ("message" in read) return wrong(read.message);
  const by = read.value;
  if (path === "rarity") return rarityRule(catalogue, first, at, field, label, by);
  if (!field.numeric) return wrong("only numbers can be increased or multiplied.");
  if (start === null) return wrong(`${first.name} has no value to start from.`);
  return {
    at,
    label,
    field,
    value: (step) => ({
      value: round(rule.how === "add" ? start + by * (step - 1) : start * by ** (step - 1)),
    }),
  };
}

/** Rarities go up by ranks; beyond the highest it stays the highest. */
function rarityRule(catalogue: Catalogue, first: Item, at: Path, field: Field, label: string, by: number): Rule {
  const ranked = [...catalogue.records.rarity.values()].sort((a, b) => a.rank - b.rank);
  const start = Math.max(
    0,
    ranked.findIndex((r) => r.id === first.rarity),
  );
  return {
    at,
    label,
    field,
    value(step) {
      const rarity = ranked[Math.max(0, Math.min(ranked.length - 1, Math.floor(start + by * (step - 1))))];
      return rarity ? { value: rarity.id } : { message: "There are no rarities in this pantry." };
    },
  };
}

const TOKEN = /\{([^{}]*)\}/g;

/** Names by a pattern; never one that is taken, nor the same twice. */
class Names {
  private readonly given = new Set<string>();
  private readonly used = new Map<string, number>();
  constructor(
    private readonly catalogue: Catalogue,
    private readonly series: Series,
    private readonly first: Item,
  ) {
    this.given.add(normalise(first.name));
  }

  /** @param own  the item that may keep its name */
  next(step: number, own: Item | undefined): { readonly name: string } | { readonly message: string } {
    const { names, words } = this.series;
    const taken = (name: string): boolean => {
      if (this.given.has(normalise(name))) return true;
      const found = namesOf(this.catalogue, "item").find(name);
      return found.found === "several" || (found.found === "one" && found.id !== own?.id && !this.isStep(found.id));
    };
    // A word list that names are taken from has another word where one is taken already.
    for (let tries = 0; tries < 400; tries++) {
      const faults: string[] = [];
      let drawn = false;
      const fault = (message: string): string => {
        faults.push(message);
        return "";
      };
      const name = names.replace(TOKEN, (_, token: string) => {
        const called = normalise(token);
        if (called === "name") return this.first.name;
        if (called === "n") return String(step);
        if (called === "roman") return roman(step);
        if (called === "word")
          return words[step - 2] ?? fault(`There is no word for step ${step}: the list has ${words.length}.`);
        const list = [...this.catalogue.records.wordlist.values()].find((l) => normalise(l.name) === called);
        if (!list) return fault(`{${token}} isn't name, n, roman, word or the name of a word list.`);
        drawn = true;
        const at = this.used.get(list.id) ?? 0;
        this.used.set(list.id, at + 1);
        return list.words[at] ?? fault(`The word list ${list.name} has no more words.`);
      });
      if (faults.length) return { message: faults[0] };
      const trimmed = name.replace(/\s+/g, " ").trim().slice(0, LONGEST_NAME).trim();
      if (!trimmed) return { message: "The pattern makes an empty name. Write one such as {name} {roman}." };
      if (!taken(trimmed)) {
        this.given.add(normalise(trimmed));
        return { name: trimmed };
      }
      if (!drawn) return { message: `The name “${trimmed}” is already used.` };
    }
    return { message: "No name is free." };
  }

  private isStep(id: Id): boolean {
    return this.series.steps.some((s) => s.item === id);
  }
}

/**
 * What a series would make of its first item. Steps that are there are changed where they differ from what the rules say;
 * what no one asks for stays.
 * @param count  steps beside the first
 */
export function planSeries(catalogue: Catalogue, series: Series, count: number): SeriesPlan {
  const first = series.first === null ? undefined : catalogue.records.item.get(series.first);
  if (!first) return { steps: [], messages: ["The first item of the series was removed."], edits: [] };
  const rules = series.rules.map((rule) => ruleOf(catalogue, first, rule));
  const wrong = rules.flatMap((rule) => ("message" in rule ? [rule.message] : []));
  if (wrong.length) return { steps: [], messages: wrong, edits: [] };
  const ready = rules as readonly Rule[];
  const names = new Names(catalogue, series, first);
  const keys = new FreeKeys(catalogue);
  const here = around(catalogue);
  const made: { item: Item; before: Item | undefined; cells: SeriesCell[]; messages: string[] }[] = [];
  let last: Item = first;
  for (let step = 2; step <= count + 1; step++) {
    const before = series.steps[step - 2] && catalogue.records.item.get(series.steps[step - 2].item);
    const messages: string[] = [];
    const called = names.next(step, before);
    if ("message" in called) messages.push(called.message);
    const name = "name" in called ? called.name : (before?.name ?? `${first.name} ${step}`);
    let item: Item = before ? { ...before, name } : { ...first, id: newId(), key: keys.next("item", name), name };
    const cells: SeriesCell[] =
      before && before.name !== name ? [{ label: "name", before: before.name, after: name }] : [];
    for (const { at, field, label, value } of ready) {
      const got = value(step, valueAt(last, at));
      if ("message" in got) {
        messages.push(got.message);
        continue;
      }
      let fault: string | null = null;
      field.check(got.value, { has: here.has, fault: (_, why) => (fault ??= why) });
      if (fault) messages.push(`${label}: ${fault}`);
      item = withValue(item, at, got.value);
      const was = before ? valueAt(before, at) : null;
      const text = (of: unknown) => (of === null || of === undefined ? "" : field.format(of, here));
      cells.push({ label, before: text(was), after: text(got.value) });
    }
    made.push({ item, before, cells, messages });
    last = item;
  }
  const itemEdits = made.flatMap(({ item, before }): Edit[] =>
    before ? difference("item", before, item) : [{ op: "add", kind: "item", record: item }],
  );
  const outcome = apply(catalogue, itemEdits);
  if (!outcome.ok && made.every((m) => !m.messages.length))
    return { steps: [], messages: outcome.issues.map((i) => i.message), edits: [] };
  const recipes =
    outcome.ok && series.recipe.trim()
      ? recipesOf(
          outcome.catalogue,
          series,
          first,
          made.map((m) => m.item),
        )
      : null;
  const steps = made.map(({ item, before, cells, messages }, k): SeriesStep => {
    const recipe = recipes?.[k] ?? null;
    return {
      n: k + 2,
      name: item.name,
      there: before !== undefined,
      cells,
      recipe: recipe && { before: recipe.before, after: recipe.after },
      messages: recipe?.message ? [...messages, recipe.message] : messages,
    };
  });
  const sound = steps.every((s) => !s.messages.length);
  const kept: Series = { ...series, steps: made.map(({ item }) => ({ item: item.id })) };
  const there = recordAt(catalogue, "series", series.id);
  const own: Edit[] = there ? difference("series", there, kept) : [{ op: "add", kind: "series", record: kept }];
  return {
    steps,
    messages: [],
    edits: sound ? [...itemEdits, ...(recipes ?? []).flatMap((r) => r.edits), ...own] : [],
  };
}

interface StepRecipe {
  readonly before: string;
  readonly after: string;
  readonly message: string | null;
  readonly edits: readonly Edit[];
}

/** The recipe of each step, read in a pantry that has the items already: {this} is the step, {before} the one before. */
function recipesOf(catalogue: Catalogue, series: Series, first: Item, items: readonly Item[]): StepRecipe[] {
  const here = around(catalogue);
  const names = new NewNames(catalogue);
  const written = (item: Item) => namesOf(catalogue, "item").written(item.id);
  const recipes = items.map((item, k): StepRecipe => {
    const from = k === 0 ? first : items[k - 1];
    const line = series.recipe.replace(TOKEN, (whole, token: string) => {
      const called = normalise(token);
      return called === "this"
        ? written(item)
        : called === "before"
          ? written(from)
          : called === "n"
            ? String(k + 2)
            : whole;
    });
    const parsed = parseLine(line, wordsOf(catalogue));
    const fault = parsed.issues.find((i) => i.severity === "error");
    if (fault || !parsed.ok)
      return {
        before: "",
        after: line,
        message: `${item.name}: ${fault?.message ?? "the recipe can't be read."}`,
        edits: [],
      };
    const there = [...recordsWith(catalogue, "recipe", item.id, ["output"])].find((r): r is typeof r & Recipe =>
      r.lines.some((l) => l.item === from.id),
    );
    if (!there)
      return {
        before: "",
        after: line,
        message: null,
        edits: [{ op: "add", kind: "recipe", record: recipeFrom(parsed, names) }],
      };
    const edits = rewriteRecipe(catalogue, there as unknown as Recipe, parsed);
    return { before: formatRecipe(here, there as unknown as Recipe), after: line, message: null, edits };
  });
  return recipes.map((recipe, k) => (k === 0 ? { ...recipe, edits: [...names.edits, ...recipe.edits] } : recipe));
}

/** A series that is not there yet, with the rules that most begin with. */
export function newSeries(catalogue: Catalogue, first: Item): Series {
  const name = `${first.name} series`.slice(0, LONGEST_NAME);
  return withDefaults("series", {
    id: newId(),
    key: new FreeKeys(catalogue).next("series", name),
    name,
    first: first.id,
    names: "{name} {roman}",
  });
}
