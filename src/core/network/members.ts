/** Any item with a tag: the items that have a tag which some line asks for. */
import type { Catalogue } from "../catalogue/catalogue";
import { recipesAsking } from "../catalogue/references";
import { itemsBelow } from "../catalogue/types";
import { buildBy, type Collecting, type Index, mark } from "../catalogue/persistent-map";
import type { Item, Kind, Recipe, Tag } from "../kinds/index";
import { allLines } from "../kinds/ways";
import { line } from "../notation/line";
import type { Id } from "../schema/id";
import { same } from "../schema/json";
import { aliasOf } from "./alias";
import { nodeOfTag } from "./node";
import { anySays, tagsOf, traitOf } from "./traits";
import type { ProcessSpec } from "./process";

function collectAsked(): Collecting<Recipe, ReadonlyMap<Id, number>> {
  const asked = new Map<Id, number>();
  return {
    add(recipe) {
      for (const tag of tagsIn(recipe)) asked.set(tag, (asked.get(tag) ?? 0) + 1);
    },
    done: () => asked,
  };
}
/** How many recipes ask for any item with a tag. */
export const ASKED: Index<Recipe, ReadonlyMap<Id, number>> = {
  lasting: true,
  build: buildBy(collectAsked),
  collect: collectAsked,
  follow(asked, before, changes) {
    let next: Map<Id, number> | null = null;
    for (const [id, now] of changes) {
      const then = before.get(id);
      const [gone, come] = [then ? tagsIn(then) : NONE, now ? tagsIn(now) : NONE];
      if (!gone.size && !come.size) continue;
      next ??= new Map(asked);
      for (const tag of gone) next.set(tag, (next.get(tag) ?? 0) - 1);
      for (const tag of come) next.set(tag, (next.get(tag) ?? 0) + 1);
      for (const tag of gone) if (!next.get(tag)) next.delete(tag);
    }
    return next ?? asked;
  },
};
const NONE: ReadonlySet<Id> = new Set();
function tagsIn(recipe: Recipe): ReadonlySet<Id> {
  let found: Set<Id> | null = null;
  for (const { any } of allLines(recipe)) if (any !== undefined) found = (found ?? new Set<Id>()).add(any);
  return found ?? NONE;
}

/** Tags that some recipe asks for any item of. */
export const askedTags = (catalogue: Catalogue): ReadonlyMap<Id, number> => catalogue.records.recipe.index(ASKED);

/** Items in use by their tags. */
const TAGGED: Index<Item, ReadonlyMap<Id, ReadonlySet<Id>>> = {
  lasting: true,
  build(items) {
    const by = new Map<Id, Set<Id>>();
    for (const item of items.values())
      for (const tag of countedTags(item)) {
        const there = by.get(tag);
        if (there) there.add(item.id);
        else by.set(tag, new Set([item.id]));
      }
    return by;
  },
  follow(by, before, changes) {
    const next = new Map<Id, Set<Id>>();
    const own = (tag: Id): Set<Id> => {
      const there = next.get(tag) ?? new Set(by.get(tag));
      next.set(tag, there);
      return there;
    };
    for (const [id, now] of changes) {
      const [gone, come] = [countedTags(before.get(id)), countedTags(now)];
      if (same(gone, come)) continue;
      for (const tag of gone) own(tag).delete(id);
      for (const tag of come) own(tag).add(id);
    }
    return next.size ? new Map([...by, ...next]) : by;
  },
};
const NO_TAGS: readonly Id[] = [];
const countedTags = (item: Item | undefined): readonly Id[] =>
  item && item.status !== "retired" ? item.tags : NO_TAGS;

/** Whether any item counts as any item with a tag. */
export const hasMembers = (catalogue: Catalogue, tag: Id): boolean =>
  (catalogue.records.item.index(TAGGED).get(tag)?.size ?? 0) > 0;

/** Items that count as any item with a tag, by their keys. */
export function membersOf(catalogue: Catalogue, tag: Id): Item[] {
  const { item: items } = catalogue.records;
  return [...(items.index(TAGGED).get(tag) ?? NONE)]
    .flatMap((id) => items.get(id) ?? [])
    .sort((a, b) => (a.key < b.key ? -1 : 1));
}

