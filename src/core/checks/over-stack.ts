import { held } from "../catalogue/inheritance";
import type { Recipe } from "../kinds/index";
import { type Line, mostOf, outputsOf } from "../notation/line";
import { sayQuantity, count } from "../numbers/format";
import type { Id } from "../schema/id";
import { perRecord, recipeRef, recipesAround, ref } from "./check";
import { holdersBeside } from "./holders";
import { setLines } from "./fixes";

/** What a recipe gives beside its result, which is the item of its first output. */
const beside = ({ lines }: Recipe, item: Id): readonly Line[] => {
  const outputs = outputsOf(lines);
  return outputs[0]?.item === item ? [] : outputs.filter((l) => l.item === item);
};

/** A recipe may give more of something beside its result than one stack of it holds. */
export const overStack = perRecord<"item">({
  id: "over-stack",
  reads: [],
  per: ["item"],
  may(item, { catalogue, readings: { compiled } }) {
    const beside = compiled.beside[compiled.numberOf(item.id) as number];
    return beside > 0 && beside > (held(catalogue, item, "stack").value ?? beside);
  },
  *also({ catalogue }, _, edits) {
    yield* holdersBeside(catalogue, edits);
    for (const edit of edits)
      if (edit.kind === "recipe" && edit.op === "set" && edit.field === "lines")
        for (const lines of [edit.from, edit.to])
          for (const { item } of (lines ?? []) as unknown as readonly Line[]) if (item !== undefined) yield item;
  },
  *at(context, item) {
    const { catalogue } = context;
    const stack = held(catalogue, item, "stack").value;
    if (stack === null) return;
    const { compiled, network } = context.readings;
    const { start, end, to } = network.producers;
    const i = compiled.numberOf(item.id) as number;
    const gives = (recipe: Recipe | undefined) => !!recipe && beside(recipe, item.id).some((l) => mostOf(l) > stack);
    let any = false;
    for (let k = start[i]; k < end[i] && !any; k++) {
      const behind = compiled.behind(to[k]);
      any = behind?.kind === "recipe" && gives(catalogue.records.recipe.get(behind.id));
    }
    if (!any) return;
    const over = recipesAround(context, item.id, "producers").filter(gives);
    const [first] = over;
    const amount = Math.max(...beside(first, item.id).map(mostOf));
    const more =
      over.length > 1 ? ` ${count(over.length - 1, "other recipe")} ${over.length > 2 ? "do" : "does"} the same.` : "";
    yield {
      subject: ref(catalogue, "item", item.id),
      with: over.map(recipeRef),
      message: `${first.name} gives up to ${sayQuantity(amount)} ${item.name} as a by-product, but a stack holds ${sayQuantity(stack)}.${more}`,
      evidence: { type: "lines", inputs: [ref(catalogue, "item", item.id)], recipes: over.slice(0, 20).map(recipeRef) },
      fixes: [
        {
          message: `${first.name}: limit it to ${sayQuantity(stack)} ${item.name}`,
          do: "edit",
          edits: [
            setLines(
              catalogue,
              "recipe",
              first.id,
              first.lines.map((l) => {
                if (l.role !== "output" || l.item !== item.id || mostOf(l) <= stack) return l;
                const max = stack / (l.draw?.times ?? 1);
                return { ...l, max, min: Math.min(l.min, max) };
              }),
            ),
          ],
        },
        { message: `Open ${item.name}`, do: "open", kind: "item", id: item.id },
      ],
    };
  },
});
