/** What is worn: things without a slot, and slots that nothing fits. */
import type { Catalogue } from "../catalogue/catalogue";
import { held } from "../catalogue/inheritance";
import type { Index } from "../catalogue/persistent-map";
import type { Item, TrialSubject } from "../kinds/index";
import type { Id } from "../schema/id";
import { type CheckContext, perRecord, ref } from "./check";
import { holdersBeside, idsEdited } from "./holders";

const hasWornFields = ({ room, carries, blocks }: Pick<Item, "room" | "carries" | "blocks">): boolean =>
  (room ?? 0) > 0 || (carries ?? 0) > 0 || blocks.length > 0;
const typesSay = new WeakMap<Catalogue["records"]["type"], boolean>();
/** Whether any type says what is said of worn things: most pantries' types say nothing of it. */
function someTypeSays({ records: { type } }: Catalogue): boolean {
  let some = typesSay.get(type);
  if (some === undefined) {
    some = [...type.values()].some(hasWornFields);
    typesSay.set(type, some);
  }
  return some;
}

/** The name of the first who wears each item. */
const WEARERS: Index<TrialSubject, ReadonlyMap<Id, string>> = {
  build(subjects) {
    const by = new Map<Id, string>();
    for (const { name, worn } of subjects.values()) for (const item of worn) if (!by.has(item)) by.set(item, name);
    return by;
  },
  follow: () => null,
};

/** Why an item is meant to be worn although it has no slot; null where it is not. */
function meantToBeWorn(catalogue: Catalogue, item: Item): string | null {
  if ((held(catalogue, item, "room").value ?? 0) > 0) return "it adds bag slots while it is worn";
  if ((held(catalogue, item, "carries").value ?? 0) > 0) return "it adds extra load while it is worn";
  if (held(catalogue, item, "blocks").value?.length) return "it blocks slots while it is worn";
  const wearer = catalogue.records.subject.index(WEARERS).get(item.id);
  return wearer === undefined ? null : `${wearer} wears it`;
}

/** An item that is meant to be worn and has no slot. */
export const wornWithoutSlot = perRecord<"item">({
  id: "worn-without-slot",
  reads: [],
  per: ["item"],
  *also({ catalogue }, _, edits) {
    yield* holdersBeside(catalogue, edits);
    if (idsEdited(edits, "subject").size) for (const { worn } of catalogue.records.subject.values()) yield* worn;
    for (const edit of edits)
      if (edit.kind === "subject" && edit.op === "set" && edit.field === "worn") yield* edit.from as readonly Id[];
  },
  *at({ catalogue }, item) {
    if (!hasWornFields(item) && !catalogue.records.subject.size && !someTypeSays(catalogue)) return;
    if (item.status === "retired" || held(catalogue, item, "slot").value !== null) return;
    const why = meantToBeWorn(catalogue, item);
    if (!why) return;
    yield {
      subject: ref(catalogue, "item", item.id),
      message: `${item.name} has no slot, but ${why}.`,
      evidence: { type: "names", names: [item.name] },
      fixes: [{ message: `Open ${item.name} and choose its slot`, do: "open", kind: "item", id: item.id }],
    };
  },
});

/** A slot that no item fits. */
export const slotUnfit = perRecord<"slot">({
  id: "slot-unfit",
  reads: [],
  per: ["slot"],
  also: ({ catalogue }: CheckContext, _, edits) =>
    edits.some(
      (e) =>
        (e.kind === "item" || e.kind === "type") &&
        (e.op !== "set" || ["slot", "type", "parent", "status"].includes(e.field)),
    )
      ? catalogue.records.slot.keys()
      : [],
  *at({ catalogue }, slot) {
    if (fitted(catalogue).has(slot.id)) return;
    yield {
      subject: ref(catalogue, "slot", slot.id),
      message: `No item is worn on ${slot.name}.`,
      evidence: { type: "names", names: [slot.name] },
      fixes: [{ message: `Open ${slot.name}`, do: "open", kind: "slot", id: slot.id }],
    };
  },
});

const slots = new WeakMap<
  Catalogue["records"]["item"],
  { readonly types: unknown; readonly fitted: ReadonlySet<Id> }
>();
/** Slots that some item is worn on; looked for once for the same items and types. */
function fitted(catalogue: Catalogue): ReadonlySet<Id> {
  const { item, type } = catalogue.records;
  const known = slots.get(item);
  if (known?.types === type) return known.fitted;
  const found = new Set<Id>();
  for (const each of item.values()) {
    const slot = each.status === "retired" ? null : held(catalogue, each, "slot").value;
    if (slot !== null) found.add(slot);
  }
  slots.set(item, { types: type, fitted: found });
  return found;
}
