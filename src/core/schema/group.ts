/** Values with members: one alone, one that may be absent, and lists of them. */
import type { ByteReader, ByteWriter } from "./bytes";
import { shown } from "./characters";
import { copier } from "./copier";
import {
  type Brief,
  type BundleReading,
  type BundleWriting,
  type Checking,
  type Column,
  type Field,
  type FieldOptions,
  type Fields,
  inList,
  type ObjectOf,
  plain,
  type Referring,
  type RowTree,
  snake,
  type Surroundings,
  type TableShape,
  type Typing,
} from "./field";
import type { Id } from "./id";
import { type Definitions, isPlain, type Json, type JsonObject, type JsonSchema, same } from "./json";
import { quoted, readGroups, readMembers, within } from "./members";

type Values = Readonly<Record<string, unknown>>;
/** Most problems that are told of one value. */
const TOLD = 20;
/** Bits of one number that says which members differ from their initial value. */
const BITS = 30;
const NONE: readonly number[] = [];

/** Reports members that are not known. */
export function unknownMembers(value: object, known: readonly string[], noun: string, to: Checking): void {
  let told = 0;
  for (const name of Object.keys(value))
    if (!known.includes(name) && told++ < TOLD)
      to.fault("", `A ${noun} has no field ${shown(name)}. Its fields: ${known.join(", ")}.`);
}

/** A checking of what stands at a path below. */
export const below = (to: Checking, path: string): Checking => ({
  has: to.has,
  fault: (rest, message) => to.fault(rest ? `${path}.${rest}` : path, message),
});

/** What a set of members does with an object; shared by groups, lists and unions. */
export interface MemberSet {
  readonly names: readonly string[];
  readonly fields: Fields;
  readonly depth: number;
  readonly targets: readonly string[];
  initial(): Values;
  check(value: Values, to: Checking): void;
  references(value: Values, to: Referring): void;
  relink(value: Values, kind: string, from: Id, to: Id): Values;
  toBundle(value: Values, to: BundleWriting): JsonObject;
  /** @param beside  members that belong to whoever asks */
  fromBundle(row: Values, place: string, from: BundleReading, beside?: readonly string[]): { [name: string]: unknown };
  schema(defs: Definitions): { properties: { [name: string]: JsonSchema }; required: string[] };
  format(value: Values, around: Surroundings): string;
  parse(text: string, typing: Typing): { readonly value: { [name: string]: unknown } } | { readonly message: string };
  say(value: Values, around: Surroundings): string;
  pack(value: Values, to: ByteWriter): void;
  /** What was packed, behind what leads a value of the set. */
  unpack(from: ByteReader): { [name: string]: unknown };
  stored(
    prefix: string,
    shape: TableShape,
  ): {
    write(value: Values, row: RowTree): void;
    /** @param into  an object with the initial values, which gets those of the row */
    read(row: RowTree, into?: { [name: string]: unknown }): { [name: string]: unknown };
  };
}

const bundled = (name: string, field: Field): string => field.options.bundled ?? name;
const empty = (value: unknown): boolean =>
  typeof value === "object" && value !== null && Object.keys(value).length === 0;
/** Whether a value is the initial one, as far as that is seen without going through it. */
const isInitial = (value: unknown, initial: unknown): boolean => value === initial || (empty(value) && empty(initial));

