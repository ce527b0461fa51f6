/** What checks of uses share: which items to look at again, and what effects come to for the pantry's subjects. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import { itemsBelow } from "../catalogue/types";
import { type Effect, type HeldUse, readyIn, usesOf } from "../catalogue/uses";
import type { Item, Kind, TrialSubject, Use } from "../kinds/index";
import { formatTicks } from "../numbers/ticks";
import type { Id } from "../schema/id";
import { Body } from "../trials/body";
import { Reckoner } from "../trials/reckon";
import type { RuleId } from "../checklist/index";
import { type CheckContext, type FindingDraft, type Fix, perRecord, type RecordCheck, type Ref, ref } from "./check";

/** Kinds that uses hang on: where one of them is another, every use may be. */
const AROUND: readonly Kind[] = [
  "condition",
  "resource",
  "subject",
  "cooldown",
  "constant",
  "table",
  "stat",
  "field",
  "exclusion",
  "situation",
];

/** Items whose uses may do something else after edits, beside those that were edited themselves. */
export function* usedBeside(catalogue: Catalogue, edits: readonly Edit[], around = AROUND): Generator<Id> {
  const { use } = catalogue.records;
  const owners = (of: Pick<Use, "item" | "type">) =>
    of.item !== null ? [of.item] : of.type !== null ? itemsBelow(catalogue, new Set([of.type])) : [];
  for (const edit of edits) {
    if (edit.kind === "use") {
      const record = edit.op === "set" ? use.get(edit.id) : (edit.record as Use);
      if (record) yield* owners(record);
      // One that changed hands.
      if (edit.op === "set" && edit.field === "item" && edit.from !== null) yield edit.from as Id;
      if (edit.op === "set" && edit.field === "type" && edit.from !== null)
        yield* itemsBelow(catalogue, new Set([edit.from as Id]));
    } else if (edit.kind === "type" && use.size)
      yield* itemsBelow(catalogue, new Set([edit.op === "set" ? edit.id : edit.record.id]));
  }
  // What subjects wear is part of what an effect comes to for them.
  const worn = new Set([...catalogue.records.subject.values()].flatMap((s) => s.worn));
  const dressed = (e: Edit) =>
    around.length > 0 &&
    worn.size > 0 &&
    (e.kind === "type" || (e.kind === "item" && worn.has(e.op === "set" ? e.id : e.record.id)));
  if (edits.some((e) => around.includes(e.kind as Kind) || dressed(e)))
    for (const each of use.values()) yield* owners(each);
}

/** A check that looks at one use of an item at a time, its own or one of its types'. */
export const perUse = (
  id: RuleId,
  at: (context: CheckContext, item: Item, use: HeldUse) => Iterable<FindingDraft>,
): RecordCheck =>
  perRecord<"item">({
    id,
    reads: [],
    per: ["item"],
    concerns: ({ records }) => records.use.size > 0,
    also: ({ catalogue }, _, edits) => usedBeside(catalogue, edits),
    *at(context, item) {
      for (const use of usesIn(context.catalogue, item)) yield* at(context, item, use);
    },
  });

/** What a finding about a use of an item is about. */
export const aboutUse = (catalogue: Catalogue, item: Item, { use }: HeldUse, ...more: readonly Ref[]): Ref[] => [
  ref(catalogue, "item", item.id),
  ref(catalogue, "use", use.id),
  ...more,
];

/** The item that was asked for last in each catalogue: many checks look at its uses one after the other. */
const lastUses = new WeakMap<Catalogue, { readonly item: Item; readonly uses: HeldUse[] }>();
/** The uses of an item that is not retired. */
export function usesIn(catalogue: Catalogue, item: Item): HeldUse[] {
  if (item.status === "retired" || !catalogue.records.use.size) return [];
  const last = lastUses.get(catalogue);
  if (last?.item === item) return last.uses;
  const uses = usesOf(catalogue, item);
  lastUses.set(catalogue, { item, uses });
  return uses;
}

/** "Eat of Smoked eel". */
export const nameOfUse = (item: Item, use: HeldUse): string => `${use.name} of ${item.name}`;

export const openUse = (catalogue: Catalogue, item: Item, use: HeldUse): Fix[] => [
  { message: `Open ${item.name}`, do: "open", kind: "item", id: item.id },
  ...(use.inherited && use.use.type
    ? [
        {
          message: `Open the type ${catalogue.records.type.get(use.use.type)?.name ?? ""}`,
          do: "open" as const,
          kind: "type" as const,
          id: use.use.type,
        },
      ]
    : []),
];

/** Subjects of a catalogue as they stand at the beginning, with what they begin to wear. */
export interface Standing {
  readonly reckoner: Reckoner;
  readonly bodies: readonly Body[];
}
const standings = new WeakMap<Catalogue, Standing>();
export function standing(catalogue: Catalogue): Standing {
  let made = standings.get(catalogue);
  if (!made) {
    const reckoner = new Reckoner(catalogue);
    const worn = ({ worn }: TrialSubject) => worn.flatMap((id) => catalogue.records.item.get(id) ?? []);
    const bodies = [...catalogue.records.subject.values()].map((s) => new Body(reckoner, s, worn(s), () => 0));
    made = { reckoner, bodies };
    standings.set(catalogue, made);
  }
  return made;
}

/** What an effect comes to for someone who uses it on himself: points of a resource, layers, or how many. */
export function amountFor(catalogue: Catalogue, { amount }: Effect, item: Item, body: Body): number {
  if (amount === null) return 1;
  return standing(catalogue).reckoner.get(amount, "use")({ user: body, target: body, item });
}

/** Ticks from one effect of a use to the next, at the soonest. */
export const cycleOf = (catalogue: Catalogue, use: HeldUse): number => readyIn(catalogue, use) + use.windup;

export const say = (catalogue: Catalogue, ticks: number): string => formatTicks(ticks, catalogue.pantry.ticksPerSecond);

/** The subject that something does most for, with what it comes to. */
export function most<T>(
  of: readonly T[],
  value: (each: T) => number,
): { readonly of: T; readonly value: number } | null {
  let best: { of: T; value: number } | null = null;
  for (const each of of) {
    const v = value(each);
    if (!best || v > best.value) best = { of: each, value: v };
  }
  return best;
}
