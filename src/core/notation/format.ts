/** Writes a recipe as its one canonical line. */
import { toPercent } from "../numbers/fraction";
import {
  type Bonus,
  type Draw,
  type FromTable,
  inDraws,
  type Line,
  type LineTarget,
  type RecipeParts,
  sayNamed,
  weightOfNothing,
} from "./line";
import type { Id } from "../schema/id";
import type { Surroundings } from "../schema/field";
import { type Role, roleRule, WORDED } from "./roles";
import { cut } from "../schema/characters";
import {
  NOTHING_SAID,
  type ClauseStatement,
  toLine,
  variantToLine,
  writtenClauses,
  writtenOfVariant,
} from "../clauses/all";
import type { ParsedEntry, ParsedLine, ParsedVariant } from "./parsed";
import { isPlain, isPlainAnew, quote } from "./book";
import { lex } from "./lexer";
import { LIES } from "./pattern";
import { grid, NO_GRID } from "./places";

/** The name a recipe has when no one gives it one: its first output, or "Salvage" and its first ingredient. */
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
    {
      ...recipe,
      ...toLine(recipe, byId),
      variants: recipe.variants.map((variant) => ({
        label: variant.name || null,
        lines: variant.lines,
        said: variantToLine(variant, byId),
      })),
    },
    label,
    recipe.lines,
    (l) => writtenName(around, l),
  );
}

/** No one reads names of items that are there. */
const byId = (item: Id): string => item;

/** Lines alone, as a recipe of nothing but them. */
export function formatLines(around: Surroundings, lines: readonly Line[]): string {
  return written(
    around,
    { kind: "craft", tables: [], grid: NO_GRID, ...NOTHING_SAID, variants: [] },
    null,
    lines,
    (l) => writtenName(around, l),
  );
}

/** " plus 2% per Deftness" */
const sayBonus = (around: Surroundings, { share, stat }: Bonus): string =>
  ` ${share < 0 ? "minus" : "plus"} ${toPercent(Math.abs(share))}% per ${around.names("stat").written(stat)}`;

const writtenName = (around: Surroundings, { item, any }: LineTarget): string =>
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
  const variants = parsed.variants.map(({ label, entries, said }) => ({ label, lines: entries, said }));
  return written(around, { ...parsed, variants }, parsed.label, parsed.entries, name);
}

/** One variant alone, without the bar before it. */
export function formatVariant(around: Surroundings, variant: ParsedVariant): string {
  const nothing = { kind: "craft", entries: [], tables: [], grid: NO_GRID, ...NOTHING_SAID } as const;
  const line = formatParsed(around, { ...nothing, label: null, variants: [variant], issues: [], ok: true });
  return line.slice(line.indexOf("|") + 1).trim();
}

type Part = Pick<Line, "role" | "min" | "max" | "chance" | "uses" | "draw" | "bonus" | "whole" | "cells">;
/** What a variant says, names and all. */
interface SaidVariant<P> {
  readonly label: string | null;
  readonly lines: readonly P[];
  readonly said: Partial<ClauseStatement>;
}
type Whole<P> = Pick<ParsedLine, "kind" | "grid" | "tables"> &
  ClauseStatement & { readonly variants: readonly SaidVariant<P>[] };

/** The one order and spelling of a line. */
function written<P extends Part>(
  around: Surroundings,
  whole: Whole<P>,
  label: string | null,
  lines: readonly P[],
  nameOf: (part: P) => string,
): string {
  const entry = (l: P): string => {
    const quantity = l.min === l.max ? String(l.min) : `${l.min}..${l.max}`;
    const counted = roleRule(l.role).one && quantity === "1" ? "" : `${quantity} `;
    const chance =
      l.chance === 1 && !l.bonus ? "" : ` ${toPercent(l.chance)}%${l.bonus ? sayBonus(around, l.bonus) : ""}`;
    return `${counted}${nameOf(l)}${chance}${l.whole ? " whole" : ""}${l.uses === null ? "" : ` lasting ${l.uses}`}`;
  };
  /** What has a place: named, and said to be kept where it is. */
  const placed = (l: P): string =>
    `${nameOf(l)}${l.role === "tool" ? " kept" : ""}${l.whole ? " whole" : ""}${l.uses === null ? "" : ` lasting ${l.uses}`}`;
  const itemName = ({ item, name: of }: { item: Id | null; name: string }) =>
    item ? around.names("item").written(item) : isPlainAnew(of) ? of : quote(of);
  /** A draw stands where its first line does. */
  const side = (role: Role, of: readonly P[] = lines) => {
    return inDraws(of.filter((l) => l.role === role && !l.cells))
      .map((group) => (group[0].draw ? drawn(group[0].draw, group) : entry(group[0])))
      .join(" + ");
  };
  const drawn = ({ times }: Draw, group: readonly P[]): string => {
    const nothing = weightOfNothing(group);
    const parts = group.map((l) => `${l.draw?.weight}: ${entry(l)}`).concat(nothing > 0 ? [`${nothing}: nothing`] : []);
    return `${times} ${times === 1 ? "draw" : "draws"} { ${parts.join(" | ")} }`;
  };
  const worded = (of: readonly P[]) =>
    WORDED.flatMap(({ role, word }) => {
      const text = side(role, of);
      return text ? [`${word} ${text}`] : [];
    });
  const rows = lines.some((l) => l.cells) ? grid(whole.grid, lines) : [];
  const taken = (): string => {
    const loose = side("ingredient");
    if (whole.kind === "combine" && rows.length) return rows[0].flatMap((l) => (l ? [placed(l)] : [])).join(" + ");
    if (whole.kind !== "pattern" || !rows.length) return loose || "nothing";
    const lies = LIES.filter((each) => whole.grid[each]);
    const cells = rows.map((row) => row.map((l) => (l ? placed(l) : "-")).join(", ")).join("; ");
    return [`[${cells}]`, ...lies, ...(loose ? [`+ ${loose}`] : [])].join(" ");
  };
  const other = ({ label: called, lines: of, said }: SaidVariant<P>): string => {
    const outputs = side("output", of);
    const message = [
      side("ingredient", of),
      outputs && `-> ${outputs}`,
      ...worded(of),
      ...writtenOfVariant(said, around, itemName),
    ];
    return `| ${called === null ? "" : `${isPlainLabel(called) ? called : quote(called)}: `}${message.filter(Boolean).join(" ")}`;
  };
  const fromTable = ({ table, times }: FromTable): string =>
    `${times === 1 ? "" : `${times} `}table ${around.names("table").written(table)}`;
  const parts = [
    whole.kind === "craft" ? "" : whole.kind,
    taken(),
    "->",
    [side("output"), ...whole.tables.map(fromTable)].filter(Boolean).join(" + ") || "nothing",
    ...worded(lines),
    ...(whole.kind === "combine" && !whole.grid.mirrored ? ["ordered"] : []),
    ...writtenClauses(whole, around, itemName),
    ...whole.variants.map(other),
  ];
  const name = label === null ? "" : `${isPlainLabel(label) ? label : quote(label)}: `;
  return name + parts.filter(Boolean).join(" ");
}

const isPlainLabel = (name: string): boolean =>
  isPlain(name) ||
  (/^[\p{L}][\p{L}\p{N}' -]*$/u.test(name) &&
    lex(name).tokens.every(({ kind }) => kind === "word" || kind === "number"));
