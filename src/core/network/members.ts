/** Any item with a tag: the items that have a tag which some line asks for. */
import type { Catalogue } from "../catalogue/catalogue";
import { itemsBelow } from "../catalogue/types";
import type { Index } from "../catalogue/persistent-map";
import type { Item, Kind, Recipe, Tag } from "../kinds/index";
import { allLines } from "../kinds/ways";
import { line } from "../notation/line";
import type { Id } from "../schema/id";
import { aliasOf } from "./alias";
import { nodeOfTag } from "./node";
import { anySays, traitOf } from "./traits";
import type { ProcessSpec } from "./process";

/** How many recipes ask for any item with a tag. */
const ASKED: Index<Recipe, ReadonlyMap<Id, number>> = {
  lasting: true,
  build(recipes) {
    const asked = new Map<Id, number>();
    for (const recipe of recipes.values()) for (const tag of tagsIn(recipe)) asked.set(tag, (asked.get(tag) ?? 0) + 1);
    return asked;
  },
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

/** Items that count as any item with a tag; linear in the items. */
export function* membersOf(catalogue: Catalogue, tag: Id): Generator<Item> {
  for (const item of catalogue.records.item.values())
    if (item.status !== "retired" && item.tags.includes(tag)) yield item;
}

/** For each asked tag of an item a process that gives one with the tag for the item; what it is in comes back. */
export function memberProcesses(item: Item, catalogue: Catalogue): readonly ProcessSpec[] {
  if (!item.tags.length || item.status === "retired") return [];
  const asked = askedTags(catalogue);
  if (!asked.size) return [];
  const vessel = anySays(catalogue, "vessel") ? traitOf(catalogue, item, "vessel") : null;
  const back = vessel === null || vessel === item.id ? [] : [line("output", vessel)];
  return item.tags.flatMap((id): ProcessSpec[] => {
    const tag = asked.has(id) ? catalogue.records.tag.get(id) : undefined;
    return tag
      ? [
          {
            sort: "any",
            lines: [line("ingredient", item.id), line("output", nodeOfTag(id)), ...back],
            returns: back.length > 0,
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
