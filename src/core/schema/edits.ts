/**
 * A field that holds edits that were not made, as the JSON text of a list of them. In a bundle they stand as objects
 * with keys in place of ids; those about records that are gone are left out there.
 */
import { count } from "../numbers/format";
import { shown } from "./characters";
import { type BundleReading, type BundleWriting, cell, type Field, type FieldOptions, plain, snake } from "./field";
import { type Id, isId, newId } from "./id";
import { isPlain, type Json, type JsonObject } from "./json";
import type { Kind } from "./kind";
import { bundleDefaults, bundleNames, fromBundle, type Path, pathOf, toBundle } from "./record";
import { type EditShape, type ShapedEdit, shapedEdits } from "./shaped-edits";

/** Edits that one value holds at most, and characters of its text. */
export const MOST_HELD = 2_000;
export const MOST_HELD_TEXT = 400_000;

/** The kinds that edits may be about; asked for when it is needed, as they are made after this field. */
export interface EditedKinds {
  readonly names: () => readonly string[];
  readonly definition: (name: string) => Kind;
}

const NONE = "[]";
/** Stands for the id of the pantry that a scenario is part of, where it came from a bundle. */
export const THIS_PANTRY = "000000000000" as Id;
/** What of a value no key leads to. */
class Gone extends Error {}

/** The edits of a value; none where it is no such text. */
export function editsIn(text: string): readonly unknown[] {
  try {
    const value = JSON.parse(text) as unknown;
    return Array.isArray(value) ? value : [];
  } catch {
    return [];
  }
}
export const editsText = (edits: readonly object[]): string => JSON.stringify(edits);

export function edits(kinds: EditedKinds, options: FieldOptions = {}): Field<string> {
  const shape = (): EditShape => ({
    kinds: kinds.names(),
    deep: Math.max(...[...kinds.names(), "pantry"].map((name) => kinds.definition(name).members.depth - 1)),
    most: MOST_HELD,
    tooMany: (n) => `${n} edits; a scenario holds at most ${MOST_HELD}. Apply it, or change fewer records.`,
  });
  const isKnown = (name: unknown): name is string =>
    typeof name === "string" && (name === "pantry" || kinds.names().includes(name));
  return {
    ...plain,
    type: "edits",
    options,
    initial: NONE,
    bundleInitial: NONE,
    check(value, to) {
      if (typeof value !== "string") return to.fault("", "Expected text.");
      if (value.length > MOST_HELD_TEXT)
        return to.fault(
          "",
          `The edits take ${value.length} characters; a scenario holds at most ${MOST_HELD_TEXT}. Apply it, or change fewer records.`,
        );
      let read: unknown;
      try {
        read = JSON.parse(value);
      } catch {
        return to.fault("", "Expected a list of edits as JSON.");
      }
      if (Array.isArray(read) && !read.length) return value === NONE ? undefined : to.fault("", `Expected ${NONE}.`);
      const shaped = shapedEdits(read, shape());
      if ("issues" in shaped) for (const { path, message } of shaped.issues) to.fault(path, message);
      else if (JSON.stringify(read) !== value) to.fault("", "Expected the JSON without spaces.");
    },
    toBundle(value, to) {
      const held = editsIn(value) as readonly ShapedEdit[];
      // What the edits add has no key in the pantry yet.
      const added = new Map(held.flatMap((e) => (e.op === "add" ? [[`${e.kind} ${e.record.id}`, keyIn(e)]] : [])));
      const writing: BundleWriting = {
        ticksPerSecond: to.ticksPerSecond,
        keyOf(kind, id) {
          const key = added.get(`${kind} ${id}`) ?? to.keyOf(kind, id);
          if (key === id) throw new Gone();
          return key;
        },
      };
      const list = held.flatMap((edit) => {
        try {
          return [written(edit, kinds.definition(edit.kind), writing)];
        } catch (error) {
          if (error instanceof Gone) return [];
          throw error;
        }
      });
      return list.length ? list : undefined;
    },
    fromBundle(value, place, from) {
      if (!Array.isArray(value)) {
        from.fault(place, `Expected a list of edits, not ${shown(value)}.`);
        return NONE;
      }
      const added = new Map<string, Id>();
      const reading: BundleReading = {
        ...from,
        reference: (kind, key, at) => added.get(`${kind} ${key}`) ?? from.reference(kind, key, at),
      };
      const list = value.flatMap((each, k): object[] => {
        const edit = readEdit(each, `${place}[${k}]`, isKnown, kinds, reading, added);
        return edit ? [edit] : [];
      });
      return editsText(list);
    },
    edited(value, map) {
      const list = (editsIn(value) as readonly ShapedEdit[]).map((edit): object => {
        const kind = kinds.definition(edit.kind);
        if (edit.op !== "set") {
          const record = Object.entries(edit.record).map(([name, each]) => [
            name,
            Object.hasOwn(kind.fields, name) ? map(kind.fields[name], null, each) : each,
          ]);
          return { ...edit, record: Object.fromEntries(record) };
        }
        const at = pathOf(kind, edit.field);
        if (!at) return edit;
        const [from, to] = [edit.from, edit.to].map((each) => map(at.field, at.part as Id | null, each));
        return { ...edit, from, to };
      });
      return editsText(list);
    },
    schema: () => ({
      type: "array",
      maxItems: MOST_HELD,
      items: {
        type: "object",
        properties: {
          set: { type: "string", description: "Kind of the record that is changed." },
          of: { type: "string", description: "Its key." },
          field: { type: "string", description: "The field, or field.key for one part, such as stats.warmth." },
          from: { description: "The value that it replaces, as the field stands in a bundle." },
          to: { description: "The new value." },
          add: { type: "string", description: "Kind of the record that is added." },
          remove: { type: "string", description: "Kind of the record that is removed." },
          record: { type: "object", description: "The record as it stands in a bundle." },
        },
        additionalProperties: false,
      },
    }),
    format: (value) => value,
    parse: (typed) => ({ value: typed.trim() || NONE }),
    say: (value) => count(editsIn(value).length, "edit"),
    stored: (name, table) => cell({ name: snake(name), type: "text", nullable: false }, table),
  };
}

