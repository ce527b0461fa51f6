/** From a recipe line that was read to the fields of the recipe. */
import { givenName } from "../notation/format";
import type { Line } from "../notation/line";
import type { ParsedEntry, ParsedLine } from "../notation/parsed";
import type { Id } from "../schema/id";

/** @param make  gives the id for a name that is not in the pantry */
export const lineFrom = (e: ParsedEntry, make: (name: string) => Id): Line => ({
  role: e.role,
  item: e.item ?? make(e.name),
  min: e.min,
  max: e.max,
  chance: e.chance,
  uses: e.uses,
  ...(e.draw ? { draw: e.draw } : {}),
});

/** Everything of a recipe that its line says. */
export const recipeFields = (parsed: ParsedLine, make: (name: string) => Id) => ({
  name: parsed.label ?? givenName(parsed.kind, (role) => parsed.entries.find((e) => e.role === role)?.name),
  kind: parsed.kind,
  lines: parsed.entries.map((e) => lineFrom(e, make)),
  ticks: parsed.ticks,
  fee: parsed.fee,
  feeCurrency: parsed.feeCurrency,
  level: parsed.level,
  taughtBy: parsed.taughtBy && (parsed.taughtBy.item ?? make(parsed.taughtBy.name)),
});
