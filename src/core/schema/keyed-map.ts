/** A field that holds a value for each of some records: numbers by stat. */
import { cut } from "./characters";
import {
  type Column,
  type Field,
  type FieldOptions,
  inList,
  plain,
  type RowTree,
  snake,
  type Surroundings,
} from "./field";
import { type Id, isId } from "./id";
import { aKind, kindWord } from "./kind-word";
import { isPlain, type Json } from "./json";
import { MOST_LISTED } from "./limits";
import { refProblem } from "./ref";
import { quoted, readMembers } from "./members";

export type KeyedMap<T> = { readonly [id: string]: T };

interface Options<T> extends FieldOptions {
  /** What stands for one record, where that is not the same for all: it is typed and shown so. */
  each?(around: Surroundings, id: Id): Field<T>;
}

/** @param of  what stands for each record */
export function keyedMap<T>(
  kind: string,
  of: Field<T>,
  { each: one, ...options }: Options<T> = {},
): Field<KeyedMap<T>> {
  const each = one ?? (() => of);
  const initial: KeyedMap<T> = {};
  return {
    ...plain,
    type: "map",
    options,
    initial,
    bundleInitial: initial,
    depth: 1 + of.depth,
    targets: [kind, ...of.targets],
    check(value, to) {
      if (!isPlain(value)) return to.fault("", `Expected an object of ${kindWord(kind, true)} and their values.`);
      const ids = Object.keys(value);
      if (ids.length > MOST_LISTED)
        return to.fault("", `${ids.length} ${kindWord(kind, true)}; the maximum is ${MOST_LISTED}.`);
      for (const id of ids) {
        const message = refProblem(to, kind, id);
        if (message) to.fault(cut(id, 60), message);
        of.check(value[id], { ...to, fault: (path, why) => to.fault(`${cut(id, 60)}${path && `.${path}`}`, why) });
      }
    },
    references(value, to) {
      for (const id in value) {
        to(kind, id as Id);
        of.references(value[id], to);
      }
    },
    // Where the other has a value already, that one stays.
    relink: (value, target, from, to) =>
      Object.fromEntries(
        Object.entries(value).flatMap(([id, each]): [string, T][] => {
          const renamed = target === kind && id === from;
          if (renamed && Object.hasOwn(value, to)) return [];
          return [[renamed ? to : id, of.relink(each, target, from, to)]];
        }),
      ),
    parts: {
      of,
      each,
      kind,
      isPart: isId,
      names: Object.keys,
      get: (value, name) => (Object.hasOwn(value, name) ? value[name] : null),
      with(value, name, part) {
        const { [name]: _, ...others } = value;
        return part === null ? others : { ...value, [name]: part as T };
      },
    },
    toBundle(value, to) {
      const entries = Object.entries(value).map(
        ([id, each]) => [to.keyOf(kind, id as Id), said(of, each, to)] as const,
      );
      return entries.length ? Object.fromEntries(entries.sort(([a], [b]) => (a < b ? -1 : 1))) : undefined;
    },
    fromBundle(value, place, from) {
      if (!isPlain(value)) {
        from.fault(place, `Expected an object such as { "vigour": 42 }, with keys of ${kindWord(kind, true)}.`);
        return {};
      }
      const found = new Map<string, unknown>();
      for (const [key, each] of Object.entries(value)) {
        const at = `${place}.${cut(key, 60)}`;
        const id = from.reference(kind, key, at);
        if (id && found.has(id)) from.fault(at, `This ${kindWord(kind)} appears twice.`);
        if (id) found.set(id, of.fromBundle(each as Json, at, from, undefined));
      }
      return Object.fromEntries(found);
    },
    schema: (defs) => ({
      type: "object",
      additionalProperties: of.schema(defs),
      description: `By key of ${aKind(kind)}.`,
    }),
    format: (value, around) =>
      Object.entries(value)
        .map(
          ([id, value]) =>
            `${quoted(around.names(kind).text(id as Id))}: ${quoted(each(around, id as Id).format(value, inList(around)))}`,
        )
        .join(", "),
    parse(typed, typing) {
      const members = readMembers(typed);
      if ("message" in members) return members;
      const found = new Map<string, T>();
      for (const { name, text } of members.members) {
        const which = typing.names(kind).find(name);
        if (which.found !== "one") return { message: `There is no ${kindWord(kind)} called “${name}”.` };
        const read = each(typing, which.id).parse(text, inList(typing));
        if ("message" in read) return read;
        found.set(which.id, read.value);
      }
      return { value: Object.fromEntries(found) };
    },
    say: (value, around) =>
      Object.entries(value)
        .map(([id, value]) => `${around.nameOf(kind, id as Id)} ${each(around, id as Id).say(value, around)}`)
        .join(", ") || "nothing",
    pack(value, to) {
      const ids = Object.keys(value);
      to.whole(ids.length);
      for (const id of ids as Id[]) {
        to.id(id);
        of.pack(value[id], to);
      }
    },
    unpack(from) {
      const value: { [id: string]: T } = {};
      for (let left = from.whole(); left > 0; left--) value[from.id() as Id] = of.unpack(from);
      return value;
    },
    stored(name, shape) {
      const columns: Column[] = [{ name: `${kind}_id`, type: "text", length: 12, nullable: false, to: kind }];
      const table = { name: snake(name).replace(/s$/, ""), columns, parts: [], key: `${kind}_id`, order: `${kind}_id` };
      const stored = of.stored("value", table);
      const at = shape.parts.push(table) - 1;
      return {
        write(value, row) {
          row.parts[at] = Object.keys(value).map((id) => {
            const entry: RowTree = { values: [id], parts: [] };
            stored.write(value[id], entry);
            return entry;
          });
        },
        read: (row) => Object.fromEntries(row.parts[at].map((entry) => [entry.values[0], stored.read(entry)])),
      };
    },
  };
}

/** A value of a map is said even where it is what a record has from the beginning. */
const said = <T>(of: Field<T>, value: T, to: Parameters<Field["toBundle"]>[1]): Json =>
  of.toBundle(value, to) ?? (value as Json);
