/** Writes a recipe as its one canonical line. */
import type { Catalogue } from "../catalogue/catalogue";
import { fromNumber, multiply, toNumber } from "../numbers/fraction";
import type { Line, Recipe, Role } from "../catalogue/records";
import { formatTicks } from "../numbers/ticks";
import type { ParsedLine } from "./parser";
import { currencyBook, isPlain, itemBook, type NameBook, quote } from "./book";

/** The name a recipe has when nobody gives it one: its first output, or "Salvage" and its first ingredient. */
export function givenName(kind: Recipe["kind"], nameOf: (role: Role) => string | undefined): string {
  if (kind === "salvage") return `Salvage ${nameOf("ingredient") ?? "nothing"}`.slice(0, 120);
  return nameOf("output") ?? "Nothing";
}

export function defaultName(catalogue: Catalogue, recipe: Pick<Recipe, "kind" | "lines">): string {
  return givenName(recipe.kind, (role) => {
    const line = recipe.lines.find((l) => l.role === role);
    return line && catalogue.item.get(line.item)?.name;
  });
}

/**
 * `parseLine(formatRecipe(x))` gives x back, and formatting what was parsed changes nothing more.
 * The recipe's own name stands first, before a colon, unless it is the default name.
 */
export function formatRecipe(catalogue: Catalogue, recipe: Recipe): string {
  const items = itemBook(catalogue);
  const side = (role: Role) => entries(items, recipe.lines, role);
  const parts = [recipe.kind === "salvage" ? "salvage" : "", side("ingredient") || "nothing", "->", side("output") || "nothing"];
  const [stations, tools] = [side("station"), side("tool")];
  if (stations) parts.push("at", stations);
  if (tools) parts.push("using", tools);
  if (recipe.ticks) parts.push("in", formatTicks(recipe.ticks, catalogue.pantry.ticksPerSecond));
  if (recipe.fee) parts.push("fee", String(recipe.fee), recipe.feeCurrency ? currencyBook(catalogue).written(recipe.feeCurrency) : "");
  const label = recipe.name === defaultName(catalogue, recipe) ? "" : `${isPlainLabel(recipe.name) ? recipe.name : quote(recipe.name)}: `;
  return label + parts.filter(Boolean).join(" ");
}

const isPlainLabel = (name: string): boolean => isPlain(name) || /^[\p{L}][\p{L}\p{N}' -]*$/u.test(name);

function entries(book: NameBook, lines: readonly Line[], role: Role): string {
  return lines
    .filter((l) => l.role === role)
    .map((l) => {
      const quantity = l.min === l.max ? String(l.min) : `${l.min}..${l.max}`;
      const counted = role === "station" || role === "tool" ? (l.min === 1 && l.max === 1 ? "" : `${quantity} `) : `${quantity} `;
      const chance = l.chance === 1 ? "" : ` ${toNumber(multiply(fromNumber(l.chance), fromNumber(100)))}%`;
      const wear = l.uses === null ? "" : ` lasting ${l.uses}`;
      return `${counted}${book.written(l.item)}${chance}${wear}`;
    })
    .join(" + ");
}

/** Writes what was read back as a line, names that are not in the pantry included. For a form beside the line. */
export function formatParsed(catalogue: Catalogue, parsed: ParsedLine): string {
  const items = itemBook(catalogue);
  const side = (role: Role) =>
    parsed.entries
      .filter((e) => e.role === role)
      .map((e) => {
        const name = e.item ? items.written(e.item) : isPlain(e.name) ? e.name : quote(e.name);
        const quantity = e.min === e.max ? String(e.min) : `${e.min}..${e.max}`;
        const counted = (role === "station" || role === "tool") && quantity === "1" ? "" : `${quantity} `;
        return `${counted}${name}${e.chance === 1 ? "" : ` ${toNumber(multiply(fromNumber(e.chance), fromNumber(100)))}%`}${e.uses === null ? "" : ` lasting ${e.uses}`}`;
      })
      .join(" + ");
  const [stations, tools] = [side("station"), side("tool")];
  const parts = [parsed.kind === "salvage" ? "salvage" : "", side("ingredient") || "nothing", "->", side("output") || "nothing"];
  if (stations) parts.push("at", stations);
  if (tools) parts.push("using", tools);
  if (parsed.ticks) parts.push("in", formatTicks(parsed.ticks, catalogue.pantry.ticksPerSecond));
  if (parsed.fee) parts.push("fee", String(parsed.fee), parsed.feeCurrency ? currencyBook(catalogue).written(parsed.feeCurrency) : "");
  const label = parsed.label === null ? "" : `${isPlainLabel(parsed.label) ? parsed.label : quote(parsed.label)}: `;
  return label + parts.filter(Boolean).join(" ");
}
