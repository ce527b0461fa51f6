/** A small pantry in which things are used: resources, conditions and uses that are written as lines. */
import { apply } from "../catalogue/apply";
import { type Catalogue, emptyCatalogue } from "../catalogue/catalogue";
import { around } from "../catalogue/surroundings";
import { formula } from "../formulas/field";
import type { Scope } from "../formulas/scope";
import { definition, type Kind, type Pantry, type RecordOf, withDefaults } from "../kinds/index";
import { parseUse } from "../notation/use-line";
import type { Id } from "../schema/id";
import { keyFrom } from "../schema/names";
import { pantry } from "./kitchen";

/** The id of the record of a kind that `tried` made of a name. */
export const idOf = (name: string): Id => keyFrom(name, "x").replace(/_/g, "").slice(0, 12).padEnd(12, "z") as Id;

type Given = { readonly [K in Kind]?: { readonly [name: string]: Partial<RecordOf<K>> } };

/** @param given  records by kind and name; formulas in them as they are kept */
export function tried(given: Given, settings: Partial<Pantry> = {}): Catalogue {
  return withMore(emptyCatalogue(pantry({ ticksPerSecond: 10, ...settings })), given);
}
export function withMore(catalogue: Catalogue, given: Given): Catalogue {
  const edits = Object.entries(given).flatMap(([kind, records]) =>
    Object.entries(records).map(([name, of]) => ({
      op: "add" as const,
      kind: kind as Kind,
      record: withDefaults(kind as Kind, { id: idOf(name), key: keyFrom(name, "x"), name, ...(of as object) } as never),
    })),
  );
  const outcome = apply(catalogue, edits as never);
  if (!outcome.ok) throw new Error(JSON.stringify([outcome.issues, outcome.conflicts], null, 1));
  return outcome.catalogue;
}

/** A formula as it is kept. */
export function kept(catalogue: Catalogue, scope: Scope, typed: string): string {
  const read = formula(scope).parse(typed, { ...around(catalogue), make: () => null });
  if ("message" in read || read.value === null)
    throw new Error(`${typed}: ${"message" in read ? read.message : "nothing"}`);
  return read.value;
}

/** Adds uses to items (or types), written as lines: `{ "Smoked eel": ["Eat: restores 42 Vigour, used up"] }`. */
export function withUses(
  catalogue: Catalogue,
  lines: { readonly [owner: string]: readonly string[] },
  of: "item" | "type" = "item",
  more: Partial<RecordOf<"use">> = {},
): Catalogue {
  const uses: { [name: string]: Partial<RecordOf<"use">> } = {};
  for (const [owner, all] of Object.entries(lines))
    for (const [order, line] of all.entries()) {
      const { use, issues } = parseUse(line, around(catalogue), () => null);
      if (!use) throw new Error(`${line}: ${issues.map((i) => i.message).join(" ")}`);
      uses[`${use.name} ${owner}`] = { ...use, [of]: idOf(owner), order, ...more } as Partial<RecordOf<"use">>;
    }
  return withMore(catalogue, { use: uses });
}

/** Every field of a kind as a new record has it. */
export const blank = (kind: Kind): object => definition(kind).defaults;