/** @param lead  what stands before the members in a value that is unpacked */
export function memberSet(fields: Fields, noun: string, lead: Values = {}): MemberSet {
  const all = Object.entries(fields);
  const names = all.map(([name]) => name);
  const list = all.map(([, field]) => field);
  const unpackers = list.map((field) => field.unpack);
  const referring = all.filter(([, field]) => field.targets.length > 0);
  const masks = Math.ceil(all.length / BITS);
  const optional = new Set(all.filter(([, f]) => f.initial === undefined).map(([name]) => name));
  // Values are copies of one whose layout is settled: an object that gets its members one by one is kept as a hash table
  // beyond a dozen of them, at five times the memory and the time.
  const initial = Object.fromEntries(
    all.filter(([name]) => !optional.has(name)).map(([name, f]) => [name, f.initial as unknown]),
  );
  // A member that is added to such a copy would give each of them a layout of its own, at twice the memory, and slow
  // everything that reads it: so there is a value to copy for each set of members that may be absent.
  const absent = all.flatMap(([name], k) => (optional.has(name) ? [{ name, k }] : []));
  if (absent.length > BITS) throw new RangeError(`Of a ${noun} at most ${BITS} members may be absent.`);
  const absentAmongFirst = absent.reduce((bits, { k }) => (k < BITS ? bits | (1 << k) : bits), 0);
  /** Makes values with the members that are always there, and some of those that may be absent. */
  const layoutsWith = (first: Values) => {
    const made = new Map<number, () => { [name: string]: unknown }>();
    return (present: number): (() => { [name: string]: unknown }) => {
      let make = made.get(present);
      if (!make) {
        const there = new Set(absent.filter((_, n) => present & (1 << n)).map(({ name }) => name));
        const values = Object.fromEntries([
          ...Object.entries(first),
          ...all.flatMap(([name]) =>
            there.has(name) ? [[name, null]] : name in initial ? [[name, initial[name]]] : [],
          ),
        ]);
        const copy = copier();
        make = () => copy(values);
        made.set(present, make);
      }
      return make;
    };
  };
  const layout = layoutsWith({});
  const led = Object.keys(lead).length ? layoutsWith(lead) : layout;
  const blank = layout(0);
  /** A value in the layout that all those with the same members share. */
  const settled = (value: { [name: string]: unknown }): { [name: string]: unknown } => {
    let present = 0;
    for (let n = 0; n < absent.length; n++) if (value[absent[n].name] !== undefined) present |= 1 << n;
    if (!present) return value;
    const out = layout(present)();
    for (let k = 0; k < names.length; k++) if (names[k] in out) out[names[k]] = value[names[k]];
    return out;
  };
  return {
    names,
    fields,
    depth: 1 + Math.max(0, ...all.map(([, f]) => f.depth)),
    targets: all.flatMap(([, f]) => f.targets),
    initial: blank,
    check(value, to) {
      unknownMembers(value, names, noun, to);
      for (const [name, field] of all) {
        if (Object.hasOwn(value, name)) field.check(value[name], below(to, name));
        else if (!optional.has(name)) to.fault(name, "This field is missing.");
      }
    },
    references(value, to) {
      for (let k = 0; k < referring.length; k++) {
        const [name, field] = referring[k];
        if (value[name] !== undefined) field.references(value[name], to);
      }
    },
    relink(value, kind, from, to) {
      const moved = all.filter(([name, field]) => value[name] !== undefined && field.targets.includes(kind));
      return {
        ...value,
        ...Object.fromEntries(moved.map(([name, field]) => [name, field.relink(value[name], kind, from, to)])),
      };
    },
    toBundle(value, to) {
      const out: JsonObject = {};
      for (const [name, field] of all) {
        const json = value[name] === undefined ? undefined : field.toBundle(value[name], to);
        if (json !== undefined) out[bundled(name, field)] = json;
      }
      return out;
    },
    fromBundle(row, place, from, beside = []) {
      const known = all.map(([name, field]) => bundled(name, field));
      for (const name of Object.keys(row))
        if (!known.includes(name) && !beside.includes(name)) from.unknown(place, name, [...beside, ...known]);
      const out = blank();
      for (const [name, field] of all) {
        const called = bundled(name, field);
        if (Object.hasOwn(row, called))
          out[name] = field.fromBundle(row[called] as Json, `${place}.${called}`, from, undefined);
        else if (field.needed) from.fault(`${place}.${called}`, "This is missing, and nothing can stand for it.");
        else if (!optional.has(name)) out[name] = field.bundleInitial;
      }
      return settled(out);
    },
    schema: (defs) => ({
      properties: Object.fromEntries(all.map(([name, field]) => [bundled(name, field), field.schema(defs)])),
      required: all.flatMap(([name, field]) => (field.needed ? [bundled(name, field)] : [])),
    }),
    format: (value, around) =>
      all
        .filter(([name, field]) => !same(value[name], field.initial))
        .map(([name, field]) => {
          const text = field.format(value[name], inList(around));
          return `${name}: ${field.depth > 0 && within(text) !== null ? text : quoted(text)}`;
        })
        .join(", "),
    parse(text, typing) {
      const read = readMembers(text);
      if ("message" in read) return read;
      const value: { [name: string]: unknown } = { ...this.initial() };
      for (const { name, text: each } of read.members) {
        const field = names.includes(name) ? fields[name] : undefined;
        if (!field) return { message: `A ${noun} has no “${name}”. It has: ${names.join(", ")}.` };
        const typed = field.parse(each, inList(typing));
        if ("message" in typed) return typed;
        value[name] = typed.value;
      }
      return { value: settled(value) };
    },
    say: (value, around) =>
      all
        .filter(([name, field]) => !same(value[name], field.initial))
        .map(([name, field]) => `${field.options.label ?? name} ${field.say(value[name], around)}`)
        .join(", ") || "nothing",
    pack(value, to) {
      const isSet = (k: number) => !isInitial(value[names[k]], list[k].initial);
      for (let from = 0; from < all.length; from += BITS) {
        let mask = 0;
        for (let k = from; k < Math.min(from + BITS, all.length); k++) if (isSet(k)) mask |= 1 << (k - from);
        to.whole(mask);
      }
      for (let k = 0; k < all.length; k++) if (isSet(k)) list[k].pack(value[names[k]], to);
    },
    unpack(from) {
      // Most have at most BITS members.
      const first = masks ? from.whole() : 0;
      const others = masks > 1 ? Array.from({ length: masks - 1 }, () => from.whole()) : NONE;
      let present = 0;
      if (masks > 1 || first & absentAmongFirst)
        for (let n = 0; n < absent.length; n++) {
          const { k } = absent[n];
          if ((k < BITS ? first : others[Math.floor(k / BITS) - 1]) & (1 << (k % BITS))) present |= 1 << n;
        }
      const into = led(present)();
      for (let mask = 0; mask < masks; mask++) {
        // What says nothing of its own is there already.
        for (let bits = mask ? others[mask - 1] : first; bits !== 0; bits &= bits - 1) {
          const k = mask * BITS + (31 - Math.clz32(bits & -bits));
          const value = unpackers[k](from);
          if (value !== undefined) into[names[k]] = value;
        }
      }
      return into;
    },
    stored(prefix, shape) {
      const columns = all.map(([name, field]) => {
        const from = shape.columns.length;
        const stored = field.stored(`${prefix}${name}`, shape);
        const row: RowTree = { values: [], parts: [] };
        stored.write(field.initial, row);
        for (let k = from; k < shape.columns.length; k++)
          shape.columns[k] = { initial: row.values[k], ...shape.columns[k] };
        return [name, stored] as const;
      });
      return {
        write: (value, row) => {
          for (const [name, stored] of columns) stored.write(value[name], row);
        },
        read(row, into) {
          const value = into ?? blank();
          for (const [name, stored] of columns) {
            const each = stored.read(row);
            if (each !== undefined) value[name] = each;
          }
          return into ? value : settled(value);
        },
      };
    },
  };
}

