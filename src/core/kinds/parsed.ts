/** From a recipe line that was read to the fields of the recipe. */
import { givenName } from "../notation/format";
import { toLine, toRecord, toVariant, variantToLine } from "../clauses/all";
import type { Line, RecipeParts, Variant } from "../notation/line";
import type { ParsedEntry, ParsedLine, ParsedVariant } from "../notation/parsed";
import type { Surroundings } from "../schema/field";
import type { Id } from "../schema/id";

/** Gives the id for a name that is not in the pantry. */
export type Make = (name: string, kind: "item" | "tag") => Id;

export const lineFrom = (e: ParsedEntry, make: Make): Line => ({
  role: e.role,
  ...(e.any === undefined ? { item: e.item ?? make(e.name, "item") } : { any: e.any ?? make(e.name, "tag") }),
  min: e.min,
  max: e.max,
  chance: e.chance,
  uses: e.uses,
  ...(e.draw ? { draw: e.draw } : {}),
  ...(e.bonus ? { bonus: e.bonus } : {}),
  ...(e.whole ? { whole: true } : {}),
  ...(e.cells ? { cells: e.cells } : {}),
});

/** A recipe as if its line had just been read. */
export function parsedFrom(
  recipe: RecipeParts,
  { nameOf }: Pick<Surroundings, "nameOf">,
): Omit<ParsedLine, "label" | "issues" | "ok"> {
  const entry = (l: Line): ParsedEntry => ({
    ...l,
    name: l.any === undefined ? nameOf("item", l.item) : nameOf("tag", l.any),
    item: l.item ?? null,
    span: { from: 0, to: 0 },
  });
  const called = (item: Id) => nameOf("item", item);
  const { kind, lines, tables, grid, variants } = recipe;
  return {
    kind,
    entries: lines.map(entry),
    tables,
    grid,
    ...toLine(recipe, called),
    variants: variants.map((variant) => ({
      label: variant.name || null,
      entries: variant.lines.map(entry),
      said: variantToLine(variant, called),
    })),
  };
}

const calledIn = (e: ParsedEntry | undefined): string | undefined => (e?.any === undefined ? e?.name : `any ${e.name}`);

/** Everything of a recipe that its line says. */
export const recipeFields = (parsed: ParsedLine, make: Make) => ({
  name: parsed.label ?? givenName(parsed.kind, (role) => calledIn(parsed.entries.find((e) => e.role === role))),
  kind: parsed.kind,
  lines: parsed.entries.map((e) => lineFrom(e, make)),
  tables: parsed.tables,
  grid: parsed.grid,
  ...toRecord(parsed, (name) => make(name, "item")),
  variants: parsed.variants.map((v) => variantFrom(v, make)),
});

const variantFrom = ({ label, entries, said }: ParsedVariant, make: Make): Variant => ({
  name: label ?? "",
  lines: entries.map((e) => lineFrom(e, make)),
  ...toVariant(said, (name) => make(name, "item")),
});
