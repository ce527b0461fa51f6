/** From a recipe line that was read to the fields of the recipe. */
import { givenName } from "../notation/format";
import type { Line } from "../notation/line";
import type { ParsedEntry, ParsedLine } from "../notation/parsed";
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
});

const calledIn = (e: ParsedEntry | undefined): string | undefined => (e?.any === undefined ? e?.name : `any ${e.name}`);

/** Everything of a recipe that its line says. */
export const recipeFields = (parsed: ParsedLine, make: Make) => ({
  name: parsed.label ?? givenName(parsed.kind, (role) => calledIn(parsed.entries.find((e) => e.role === role))),
  kind: parsed.kind,
  lines: parsed.entries.map((e) => lineFrom(e, make)),
  ticks: parsed.ticks,
  fee: parsed.fee,
  feeCurrency: parsed.feeCurrency,
  level: parsed.level,
  taughtBy: parsed.taughtBy && (parsed.taughtBy.item ?? make(parsed.taughtBy.name, "item")),
});