interface GroupOptions<F extends Fields> extends FieldOptions {
  /** What one is called in sentences. */
  readonly noun?: string;
  /** How it is said where there is room for a few words; else its members in their order. */
  readonly brief?: Brief;
  /** What holds between members; asked only where each is right by itself. */
  rules?(value: ObjectOf<F>, fault: (path: string, message: string) => void): void;
}

/** A value with members. */
export function group<F extends Fields>(
  fields: F,
  { noun = "group", brief, rules, ...options }: GroupOptions<F> = {},
): Field<ObjectOf<F>> {
  const set = memberSet(fields, noun);
  const initial = set.initial() as ObjectOf<F>;
  const values = (value: ObjectOf<F>) => value as unknown as Values;
  return {
    ...plain,
    type: "group",
    inner: { is: "group", fields, ...(brief && { brief }) },
    options,
    initial,
    bundleInitial: initial,
    depth: set.depth,
    targets: set.targets,
    needed: Object.values(fields).some((field) => field.needed),
    check(value, to) {
      if (!isPlain(value)) return to.fault("", `Expected a ${noun}.`);
      let faults = 0;
      set.check(value, {
        has: to.has,
        fault: (path, message) => (faults++ < TOLD ? to.fault(path, message) : undefined),
      });
      if (!faults) rules?.(value as unknown as ObjectOf<F>, to.fault);
    },
    references: (value, to) => set.references(values(value), to),
    relink: (value, kind, from, to) => set.relink(values(value), kind, from, to) as unknown as ObjectOf<F>,
    toBundle: (value, to) => set.toBundle(values(value), to),
    fromBundle(value, place, from) {
      if (isPlain(value)) return set.fromBundle(value, place, from);
      from.fault(place, `Expected an object with ${set.names.join(", ")}.`);
      return initial;
    },
    schema: (defs) => ({ type: "object", additionalProperties: false, ...set.schema(defs) }),
    format: (value, around) => `{${set.format(values(value), around)}}`,
    parse(text, typing) {
      const inner = within(text.trim());
      const read = inner === null ? { message: `Expected { and }, found “${text}”.` } : set.parse(inner, typing);
      return read as ReturnType<Field<ObjectOf<F>>["parse"]>;
    },
    say: (value, around) => set.say(values(value), around),
    pack: (value, to) => set.pack(values(value), to),
    unpack: (from) => set.unpack(from) as ObjectOf<F>,
    stored: (name, shape) => set.stored(`${name}_`, shape) as never,
  };
}

