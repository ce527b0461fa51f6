/** Fields that refer to records: one, or a set of them in an order. */
import { capital, didYouMean, either } from "../numbers/format";
import { several } from "./bytes";
import { shown } from "./characters";
import {
  cell,
  type Checking,
  type Field,
  type FieldOptions,
  plain,
  snake,
  type Surroundings,
  type Typing,
} from "./field";
import { type Id, isId } from "./id";
import { aKind, kindWord } from "./kind-word";
import { MOST_LISTED } from "./limits";
import { meantBy } from "./meant";

export const refProblem = (to: Checking, kind: string, id: unknown): string | null =>
  isId(id) && to.has(kind, id) ? null : `There is no ${kindWord(kind)} ${shown(id)} in this pantry.`;

interface RefOptions extends FieldOptions {
  /** The kind refers to itself and makes a tree, of which a branch has at most so many records. */
  readonly tree?: number;
}

export function ref(to: string, options: RefOptions & { readonly optional: true }): Field<Id | null>;
export function ref(to: string, options?: RefOptions): Field<Id>;
export function ref(to: string, { optional, ...options }: RefOptions & { optional?: boolean } = {}): Field<Id | null> {
  return {
    ...plain,
    type: "ref",
    options,
    initial: null,
    bundleInitial: null,
    needed: !optional,
    targets: [to],
    completions: (around) => [...around.names(to).names()],
    check(value, into) {
      if (value === null && optional) return;
      const message = refProblem(into, to, value);
      if (message) into.fault("", message);
    },
    references(value, into) {
      if (value !== null) into(to, value);
    },
    relink: (value, kind, from, other) => (kind === to && value === from ? other : value),
    toBundle: (value, { keyOf }) => (value === null ? undefined : keyOf(to, value)),
    fromBundle: (value, place, from) => (value === null && optional ? null : from.reference(to, value, place)),
    schema: () => ({ type: optional ? ["string", "null"] : "string", description: `Key of ${aKind(to)}.` }),
    format: (value, around) => (value === null ? "" : around.names(to).text(value)),
    parse(typed, typing) {
      if (typed === "") return optional ? { value: null } : { message: "Enter a name." };
      const found = findOrMake(to, typed, typing);
      return typeof found === "string" ? { value: found } : found;
    },
    say: (value, around) => (value === null ? "nothing" : around.nameOf(to, value)),
    pack: (value, to) => to.id(value),
    unpack: (from) => from.id(),
    stored: (name, shape) =>
      cell({ name: `${snake(name)}_id`, type: "text", length: 12, nullable: optional === true, to }, shape),
  };
}

/** The record of a typed name; made where its kind is made by typing names. */
function findOrMake(kind: string, typed: string, typing: Typing): Id | { readonly message: string } {
  const names = typing.names(kind);
  const found = names.find(typed);
  if (found.found === "one") return found.id;
  if (found.found === "several")
    return {
      message: `${found.keys.length} records are called “${typed}”. Enter the key of one: ${either(found.keys)}.`,
    };
  const coming = typing.coming?.(kind, typed);
  if (coming) return coming;
  const known = (text: string): boolean => names.find(text).found === "one";
  const meant = meantBy(typed, { ...typing, known, offer: "name" });
  if (meant?.known)
    return {
      message: `There is no ${kindWord(kind)} called “${typed}”, but there is “${meant.name}”. ${capital(meant.beside)} doesn't belong here. Enter ${meant.name}.`,
    };
  const made = typing.make(kind, typed);
  if (made) return made;
  const offers = names.near(typed);
  return {
    message: `There is no ${kindWord(kind)} called “${typed}”.${didYouMean(offers) || " Create it in Setup first."}`,
  };
}

/** A set of records, each once; without an order of its own in a bundle. */
export const refs = (to: string, options: FieldOptions = {}): Field<readonly Id[]> => ({
  ...plain,
  type: "refs",
  options,
  initial: NONE,
  bundleInitial: NONE,
  depth: 1,
  targets: [to],
  completions: (around) => [...around.names(to).names()],
  check(value, into) {
    if (!Array.isArray(value)) return into.fault("", "Expected a list.");
    if (value.length > MOST_LISTED) return into.fault("", `${value.length} entries; the maximum is ${MOST_LISTED}.`);
    if (new Set(value).size < value.length) return into.fault("", "The list contains an entry twice.");
    for (const id of value) {
      const message = refProblem(into, to, id);
      if (message) into.fault("", message);
    }
  },
  references(value, into) {
    for (const id of value) into(to, id);
  },
  relink: (value, kind, from, other) =>
    kind === to && value.includes(from) ? [...new Set(value.map((id) => (id === from ? other : id)))] : value,
  toBundle: (value, { keyOf }) => (value.length ? value.map((id) => keyOf(to, id)).sort() : undefined),
  fromBundle(value, place, from, before) {
    if (!Array.isArray(value)) {
      from.fault(place, "Expected a list of keys.");
      return [];
    }
    const ids = value.map((each, k) => from.reference(to, each, `${place}[${k}]`));
    // Where the same set is there already, it keeps its order.
    return before?.length === ids.length && before.every((id) => ids.includes(id)) ? before : ids;
  },
  schema: () => ({
    type: "array",
    items: { type: "string", minLength: 1 },
    description: `Keys of ${kindWord(to, true)}.`,
  }),
  format: (value, around) => value.map((id) => listed(id, to, around)).join(", "),
  parse(typed, typing) {
    const ids = new Set<Id>();
    for (const part of typed.split(/[,;]/)) {
      const name = part.trim().replace(/^#/, "");
      const found = name === "" ? null : findOrMake(to, name, typing);
      if (typeof found === "string") ids.add(found);
      else if (found) return found;
    }
    return { value: [...ids] };
  },
  say: (value, around) => value.map((id) => around.nameOf(to, id)).join(", ") || "nothing",
  pack(ids, into) {
    into.whole(ids.length);
    for (const id of ids) into.id(id);
  },
  unpack: (from) => several(from, () => from.id() as Id),
  stored(name, shape) {
    const at =
      shape.parts.push({
        name: snake(name).replace(/s$/, ""),
        columns: [
          { name: `${to}_id`, type: "text", length: 12, nullable: false, to },
          { name: "position", type: "integer", nullable: false },
        ],
        parts: [],
        key: `${to}_id`,
        order: "position",
      }) - 1;
    return {
      write: (ids, row) => {
        row.parts[at] = ids.map((id, position) => ({ values: [id, position], parts: [] }));
      },
      read: (row) => row.parts[at].map(({ values }) => values[0] as Id),
    };
  },
});
const NONE: readonly Id[] = [];

/** A name within a list: what would be read as several, or as a tag's sign, is written as its key. */
function listed(id: Id, kind: string, around: Surroundings): string {
  const text = around.names(kind).text(id);
  return /[,;]|^#/.test(text) ? around.names(kind).keyOf(id) : text;
}
