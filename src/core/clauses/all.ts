/**
 * What follows from the list of clauses: fields of a recipe and its variants, their values in a line, what a variant
 * overrides, the terms of a run, and how all of it is written.
 */
import type { Field, Surroundings, ValueOf } from "../schema/field";
import type { Id } from "../schema/id";
import type { Clause, ItemName, WriteName } from "./clause";
import { CLAUSES } from "./list";
import { noTerms, type Terms } from "./terms";

export const ALL_CLAUSES: readonly Clause[] = CLAUSES;

type Each = (typeof CLAUSES)[number];
type All<U> = (U extends unknown ? (of: U) => void : never) extends (of: infer I) => void ? I : never;
type Flat<T> = { readonly [N in keyof T]: T[N] };

/** Fields of a recipe, and of a variant, that clauses give. */
export type ClauseFields = Flat<All<Each["fields"]>>;
export type VariantFields = { readonly [N in keyof ClauseFields]: Field<ValueOf<ClauseFields[N]> | null> };
/** Their values: of a recipe, of a variant (null: as the recipe), and in a line, where items are names. */
export type ClauseValues = { readonly [N in keyof ClauseFields]: ValueOf<ClauseFields[N]> };
export type VariantValues = { readonly [N in keyof ClauseFields]: ValueOf<ClauseFields[N]> | null };
export type ClauseStatement = {
  readonly [N in keyof ClauseFields]: N extends Each["items"][number] ? ItemName | null : ValueOf<ClauseFields[N]>;
};

const joined = <T>(of: (clause: Clause) => object): T => Object.assign({}, ...ALL_CLAUSES.map(of)) as T;
export const CLAUSE_FIELDS = joined<ClauseFields>((c) => c.fields);
export const VARIANT_FIELDS = joined<VariantFields>((c) => c.ofVariant);
/** What holds where a line has no clauses. */
export const NOTHING_SAID = joined<ClauseStatement>(({ fields }) =>
  Object.fromEntries(Object.entries(fields).map(([name, { initial }]) => [name, initial])),
);
const MEMBERS = ALL_CLAUSES.map(({ fields }) => Object.keys(fields));
const ITEMS = new Set(ALL_CLAUSES.flatMap(({ items }) => items));

/** Members of a bundle that clauses are. */
export const CLAUSE_MEMBERS = Object.entries(CLAUSE_FIELDS as { readonly [name: string]: Field }).flatMap(
  ([name, { options }]) => (options.within ? [] : [options.bundled ?? name]),
);

type Loose = { readonly [name: string]: unknown };

/** The values of a recipe by one of its variants. */
export function overridden(recipe: ClauseValues, variant: VariantValues): ClauseValues {
  const [own, others]: Loose[] = [variant, recipe];
  const values: { [name: string]: unknown } = {};
  for (const names of MEMBERS) {
    const from = own[names[0]] === null ? others : own;
    for (const name of names) values[name] = from[name];
  }
  return values as ClauseValues;
}

/** Whether a variant has any clause of its own. */
export const saysAny = (variant: VariantValues): boolean =>
  MEMBERS.some(([first]) => (variant as Loose)[first] !== null);

/** Values of a recipe as a line has them. */
export const toLine = (values: ClauseValues, nameOf: (item: Id) => string): ClauseStatement =>
  converted(values, false, (item) => ({ name: nameOf(item as Id), item })) as ClauseStatement;
/** Those of a variant: only what it gives. */
export const variantToLine = (values: VariantValues, nameOf: (item: Id) => string): Partial<ClauseStatement> =>
  converted(values, true, (item) => ({ name: nameOf(item as Id), item }));

/** Values of a line as a recipe has them. @param make  gives the id of an item by a name that is new */
export const toRecord = (said: ClauseStatement, make: (name: string) => Id): ClauseValues =>
  converted(said, false, (named) => idOf(named as ItemName, make)) as ClauseValues;
/** The same as a variant has them: null where it gives none. */
export const toVariant = (said: Partial<ClauseStatement>, make: (name: string) => Id): VariantValues => ({
  ...NONE,
  ...(converted(said, false, (named) => idOf(named as ItemName, make)) as Partial<VariantValues>),
});
const idOf = ({ item, name }: ItemName, make: (name: string) => Id): Id => item ?? make(name);
const NONE = Object.fromEntries(MEMBERS.flat().map((name) => [name, null])) as unknown as VariantValues;

function converted(from: object, partly: boolean, item: (value: unknown) => unknown): Loose {
  const values: { [name: string]: unknown } = {};
  for (const names of MEMBERS) {
    const given = (from as Loose)[names[0]];
    if (given === undefined || (partly && given === null)) continue;
    for (const name of names) {
      const value = (from as Loose)[name];
      values[name] = ITEMS.has(name) && value !== null && value !== undefined ? item(value) : value;
    }
  }
  return values;
}

/** What a run asks for by clauses. */
export function termsOf(values: ClauseValues): Terms {
  const terms = noTerms();
  for (const { run } of ALL_CLAUSES) run(values, terms);
  return terms;
}

/** Whether one way of a recipe is better for a player than another in any clause. */
export const betterInAny = (way: ClauseValues, than: ClauseValues): boolean =>
  ALL_CLAUSES.some(({ better }) => better !== undefined && better(way, than) > 0);

/** The clauses of a line, each with its word; those that need not be written are left out. */
export const writtenClauses = (said: ClauseStatement, around: Surroundings, name: WriteName): string[] =>
  ALL_CLAUSES.flatMap(({ word, write }) => {
    const text = write(said, around, name);
    return text === null ? [] : [`${word} ${text}`];
  });

/** Those of a variant; also that it has none of something. */
export const writtenOfVariant = (said: Partial<ClauseStatement>, around: Surroundings, name: WriteName): string[] =>
  ALL_CLAUSES.flatMap(({ word, write, none }, k) => {
    const value = (said as Loose)[MEMBERS[k][0]];
    if (value === undefined || value === null) return [];
    return [`${word} ${write({ ...NOTHING_SAID, ...said }, around, name) ?? none}`];
  });

/** The same for people, for the drawing beside a line. */
export const drawnClauses = (said: ClauseStatement, around: Surroundings): string[] =>
  ALL_CLAUSES.flatMap(({ write, draw }) =>
    write(said, around, ({ name }) => name) === null ? [] : [draw(said, around)],
  );