/** A value that may be absent; tells by a column of its own that can't be empty where it is there. */
export function maybe<T>(of: Field<T>): Field<T | undefined> {
  return {
    ...of,
    initial: undefined,
    bundleInitial: undefined,
    needed: false,
    check: of.check,
    references(value, to) {
      if (value !== undefined) of.references(value, to);
    },
    relink: (value, kind, from, to) => (value === undefined ? undefined : of.relink(value, kind, from, to)),
    toBundle: (value, to) => (value === undefined ? undefined : of.toBundle(value, to)),
    format: (value, around) => (value === undefined ? "" : of.format(value, around)),
    parse: (text, typing) => (text === "" ? { value: undefined } : of.parse(text, typing)),
    say: (value, around) => (value === undefined ? "nothing" : of.say(value, around)),
    // Where it is absent nothing is packed: the members around it say so.
    pack: (value, to) => (value === undefined ? undefined : of.pack(value, to)),
    unpack: of.unpack as Field<T | undefined>["unpack"],
    stored(name, shape) {
      const from = shape.columns.length;
      const stored = of.stored(name, shape);
      const tells = shape.columns.findIndex((c, k) => k >= from && !c.nullable);
      if (tells < 0) throw new Error(`“${name}” may be absent: one of its members must always be there.`);
      const to = shape.columns.length;
      for (let k = from; k < to; k++) shape.columns[k] = { ...shape.columns[k], nullable: true } as Column;
      return {
        write(value, row) {
          if (value !== undefined) stored.write(value, row);
          else for (let k = from; k < to; k++) row.values[k] = null;
        },
        read: (row) => (row.values[tells] === null ? undefined : stored.read(row)),
      };
    },
  };
}

interface ListOptions<F extends Fields> extends Omit<GroupOptions<F>, "rules"> {
  readonly most: number;
  /** What holds of one entry, and of all together; asked only where everything is right by itself. */
  rules?(entry: ObjectOf<F>, fault: (path: string, message: string) => void): void;
  together?(entries: readonly ObjectOf<F>[], fault: (path: string, message: string) => void): void;
}

/** Entries with members, in an order. */
export function list<F extends Fields>(
  fields: F,
  { most, noun = "entry", brief, rules, together, ...options }: ListOptions<F>,
): Field<readonly ObjectOf<F>[]> {
  type T = readonly ObjectOf<F>[];
  const entry = group(fields, { noun, brief, rules });
  const initial: T = [];
  const plural = noun.replace(/y$/, "ie").concat("s");
  return {
    ...plain,
    type: "list",
    inner: { is: "list", of: entry as Field, noun },
    options,
    initial,
    bundleInitial: initial,
    depth: 1 + entry.depth,
    targets: entry.targets,
    check(value, to) {
      if (!Array.isArray(value)) return to.fault("", `Expected a list of ${plural}.`);
      if (value.length > most) return to.fault("", `${value.length} ${plural}; at most ${most} fit.`);
      let faults = 0;
      const few = (path: string, message: string) => (faults++ < TOLD ? to.fault(path, message) : undefined);
      for (const [k, each] of value.entries()) entry.check(each, below({ has: to.has, fault: few }, String(k + 1)));
      if (!faults) together?.(value, few);
    },
    references(value, to) {
      for (let k = 0; k < value.length; k++) entry.references(value[k], to);
    },
    relink: (value, kind, from, to) => value.map((each) => entry.relink(each, kind, from, to)),
    toBundle: (value, to) => (value.length ? value.map((each) => entry.toBundle(each, to) as Json) : undefined),
    fromBundle(value, place, from) {
      if (Array.isArray(value))
        return value.map((each, k) => entry.fromBundle(each, `${place}[${k}]`, from, undefined));
      from.fault(place, `Expected a list of ${plural}.`);
      return initial;
    },
    schema: (defs) => ({ type: "array", maxItems: most, items: entry.schema(defs) }),
    format: (value, around) => value.map((each) => entry.format(each, around)).join("; "),
    parse(text, typing) {
      const read = readGroups(text);
      if ("message" in read) return read;
      const value: ObjectOf<F>[] = [];
      for (const inner of read.groups) {
        const each = entry.parse(`{${inner}}`, typing);
        if ("message" in each) return each;
        value.push(each.value);
      }
      return { value };
    },
    say: (value, around) => value.map((each) => entry.say(each, around)).join("; ") || "nothing",
    pack(value, to) {
      to.whole(value.length);
      for (const each of value) entry.pack(each, to);
    },
    unpack(from) {
      const values: ObjectOf<F>[] = [];
      for (let left = from.whole(); left > 0; left--) values.push(entry.unpack(from));
      return values as unknown as T;
    },
    stored(name, shape) {
      const columns: Column[] = [{ name: "position", type: "integer", nullable: false }];
      const table: TableShape = {
        name: snake(name).replace(/ies$/, "y").replace(/s$/, ""),
        columns,
        parts: [],
        key: "position",
        order: "position",
      };
      const stored = memberSet(fields, noun).stored("", table);
      const at = shape.parts.push(table) - 1;
      return {
        write(value, row) {
          row.parts[at] = value.map((each, position) => {
            const part: RowTree = { values: [position], parts: [] };
            stored.write(each as unknown as Values, part);
            return part;
          });
        },
        read: (row) => row.parts[at].map((part) => stored.read(part) as unknown as ObjectOf<F>),
      };
    },
  };
}
