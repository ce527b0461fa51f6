/** How items become other items. */
import { type Line, RECIPE_KINDS } from "../notation/line";
import { parseLine } from "../notation/parser";
import { words } from "../notation/parsed";
import { PAIR, WIDEST } from "../notation/places";
import { ROLES } from "../notation/roles";
import { CLAUSE_FIELDS, CLAUSE_MEMBERS, saysAny, VARIANT_FIELDS } from "../clauses/all";
import { choice } from "../schema/choice";
import { flag } from "../schema/flag";
import { group, list } from "../schema/group";
import { defineKind } from "../schema/kind";
import { LONGEST_NAME, MOST_VARIANTS } from "../schema/limits";
import { number } from "../schema/number";
import { text } from "../schema/text";
import { lines } from "./lines";
import { recipeFields } from "./parsed";
import { note, status, tables } from "./shared";
import { own } from "./own";

/** Whether these are one thing in each of the two places. */
const isPair = (placed: readonly Line[]): boolean =>
  placed.length === 2 && PAIR.every((cell) => placed.some((l) => l.cells === cell));

const side = number({ min: 0, max: WIDEST, whole: true });
const places = group(
  { width: side, height: side, shifted: flag(), mirrored: flag(), turned: flag() },
  {
    noun: "grid",
    help: "The size of a pattern, such as 3 by 2, and whether it may be shifted, mirrored or turned. In a combination, mirrored means either item may come first.",
  },
);

const grid: typeof places = {
  ...places,
  toBundle: (value, to) => (Object.values(value).some(Boolean) ? places.toBundle(value, to) : undefined),
};

const variants = list(
  {
    name: text({ most: LONGEST_NAME }),
    lines: lines(ROLES),
    ...VARIANT_FIELDS,
  },
  {
    most: MOST_VARIANTS,
    noun: "variant",
    help: "Alternatives with only what differs, such as a finer tool that gives more.",
    rules(variant, fault) {
      if (!variant.lines.length && !saysAny(variant))
        fault("", "A variant changes something: a tool, station, amount, time, fee or level.");
      if (variant.feeCurrency !== null && variant.fee === null) fault("feeCurrency", "A currency needs a fee.");
    },
  },
);

export const recipe = defineKind({
  name: "recipe",
  section: "recipes",
  help: "How items become other items, such as 3 Hemp yarn -> 1 Rope.",
  fields: {
    kind: choice(RECIPE_KINDS, { width: 90 }),
    lines: lines(ROLES),
    tables,
    grid,
    ...CLAUSE_FIELDS,
    variants,
    status,
    note,
    own: own(),
  },
  rules({ kind, lines: all }, fault) {
    const placed = all.filter((l) => l.cells !== undefined);
    if (kind === "pattern" && !placed.length) fault("lines", "A pattern needs at least one item in a place.");
    if (kind === "combine" && !isPair(placed))
      fault("lines", "A combination takes two items: one in place A1, one in B1.");
    if (kind === "combine" && all.some((l) => l.role === "ingredient" && !l.cells))
      fault("lines", "A combination takes only its two items.");
    if (kind !== "pattern" && kind !== "combine" && placed.length)
      fault("lines", "Only patterns and combinations have places.");
  },
  notation: {
    coveredFields: [
      "kind",
      "ingredients",
      "outputs",
      "stations",
      "tools",
      "draws",
      "tables",
      "grid",
      ...CLAUSE_MEMBERS,
      "variants",
    ],
    read(text, around, make) {
      const parsed = parseLine(text, words(around));
      return { fields: parsed.ok ? recipeFields(parsed, make) : null, issues: parsed.issues };
    },
  },
});
