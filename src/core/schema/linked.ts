/**
 * A text of a language of ours that names records. Each of them stands in it by kind and id (`"user stat:0a1b…"`), so that
 * a new name changes nothing of it, and the database holds it to a record that is there. People read and type names.
 */
import { textProblem } from "./characters";
import {
  type Column,
  type Field,
  type FieldOptions,
  plain,
  snake,
  type Surroundings,
  type Typed,
  type Typing,
} from "./field";
import { type Id, isId } from "./id";
import { refProblem } from "./ref";

/** How a language goes from what people type to what is kept and back. */
export interface Language {
  /** Kinds of the records that it may name. */
  readonly kinds: readonly string[];
  read(text: string, typing: Typing): Typed<string>;
  write(value: string, around: Surroundings): string;
  /** What is wrong with a text as it is kept, or null. */
  problem(value: string): string | null;
}

const NAMED = /([a-z]+):([0-9a-z]{12})(?=")/g;
/** What stands in quotes as it is kept: words before it, its kind, its id. */
const KEPT = /"((?:[a-z]+ )*)([a-z]+):([0-9a-z]{12})"/g;
/** The same in a bundle, by key and without quotes. */
const BUNDLED = /(?<![\w"])((?:(?:user|target|item|most) )*)([a-z]+):([a-z0-9_]+)/g;
/** Most records that one text names. */
const MOST_NAMED = 400;

export const namedIn = (text: string): { readonly kind: string; readonly id: Id }[] =>
  [...text.matchAll(NAMED)].map(([, kind, id]) => ({ kind, id: id as Id }));

/** @returns a field that holds null where nothing is written */
export function linked(language: Language, most: number, options: FieldOptions = {}): Field<string | null> {
  const { kinds } = language;
  const known = (kind: string): boolean => kinds.includes(kind);
  return {
    ...plain,
    type: "linked",
    options,
    initial: null,
    bundleInitial: null,
    targets: kinds,
    depth: 1,
    check(value, to) {
      if (value === null) return;
      const message = textProblem(value, { max: most, lines: true });
      if (message) return to.fault("", message);
      const named = namedIn(value as string);
      if (named.length > MOST_NAMED)
        return to.fault("", `It names ${named.length} records; the maximum is ${MOST_NAMED}.`);
      const strange = named.find(({ kind, id }) => !known(kind) || !isId(id));
      if (strange) return to.fault("", `“${strange.kind}” isn't a kind it can name. Use ${kinds.join(", ")}.`);
      for (const { kind, id } of named) {
        const gone = refProblem(to, kind, id);
        if (gone) return to.fault("", gone);
      }
      const wrong = language.problem(value as string);
      if (wrong) to.fault("", wrong);
    },
    references(value, to) {
      if (value !== null) for (const { kind, id } of namedIn(value)) to(kind, id);
    },
    relink: (value, kind, from, to) => (value === null ? null : value.replaceAll(`${kind}:${from}"`, `${kind}:${to}"`)),
    toBundle: (value, { keyOf }) =>
      value === null
        ? undefined
        : value.replace(KEPT, (_, words: string, kind: string, id: Id) => `${words}${kind}:${keyOf(kind, id)}`),
    fromBundle(value, place, from) {
      if (typeof value !== "string") {
        if (typeof value === "number") return String(value);
        if (value !== null) from.fault(place, "Expected text.");
        return null;
      }
      return value.replace(BUNDLED, (whole, words: string, kind: string, key: string) => {
        if (!known(kind)) return whole;
        const id = from.reference(kind, key, place);
        return id ? `"${words}${kind}:${id}"` : whole;
      });
    },
    schema: () => ({ type: ["string", "number", "null"], maxLength: most }),
    format: (value, around) => (value === null ? "" : language.write(value, around)),
    parse: (typed, typing) => (typed.trim() === "" ? { value: null } : language.read(typed, typing)),
    say: (value, around) => (value === null ? "nothing" : language.write(value, around)),
    stored(name, shape) {
      const at = shape.columns.push({ name: snake(name), type: "text", nullable: true }) - 1;
      const columns: Column[] = [
        { name: "position", type: "integer", nullable: false },
        ...kinds.map((kind): Column => ({ name: `to_${kind}_id`, type: "text", length: 12, nullable: true, to: kind })),
      ];
      const part =
        shape.parts.push({
          name: `${snake(name)}_name`,
          columns,
          parts: [],
          key: "position",
          order: "position",
        }) - 1;
      return {
        write(value, row) {
          row.values[at] = value;
          row.parts[part] = (value === null ? [] : namedIn(value)).map(({ kind, id }, position) => ({
            values: [position, ...kinds.map((each) => (each === kind ? id : null))],
            parts: [],
          }));
        },
        read: (row) => row.values[at] as string | null,
      };
    },
  };
}
