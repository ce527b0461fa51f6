/** Which of the designers' fields and which stats a record has, and what its type asks of them. */
import type { ItemType, Kind, OwnField } from "../kinds/index";
import { fieldOfDefinition } from "../kinds/own";
import type { Id } from "../schema/id";
import type { OwnValue } from "../schema/own-value";
import type { Catalogue } from "./catalogue";
import type { Heir } from "./inheritance";
import type { Index } from "./persistent-map";
import { lineage, rememberedOfTypes } from "./tree";

/** Fields by the kind they belong to, in the order in which they are read. */
const BY_KIND: Index<OwnField, ReadonlyMap<string, readonly OwnField[]>> = {
  build(fields) {
    const by = new Map<string, OwnField[]>();
    for (const field of fields.values()) {
      const there = by.get(field.of);
      if (there) there.push(field);
      else by.set(field.of, [field]);
    }
    for (const those of by.values()) those.sort((a, b) => a.order - b.order || a.name.localeCompare(b.name));
    return by;
  },
  // Definitions change seldom.
  follow: () => null,
};
const NONE: readonly OwnField[] = [];

/** The fields that records of a kind may have. Types hold those of items too: what they say their items inherit. */
export function fieldsOfKind(catalogue: Catalogue, kind: Kind): readonly OwnField[] {
  const by = catalogue.records.field.index(BY_KIND);
  if (kind !== "type") return by.get(kind) ?? NONE;
  return [...(by.get("type") ?? NONE), ...(by.get("item") ?? NONE)];
}

/** What a type asks of a field or a stat, as far as it or a type above it says. */
export interface Demand {
  readonly required: boolean;
  readonly min: number | null;
  readonly max: number | null;
  /** The nearest type that says anything of it. */
  readonly type: ItemType | null;
}

const typesOf = (catalogue: Catalogue, heir: Heir): readonly ItemType[] =>
  "parent" in heir ? lineage(catalogue, heir.id) : lineage(catalogue, heir.type);

/** @param heir  an item, or a type whose items are asked for */
export function demandOn(catalogue: Catalogue, heir: Heir, which: "takes" | "measures", id: Id): Demand {
  let required: boolean | null = null;
  let [min, max]: [number | null, number | null] = [null, null];
  let nearest: ItemType | null = null;
  for (const type of typesOf(catalogue, heir)) {
    if (!Object.hasOwn(type[which], id)) continue;
    const said = type[which][id];
    nearest ??= type;
    required ??= said.required;
    min ??= said.min;
    max ??= said.max;
  }
  if (which === "takes") required ??= catalogue.records.field.get(id)?.required ?? false;
  return { required: required ?? false, min, max, type: nearest };
}

/** Whether an item, or the items of a type, have a field. */
export const hasField = (catalogue: Catalogue, heir: Heir, field: OwnField): boolean =>
  field.of === "item" &&
  (field.everywhere || typesOf(catalogue, heir).some((type) => Object.hasOwn(type.takes, field.id)));

/** The fields that an item, or the items of a type, have. */
export const fieldsOfItem = (catalogue: Catalogue, heir: Heir): OwnField[] =>
  fieldsOfKind(catalogue, "item").filter((field) => hasField(catalogue, heir, field));

/** Stats that an item has by its type; null where no type above it says any: then it may have all of them. */
export function statsOfItem(catalogue: Catalogue, heir: Heir): ReadonlySet<Id> | null {
  const type = "parent" in heir ? heir.id : heir.type;
  if (type === null) return null;
  const known = catalogue.records.type.index(MEASURED);
  let stats = known.get(type);
  if (stats === undefined) {
    const all = new Set(lineage(catalogue, type).flatMap(({ measures }) => Object.keys(measures) as Id[]));
    stats = all.size ? all : null;
    known.set(type, stats);
  }
  return stats;
}
const MEASURED = rememberedOfTypes<ReadonlySet<Id> | null>();

/** Why a value does not fit the definition of its field, or null. */
export function ownProblem(
  field: OwnField,
  holder: Kind,
  value: OwnValue,
  has: (kind: string, id: Id) => boolean,
): string | null {
  if (field.of !== holder && !(holder === "type" && field.of === "item"))
    return `“${field.name}” is a field of ${field.of === "item" ? "items" : `a ${field.of}`}, not of a ${holder}.`;
  let message: string | null = null;
  const fault = (_: string, why: string) => {
    message ??= why;
  };
  fieldOfDefinition(field).check(value, { has, fault });
  return message;
}
