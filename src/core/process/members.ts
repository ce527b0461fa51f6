/** Any item with a tag: the items that have a tag which some line asks for. */
import type { Catalogue } from "../catalogue/catalogue";
import { buildBy, type Collecting, type Index, mark } from "../catalogue/persistent-map";
import type { Item, Recipe } from "../kinds/index";
import { allLines } from "../kinds/ways";
import type { Id } from "../schema/id";
import { same } from "../schema/json";
import { anySays, traitOf } from "./traits";

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
export const countedTags = (item: Item | undefined): readonly Id[] =>
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
export function vesselAround(catalogue: Catalogue, item: Item): Id | null {
  const vessel = traitOf(catalogue, item, "vessel");
  return vessel === item.id ? null : vessel;
}
/** Whether an item counts as any item with a tag. */
export const isMember = (catalogue: Catalogue, tag: Id, item: Id): boolean =>
  catalogue.records.item.index(TAGGED).get(tag)?.has(item) ?? false;
