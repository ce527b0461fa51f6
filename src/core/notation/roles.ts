/** The roles of the recipe line. Lexer, parser, formatter, completion, bundle and form go through this table. */

export interface RoleRule {
  readonly name: string;
  /** Its list in a recipe of a bundle. */
  readonly list: string;
  /** Where it stands: before the arrow, behind it, or behind a word of its own. */
  readonly stands: "before" | "behind" | { readonly word: string };
  /** What is expected there, in a sentence. */
  readonly wanted: string;
  /** A quantity of 1 is not written. */
  readonly one?: true;
  /** May come or be taken by chance, and (where it comes) by draws. */
  readonly chance?: true;
  readonly draws?: true;
  /** May come surer by a stat of the maker. */
  readonly bonus?: true;
  /** May be any item with a tag: "any fish". */
  readonly any?: true;
  /** Wears out: "lasting 50". */
  readonly wears?: true;
  /** What it is in comes back, unless it is taken whole. */
  readonly emptied?: true;
  /** May have a place of its own: in a pattern, or as one of the two that are combined. */
  readonly placed?: true;
  /** What the form calls it. */
  readonly title: string;
}

export const ROLE_TABLE = [
  {
    name: "ingredient",
    list: "ingredients",
    stands: "before",
    wanted: "an ingredient",
    chance: true,
    any: true,
    emptied: true,
    placed: true,
    title: "Takes",
  },
  {
    name: "tool",
    list: "tools",
    stands: { word: "using" },
    wanted: "a tool",
    one: true,
    any: true,
    wears: true,
    placed: true,
    title: "Using",
  },
  { name: "station", list: "stations", stands: { word: "at" }, wanted: "a station", one: true, any: true, title: "At" },
  {
    name: "output",
    list: "outputs",
    stands: "behind",
    wanted: "what it makes",
    chance: true,
    draws: true,
    bonus: true,
    title: "Gives",
  },
] as const satisfies readonly RoleRule[];

export type Role = (typeof ROLE_TABLE)[number]["name"];
export const ROLES = ROLE_TABLE.map((r) => r.name) as readonly Role[];
const byName = new Map<string, RoleRule>(ROLE_TABLE.map((r) => [r.name, r]));
export const roleRule = (role: Role): RoleRule => byName.get(role) as RoleRule;
/** Roles in the order of their lists in a bundle. */
export const LISTED: readonly RoleRule[] = [...ROLE_TABLE].sort((a, b) => (a.list < b.list ? -1 : 1));

/** Roles behind a word of their own, in the order in which a line has them. */
export const WORDED: readonly { readonly role: Role; readonly word: string }[] = ROLE_TABLE.flatMap(
  ({ name, stands }) => (typeof stands === "object" ? [{ role: name, word: stands.word }] : []),
).sort((a, b) => (a.word < b.word ? -1 : 1));
