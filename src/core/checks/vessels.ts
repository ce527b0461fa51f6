/** What is made in a vessel, and does not give it back. */
import type { Catalogue } from "../catalogue/catalogue";
import { setField } from "../catalogue/edit";
import { held } from "../catalogue/inheritance";
import type { Index } from "../catalogue/persistent-map";
import { recipesTaking } from "../catalogue/references";
import type { Item, ItemType } from "../kinds/index";
import { anySays } from "../process/traits";
import { outputsOf } from "../notation/line";
import type { Id } from "../schema/id";
import { perRecord, recipeRef, recipesAround, ref } from "./check";
import { holdersBeside } from "./holders";

const VESSELS = <R extends Item | ItemType>(): Index<R, ReadonlySet<Id>> => ({
  build: (records) => new Set([...records.values()].flatMap(({ vessel }) => (vessel === null ? [] : [vessel]))),
  follow(found, before, changes) {
    for (const [id, now] of changes) if ((before.get(id)?.vessel ?? null) !== (now?.vessel ?? null)) return null;
    return found;
  },
});
const [OF_ITEMS, OF_TYPES] = [VESSELS<Item>(), VESSELS<ItemType>()];
const isVessel = ({ records: { item, type } }: Catalogue, id: Id): boolean =>
  item.index(OF_ITEMS).has(id) || type.index(OF_TYPES).has(id);

/** Every recipe of an item puts it in something that other items give back; this one does not. */
export const vesselForgotten = perRecord<"item">({
  id: "vessel-forgotten",
  reads: [],
  per: ["item"],
  concerns: (catalogue) => anySays(catalogue, "vessel"),
  *also({ catalogue }, _, edits) {
    yield* holdersBeside(catalogue, edits);
    for (const edit of edits) {
      if (edit.kind !== "item" && edit.kind !== "type") continue;
      const { vessel } = (edit.op === "set" ? {} : edit.record) as { readonly vessel?: Id | null };
      const vessels = edit.op === "set" && edit.field === "vessel" ? [edit.from, edit.to] : [vessel];
      for (const id of vessels)
        if (id)
          for (const recipe of recipesTaking(catalogue, id as Id))
            for (const { item } of outputsOf(recipe.lines)) yield item;
    }
  },
  *at(context, item) {
    const { catalogue } = context;
    if (!anySays(catalogue, "vessel")) return;
    if (item.status === "retired" || isVessel(catalogue, item.id) || held(catalogue, item, "vessel").value !== null)
      return;
    const makers = recipesAround(context, item.id, "producers").filter((r) => r.kind !== "salvage");
    if (!makers.length) return;
    const vessels = makers.map(({ lines }) => {
      const made = outputsOf(lines).find((l) => l.item === item.id);
      const into = lines.find(
        (l) =>
          l.role === "ingredient" &&
          l.item !== undefined &&
          isVessel(catalogue, l.item) &&
          made?.min === l.min &&
          made.max === l.max,
      );
      return into && !lines.some((l) => l.role === "output" && l.item === into.item) ? into.item : undefined;
    });
    const [vessel] = vessels;
    if (vessel === undefined || vessels.some((v) => v !== vessel)) return;
    const of = ref(catalogue, "item", vessel);
    yield {
      subject: [ref(catalogue, "item", item.id), of],
      with: makers.map(recipeRef),
      message: `${item.name} is made with ${of.name}, which other items return when used up, but ${item.name} does not.`,
      evidence: { type: "lines", inputs: [of], recipes: makers.slice(0, 20).map(recipeRef) },
      fixes: [
        {
          message: `Set the container of ${item.name} to ${of.name}`,
          do: "edit",
          edits: [setField(catalogue, "item", item.id, "vessel", vessel)],
        },
        { message: `Open ${item.name}`, do: "open", kind: "item", id: item.id },
      ],
    };
  },
});
