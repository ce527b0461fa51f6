/** Any item with a tag as processes: each item that has it stands for it. */
import type { Catalogue } from "../catalogue/catalogue";
import { recipesAsking } from "../catalogue/references";
import { itemsBelow } from "../catalogue/types";
import type { Item, Kind, Tag } from "../kinds/index";
import { line } from "../notation/line";
import { askedTags, countedTags, vesselAround } from "../process/members";
import { nodeOfTag } from "../process/node";
import { anySays, tagsOf } from "../process/traits";
import type { Id } from "../schema/id";
import { same } from "../schema/json";
import { aliasOf } from "./alias";
import type { ProcessSpec } from "./process";

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
