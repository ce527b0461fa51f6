/** A field whose value is one of several sorts, each with members of its own; the member `is` tells which. */
import { shown } from "./characters";
import { type Column, type Field, type FieldOptions, type Fields, type ObjectOf, plain, snake } from "./field";
import { memberSet } from "./group";
import { isPlain } from "./json";
import { within } from "./members";

export type Variants = { readonly [is: string]: Fields };
export type UnionOf<V extends Variants> = { [N in keyof V & string]: { readonly is: N } & ObjectOf<V[N]> }[keyof V &
  string];
type Values = Readonly<Record<string, unknown>>;

/** @param initial  what a new one is */
export function union<V extends Variants>(
  variants: V,
  initial: UnionOf<V>,
  options: FieldOptions = {},
): Field<UnionOf<V>> {
  const words = Object.keys(variants);
  const sets = words.map((word) => memberSet(variants[word], word, { is: word }));
  /** Which sort a value says it is; -1 for none. */
  const sort = (value: Values) => words.indexOf(value.is as string);
  const setOf = (value: UnionOf<V>) => sets[sort(value as Values)];
  const others = (value: UnionOf<V>): Values => {
    const { is: _, ...rest } = value as Values & { is: string };
    return rest;
  };
  return {
    ...plain,
    type: "union",
    inner: { is: "union", variants },
    options,
    initial,
    bundleInitial: initial,
    needed: true,
    targets: sets.flatMap((set) => set.targets),
    depth: Math.max(...sets.map((set) => set.depth)),
    check(value, to) {
      if (!isPlain(value)) return to.fault("", "Expected an object.");
      if (sort(value) < 0) return to.fault("is", `${shown(value.is)} isn't an option. Use ${words.join(", ")}.`);
      sets[sort(value)].check(others(value as UnionOf<V>), to);
    },
    references: (value, to) => setOf(value).references(value as Values, to),
    relink: (value, kind, from, to) => setOf(value).relink(value as Values, kind, from, to) as UnionOf<V>,
    toBundle: (value, to) => ({ is: (value as { is: string }).is, ...setOf(value).toBundle(others(value), to) }),
    fromBundle(value, place, from) {
      if (isPlain(value) && sort(value) >= 0)
        return { is: value.is, ...sets[sort(value)].fromBundle(value, place, from, ["is"]) };
      from.fault(place, `Expected an object whose "is" is one of ${words.join(", ")}.`);
      return initial;
    },
    schema: (defs) => ({
      oneOf: words.map((word, k) => {
        const { properties, required } = sets[k].schema(defs);
        return {
          type: "object",
          additionalProperties: false,
          properties: { is: { const: word }, ...properties },
          required: ["is", ...required],
        };
      }),
    }),
    format: (value, around) => `{is: ${(value as { is: string }).is}, ${setOf(value).format(others(value), around)}}`,
    parse(text, typing) {
      const inner = within(text.trim());
      const head = inner === null ? null : /^\s*is:\s*([^,]*?)\s*(?:,([\s\S]*))?$/.exec(inner);
      const at = head ? words.indexOf(head[1]) : -1;
      if (!head || at < 0) return { message: `Expected {is: …} with one of ${words.join(", ")}, found “${text}”.` };
      const read = sets[at].parse(head[2] ?? "", typing);
      return "message" in read ? read : { value: { is: words[at], ...read.value } as UnionOf<V> };
    },
    say: (value, around) => `${(value as { is: string }).is} ${setOf(value).say(others(value), around)}`,
    pack(value, to) {
      to.whole(sort(value as Values));
      setOf(value).pack(value as Values, to);
    },
    unpack: (from) => sets[from.whole()].unpack(from) as UnionOf<V>,
    stored(name, shape) {
      const tells = shape.columns.push({ name: `${snake(name)}_is`, type: "text", length: 40, nullable: false }) - 1;
      const first = shape.columns.length;
      const parts = shape.parts.length;
      const stored = sets.map((set, k) => set.stored(`${name}_${words[k]}_`, shape));
      const end = shape.columns.length;
      const lastPart = shape.parts.length;
      for (let k = first; k < end; k++) shape.columns[k] = { ...shape.columns[k], nullable: true } as Column;
      return {
        write(value, row) {
          row.values[tells] = (value as { is: string }).is;
          for (let k = first; k < end; k++) row.values[k] = null;
          for (let k = parts; k < lastPart; k++) row.parts[k] = [];
          stored[sort(value as Values)].write(others(value), row);
        },
        read(row) {
          const at = words.indexOf(row.values[tells] as string);
          return { is: words[at], ...stored[at].read(row) } as UnionOf<V>;
        },
      };
    },
  };
}
