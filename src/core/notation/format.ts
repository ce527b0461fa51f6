/** Writes a recipe as its one canonical line. */
import { toPercent } from "../numbers/fraction";
import { type Draw, inDraws, type Line, type Named, type RecipeParts, sayNamed, weightOfNothing } from "./line";
import type { Id } from "../schema/id";
import type { Surroundings } from "../schema/field";
import { type Role, roleRule, WORDED } from "./roles";
import { cut } from "../schema/characters";
import { NOTHING_SAID, type Said, writtenClauses } from "./clauses";
import type { ParsedEntry, ParsedLine } from "./parsed";
import { isPlain, isPlainAnew, quote } from "./book";
import { lex } from "./lexer";

/** The name a recipe has when nobody gives it one: its first output, or "Salvage" and its first ingredient. */
export function givenName(kind: RecipeParts["kind"], nameOf: (role: Role) => string | undefined): string {
  if (kind === "salvage") return cut(`Salvage ${nameOf("ingredient") ?? "nothing"}`, 120).trimEnd();
  return nameOf("output") ?? "Nothing";
}

export function defaultName(around: Surroundings, recipe: Pick<RecipeParts, "kind" | "lines">): string {
  return givenName(recipe.kind, (role) => {
    const line = recipe.lines.find((l) => l.role === role);
    if (!line) return undefined;
    return line.any !== undefined || around.has("item", line.item) ? sayNamed(line, around) : undefined;
  });
}

/**
 * `parseLine(formatRecipe(x))` gives x back, and formatting what was parsed changes nothing more.
 * The recipe's own name stands first, before a colon, unless it is the default name.
 */
export const formatRecipe = (around: Surroundings, recipe: RecipeParts): string =>
  labelled(around, recipe, recipe.name === defaultName(around, recipe) ? null : recipe.name);

/** The same without a name before it. */
export const formatUnnamed = (around: Surroundings, recipe: RecipeParts): string => labelled(around, recipe, null);

function labelled(around: Surroundings, recipe: RecipeParts, label: string | null): string {
  return written(
    around,
    { ...recipe, taughtBy: recipe.taughtBy && { name: recipe.taughtBy, item: recipe.taughtBy } },
    label,
    recipe.lines,
    (l) => writtenName(around, l),
  );
}

/** Lines alone, as a recipe of nothing but them. */
export function formatLines(around: Surroundings, lines: readonly Line[]): string {
  return written(around, { kind: "craft", ...NOTHING_SAID }, null, lines, (l) => writtenName(around, l));
}

const writtenName = (around: Surroundings, { item, any }: Named): string =>
  any === undefined ? around.names("item").written(item) : `any ${around.names("tag").written(any)}`;

/** What a source gives, without the arrow; empty where it gives nothing. */
export const formatGiven = (around: Surroundings, lines: readonly Line[]): string =>
  lines.length ? formatLines(around, lines).replace(/^nothing -> /, "") : "";

/** Writes what was read back as a line, names that are not in the pantry included. For a form beside the line. */
export function formatParsed(around: Surroundings, parsed: ParsedLine): string {
  const [items, tags] = [around.names("item"), around.names("tag")];
  const anew = (name: string) => (isPlainAnew(name) ? name : quote(name));
  const name = ({ item, any, name: of }: Pick<ParsedEntry, "item" | "any" | "name">) =>
    any === undefined ? (item ? items.written(item) : anew(of)) : `any ${any ? tags.written(any) : anew(of)}`;
  return written(around, parsed, parsed.label, parsed.entries, name);
}

type Part = Pick<Line, "role" | "min" | "max" | "chance" | "uses" | "draw">;
type Whole = Pick<ParsedLine, "kind"> & Said;

/** The one order and spelling of a line. */
function written<P extends Part>(
  around: Surroundings,
  whole: Whole,
  label: string | null,
  lines: readonly P[],
  nameOf: (part: P) => string,
): string {
  const entry = (l: P): string => {
    const quantity = l.min === l.max ? String(l.min) : `${l.min}..${l.max}`;
    const counted = roleRule(l.role).one && quantity === "1" ? "" : `${quantity} `;
    const chance = l.chance === 1 ? "" : ` ${toPercent(l.chance)}%`;
    return `${counted}${nameOf(l)}${chance}${l.uses === null ? "" : ` lasting ${l.uses}`}`;
  };
  const itemName = ({ item, name: of }: { item: Id | null; name: string }) =>
    item ? around.names("item").written(item) : isPlainAnew(of) ? of : quote(of);
  /** A draw stands where its first line does. */
  const side = (role: Role) => {
    return inDraws(lines.filter((l) => l.role === role))
      .map((group) => (group[0].draw ? drawn(group[0].draw, group) : entry(group[0])))
      .join(" + ");
  };
  const drawn = ({ times }: Draw, group: readonly P[]): string => {
    const nothing = weightOfNothing(group);
    const parts = group.map((l) => `${l.draw?.weight}: ${entry(l)}`).concat(nothing > 0 ? [`${nothing}: nothing`] : []);
    return `${times} ${times === 1 ? "draw" : "draws"} { ${parts.join(" | ")} }`;
  };
  const worded = WORDED.flatMap(({ role, word }) => {
    const text = side(role);
    return text ? [`${word} ${text}`] : [];
  });
  const parts = [
    whole.kind === "salvage" ? "salvage" : "",
    side("ingredient") || "nothing",
    "->",
    side("output") || "nothing",
    ...worded,
    ...writtenClauses(whole, around, itemName),
  ];
  const name = label === null ? "" : `${isPlainLabel(label) ? label : quote(label)}: `;
  return name + parts.filter(Boolean).join(" ");
}

const isPlainLabel = (name: string): boolean =>
  isPlain(name) ||
  (/^[\p{L}][\p{L}\p{N}' -]*$/u.test(name) &&
    lex(name).tokens.every(({ kind }) => kind === "word" || kind === "number"));