/** Another object wherever what an item comes in may be another. */
const HELD = mark<Item>((then, now) => then.type !== now.type || then.vessel !== now.vessel);
interface Vessels {
  readonly held: object;
  readonly types: object;
  readonly among: readonly (Id | null)[];
}
const known = new WeakMap<ReadonlySet<Id>, Vessels>();
const IN_NOTHING: readonly (Id | null)[] = [null];

/** What the items with a tag come in, each once; null among them: some come in nothing, or there is none. */
export function vesselsAmong(catalogue: Catalogue, tag: Id): readonly (Id | null)[] {
  if (!anySays(catalogue, "vessel")) return IN_NOTHING;
  const { item: items, type: types } = catalogue.records;
  const members = items.index(TAGGED).get(tag);
  if (!members?.size) return IN_NOTHING;
  const held = items.index(HELD);
  const there = known.get(members);
  if (there?.held === held && there.types === types) return there.among;
  const found = new Set<Id | null>();
  for (const id of members) found.add(vesselAround(catalogue, items.get(id) as Item));
  const among = [...found].sort((a, b) => ((a ?? "") < (b ?? "") ? -1 : 1));
  known.set(members, { held, types, among });
  return among;
}
/** What comes back of an item; nothing where it is its own vessel. */
function vesselAround(catalogue: Catalogue, item: Item): Id | null {
  const vessel = traitOf(catalogue, item, "vessel");
  return vessel === item.id ? null : vessel;
}
/** Whether an item counts as any item with a tag. */
export const isMember = (catalogue: Catalogue, tag: Id, item: Id): boolean =>
  catalogue.records.item.index(TAGGED).get(tag)?.has(item) ?? false;

/**
 * For each asked tag of an item a process that gives one with the tag for the item, in what it comes in: that comes back
 * of the run in which it is used up, and not before.
 */
export function memberProcesses(item: Item, catalogue: Catalogue): readonly ProcessSpec[] {
  if (!item.tags.length || item.status === "retired") return [];
  const asked = askedTags(catalogue);
  if (!asked.size) return [];
  const vessel = anySays(catalogue, "vessel") ? vesselAround(catalogue, item) : null;
  return item.tags.flatMap((id): ProcessSpec[] => {
    const tag = asked.has(id) ? catalogue.records.tag.get(id) : undefined;
    return tag
      ? [
          {
            sort: "any",
            lines: [line("ingredient", item.id), line("output", nodeOfTag(id, vessel))],
            needs: [],
            price: 0,
            currency: null,
            ticks: 0,
            level: 0,
            as: { kind: "tag", record: calledOf(tag, item) },
          },
        ]
      : [];
  });
}

/** A tag under the name of an item that has it: "River eel as any fish". */
const calledOf = aliasOf((tag: Tag, item: Item) => `${item.name} as any ${tag.name}`);

/** Recipes that ask for any with a tag which items have now and did not before, or the other way round. */
export function* besideTagged(
  before: Catalogue,
  next: Catalogue,
  touched: ReadonlyMap<Kind, ReadonlySet<Id>>,
): Generator<Id> {
  if (!askedTags(next).size) return;
  for (const id of touched.get("item") ?? []) {
    const [then, now] = [countedTags(before.records.item.get(id)), countedTags(next.records.item.get(id))];
    if (same(then, now)) continue;
    for (const tag of tagsOf(before, next, id))
      if (then.includes(tag) !== now.includes(tag)) for (const recipe of recipesAsking(next, tag)) yield recipe.id;
  }
}

/** Items with a tag that is asked for now and was not before, or the other way round. */
export function* besideMembers(
  before: Catalogue,
  next: Catalogue,
  touched: ReadonlyMap<Kind, ReadonlySet<Id>>,
): Generator<Id> {
  const types = touched.get("type");
  if (types && [before, next].some((c) => anySays(c, "vessel")) && askedTags(next).size) yield* itemsBelow(next, types);
  if (!touched.has("recipe")) return;
  const [then, now] = [askedTags(before), askedTags(next)];
  if (then === now) return;
  const moved = new Set([...then.keys(), ...now.keys()].filter((tag) => then.has(tag) !== now.has(tag)));
  if (!moved.size) return;
  for (const item of next.records.item.values()) if (item.tags.some((tag) => moved.has(tag))) yield item.id;
}
