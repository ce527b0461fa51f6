/**
 * A field that says which records something is about: "item:ID, recipe:ID". It does not hold on to them: what is about a
 * record that was removed stays, and applies again when the removal is undone.
 */
import { capital, either } from "../numbers/format";
import { shown } from "./characters";
import { type BundleWriting, cell, type Field, type FieldOptions, plain, snake, type Surroundings } from "./field";
import { type Id, isId } from "./id";
import { kindWord } from "./kind-word";

export interface SubjectRef {
  readonly kind: string;
  readonly id: Id;
}

/** In a bundle, for a record that no longer exists. */
const REMOVED = "-";
const SEPARATOR = ", ";
/** Characters of a kind, a colon, an id and the separator, at most. */
const EACH = 40;

const join = (parts: readonly (readonly [kind: string, name: string])[]): string =>
  parts.map(([kind, name]) => `${kind}:${name}`).join(SEPARATOR);
const split = (text: string): [kind: string, name: string][] =>
  text
    .split(",")
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part) => {
      const at = part.indexOf(":");
      return [part.slice(0, Math.max(at, 0)), part.slice(at + 1)];
    });

export const isSubject = ({ id }: SubjectRef): boolean => isId(id);
export const subjectsText = (of: readonly SubjectRef[]): string => join(of.map(({ kind, id }) => [kind, id]));
/** The records of a value. The id of one that was removed before a bundle was written is “-”. */
export const subjectsIn = (value: string): SubjectRef[] => split(value).map(([kind, id]) => ({ kind, id: id as Id }));

/**
 * @param kinds  names of the kinds it may be about
 * @param most   number of records, at most
 */
export function subjects(kinds: readonly string[], most: number, options: FieldOptions = {}): Field<string> {
  const toKeys = (value: string, keyOf: BundleWriting["keyOf"]): string =>
    join(
      split(value).map(([kind, id]) => {
        const key = keyOf(kind, id as Id);
        return [kind, key === id ? REMOVED : key];
      }),
    );
  const nameOf = (kind: string, id: string, around: Surroundings): string =>
    around.has(kind, id as Id) ? around.nameOf(kind, id as Id) : `a removed ${kindWord(kind)}`;
  const unknownKind = (kind: string): string =>
    `${kind === "" ? "A kind is missing" : `${shown(kind)} isn't a kind of record`}. Write kind:key, such as item:sailcloth.`;
  return {
    ...plain,
    type: "subjects",
    options,
    initial: "",
    bundleInitial: "",
    check(value, to) {
      if (typeof value !== "string") return to.fault("", "Expected text.");
      if (value.length > most * EACH) return to.fault("", `It names more than ${most} records.`);
      const parts = split(value);
      if (parts.length > most) return to.fault("", `It names ${parts.length} records; the maximum is ${most}.`);
      if (value !== join(parts)) return to.fault("", "Expected kind:id, separated by a comma and a space.");
      for (const [kind, id] of parts) {
        if (!kinds.includes(kind)) return to.fault("", unknownKind(kind));
        if (id !== REMOVED && !isId(id)) return to.fault("", `${shown(id)} isn't the id of a record.`);
      }
    },
    toBundle: (value, { keyOf }) => (value === "" ? undefined : toKeys(value, keyOf)),
    fromBundle(value, place, from) {
      if (typeof value !== "string") {
        from.fault(place, "Expected text, such as item:sailcloth.");
        return "";
      }
      return join(
        split(value).map(([kind, key]) => {
          if (key === REMOVED || !kinds.includes(kind)) return [kind, key];
          return [kind, from.reference(kind, key, place) ?? REMOVED];
        }),
      );
    },
    schema: () => ({
      type: "string",
      maxLength: most * EACH,
      description: "Records as kind:key, separated by commas.",
    }),
    format: (value, around) =>
      join(
        split(value).map(([kind, id]) => [
          kind,
          around.has(kind, id as Id) ? around.names(kind).keyOf(id as Id) : REMOVED,
        ]),
      ),
    parse(typed, typing) {
      const found: [string, string][] = [];
      for (const [kind, name] of split(typed)) {
        if (!kinds.includes(kind)) return { message: unknownKind(kind) };
        const record = name === REMOVED ? null : typing.names(kind).find(name);
        if (record && record.found !== "one")
          return {
            message:
              record.found === "none"
                ? `There is no ${kindWord(kind)} called “${name}”.`
                : `${record.keys.length} records are called “${name}”. Enter the key of one: ${either(record.keys)}.`,
          };
        found.push([kind, record ? record.id : REMOVED]);
      }
      return { value: join(found) };
    },
    say: (value, around) =>
      split(value)
        .map(([kind, id], k) => (k ? nameOf(kind, id, around) : capital(nameOf(kind, id, around))))
        .join(", ") || "nothing",
    stored: (name, shape) => cell({ name: snake(name), type: "text", nullable: false }, shape),
  };
}
