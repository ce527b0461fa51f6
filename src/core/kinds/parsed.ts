/** From a recipe line that was read to the fields of the recipe. */
import { givenName } from "../notation/format";
import type { Said } from "../notation/clauses";
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
  const teacher = (item: Id | null) => item && { name: nameOf("item", item), item };
  const { kind, lines, tables, grid, ticks, heat, batch, fee, feeCurrency, level, taughtBy, variants } = recipe;
  return {
    kind,
    entries: lines.map(entry),
    tables,
    grid,
    ...{ ticks, heat, batch, fee, feeCurrency, level },
    taughtBy: teacher(taughtBy),
    variants: variants.map(({ name, lines: own, taughtBy: by, ...said }) => ({
      label: name || null,
      entries: own.map(entry),
      said: saidOf({ ...said, taughtBy: teacher(by) }),
    })),
  };
}
/** Only what is said. */
const saidOf = (said: { readonly [N in keyof Said]: Said[N] | null }): Partial<Said> =>
  Object.fromEntries(
    Object.entries(said).filter(([name, value]) => value !== null || (name === "feeCurrency" && said.fee !== null)),
  );

const calledIn = (e: ParsedEntry | undefined): string | undefined => (e?.any === undefined ? e?.name : `any ${e.name}`);

/** Everything of a recipe that its line says. */
export const recipeFields = (parsed: ParsedLine, make: Make) => ({
  name: parsed.label ?? givenName(parsed.kind, (role) => calledIn(parsed.entries.find((e) => e.role === role))),
  kind: parsed.kind,
  lines: parsed.entries.map((e) => lineFrom(e, make)),
  tables: parsed.tables,
  grid: parsed.grid,
  ticks: parsed.ticks,
  heat: parsed.heat,
  batch: parsed.batch,
  fee: parsed.fee,
  feeCurrency: parsed.feeCurrency,
  level: parsed.level,
  taughtBy: teacherOf(parsed, make),
  variants: parsed.variants.map((v) => variantFrom(v, make)),
});

const teacherOf = ({ taughtBy }: Pick<ParsedLine, "taughtBy">, make: Make): Id | null =>
  taughtBy && (taughtBy.item ?? make(taughtBy.name, "item"));

const variantFrom = ({ label, entries, said }: ParsedVariant, make: Make): Variant => ({
  name: label ?? "",
  lines: entries.map((e) => lineFrom(e, make)),
  ticks: said.ticks ?? null,
  heat: said.heat ?? null,
  batch: said.batch ?? null,
  fee: said.fee ?? null,
  feeCurrency: said.feeCurrency ?? null,
  level: said.level ?? null,
  taughtBy: said.taughtBy ? teacherOf({ taughtBy: said.taughtBy }, make) : null,
});