const keyIn = ({ record }: Extract<ShapedEdit, { op: "add" | "remove" }>): string =>
  String((record as { readonly key?: unknown }).key ?? "");
const valueField = ({ field, part }: Path) => (part === null ? field : (field.parts?.of ?? field));

function written(edit: ShapedEdit, kind: Kind, to: BundleWriting): JsonObject {
  if (edit.op !== "set") return { [edit.op]: edit.kind, record: toBundle(kind, edit.record, to) };
  const at = pathOf(kind, edit.field);
  if (!at) throw new Gone();
  const field = at.part === null ? at.name : `${at.name}.${to.keyOf(at.field.parts?.kind ?? "", at.part as Id)}`;
  // What is left out is the field's initial value; null is a part that has no value.
  const value = (member: "from" | "to"): JsonObject => {
    const json = edit[member] === null && at.part !== null ? null : valueField(at).toBundle(edit[member], to);
    return json === undefined ? {} : { [member]: json };
  };
  return {
    set: edit.kind,
    ...(edit.kind === "pantry" ? {} : { of: to.keyOf(edit.kind, edit.id as Id) }),
    field,
    ...value("from"),
    ...value("to"),
  };
}

const MEMBERS = {
  set: ["set", "of", "field", "from", "to"],
  add: ["add", "record"],
  remove: ["remove", "record"],
} as const;

function readEdit(
  each: Json,
  place: string,
  isKnown: (name: unknown) => name is string,
  kinds: EditedKinds,
  from: BundleReading,
  added: Map<string, Id>,
): object | null {
  const op = isPlain(each) ? (["set", "add", "remove"] as const).find((name) => Object.hasOwn(each, name)) : undefined;
  if (!isPlain(each) || !op) {
    from.fault(place, "Expected an edit with set, add or remove.");
    return null;
  }
  const row = each as JsonObject;
  for (const name of Object.keys(row))
    if (!(MEMBERS[op] as readonly string[]).includes(name)) {
      from.unknown(place, name, MEMBERS[op]);
      return null;
    }
  const kind = row[op];
  if (!isKnown(kind) || (op !== "set" && kind === "pantry")) {
    from.fault(`${place}.${op}`, `${shown(kind)} isn't a kind. Use ${kinds.names().join(", ")}.`);
    return null;
  }
  const of = kinds.definition(kind);
  if (op === "set") return readSet(row, place, of, from);
  const { record } = row;
  if (!isPlain(record) || typeof record.key !== "string") {
    from.fault(`${place}.record`, "Expected a record with its key.");
    return null;
  }
  const known = bundleNames(of);
  for (const name of Object.keys(record))
    if (!known.has(name)) {
      from.unknown(`${place}.record`, name, [...known]);
      return null;
    }
  const id = op === "add" ? newId() : from.reference(kind, record.key, `${place}.record.key`);
  if (!isId(id)) return null;
  if (op === "add") added.set(`${kind} ${record.key}`, id);
  return {
    op,
    kind,
    record: {
      id,
      ...bundleDefaults(of),
      ...fromBundle(of, record as JsonObject, `${place}.record`, from, undefined),
    },
  };
}

function readSet(row: JsonObject, place: string, kind: Kind, from: BundleReading): object | null {
  const id = kind.name === "pantry" ? THIS_PANTRY : from.reference(kind.name, row.of, `${place}.of`);
  const [name, key] = typeof row.field === "string" ? row.field.split(".") : ["", undefined];
  const field = Object.hasOwn(kind.fields, name) ? kind.fields[name] : undefined;
  if (!field || (key === undefined) !== (field.parts === undefined)) {
    from.fault(`${place}.field`, `${shown(row.field)} isn't a field of ${kind.name}.`);
    return null;
  }
  const part = key === undefined || !field.parts ? null : from.reference(field.parts.kind, key, `${place}.field`);
  if (id === null || (key !== undefined && part === null)) return null;
  const path = part === null ? name : `${name}.${part}`;
  const at = pathOf(kind, path);
  if (!at) return null;
  const value = (member: "from" | "to"): unknown => {
    if (!Object.hasOwn(row, member)) return valueField(at).bundleInitial;
    const json = row[member];
    if (json === null && part !== null) return null;
    return valueField(at).fromBundle(json, `${place}.${member}`, from, undefined);
  };
  return { op: "set", kind: kind.name, id, field: path, from: value("from"), to: value("to") };
}
