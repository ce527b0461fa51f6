/** salty cost: the least cost of an item in value and in time, with what it consists of. */
import { around } from "../core/catalogue/surroundings";
import { type CostSide, itemCosts } from "../core/analysis/item-costs";
import { readingsOf } from "../core/analysis/readings";
import { type Catalogue, nameOf, recordAt } from "../core/catalogue/catalogue";
import type { Id } from "../core/schema/id";
import type { Kind } from "../core/kinds/index";
import { formatRecipe } from "../core/notation/format";
import { sayCost, sayQuantity } from "../core/numbers/format";
import { saySeconds } from "../core/numbers/ticks";
import { BadUse, oneOf } from "./failure";
import { readCatalogue, wantedItem } from "./input";

/** A side of the costs for a quantity, with keys in place of ids. */
function printed(catalogue: Catalogue, side: CostSide | null, quantity: number) {
  if (!side) return { cost: null, process: null, breakdown: null, circular: false };
  const keyOf = (kind: Kind, id: Id) => recordAt(catalogue, kind, id)?.key ?? "";
  const { kind, id } = side.by;
  const recipe = catalogue.records.recipe.get(id);
  return {
    /** Cost of the asked quantity; null: it is unobtainable. */
    cost: side.cost * quantity,
    process: {
      kind,
      key: keyOf(kind, id),
      name: nameOf(catalogue, kind, id),
      ...(recipe ? { line: formatRecipe(around(catalogue), recipe) } : {}),
    },
    breakdown: {
      base: side.base.map((b) => ({
        item: keyOf("item", b.item),
        quantity: b.quantity * quantity,
        cost: b.cost * quantity,
        source: keyOf(b.by.kind, b.by.id),
      })),
      work: side.work.map((w) => ({
        recipe: keyOf(w.by.kind, w.by.id),
        runs: w.runs * quantity,
        cost: w.cost * quantity,
      })),
    },
    circular: side.circular,
  };
}

export async function costCommand(
  [file, wanted]: string[],
  options: Record<string, string | boolean | undefined>,
): Promise<number> {
  const format = oneOf("format", options.format, ["text", "json"], "text");
  if (!wanted) throw new BadUse("Name an item by key or name, with =QUANTITY for more than one.");
  const catalogue = await readCatalogue(file);
  const found = wantedItem(catalogue, file, wanted);
  const { quantity } = found;
  const costs = itemCosts(readingsOf(catalogue), found.id);
  const item = catalogue.records.item.get(found.id);
  const [value, time] = [
    printed(catalogue, costs?.value ?? null, quantity),
    printed(catalogue, costs?.time ?? null, quantity),
  ];
  if (format === "json") {
    process.stdout.write(
      `${JSON.stringify({ item: item?.key, quantity, value: value.cost, time: time.cost, process: value.process, breakdown: value.breakdown, circular: value.circular, byTime: { process: time.process, breakdown: time.breakdown, circular: time.circular } }, null, 2)}\n`,
    );
    return 0;
  }
  if (value.cost === null) {
    process.stdout.write(`${found.name} is unobtainable.\n`);
    return 0;
  }
  let text = `${sayQuantity(quantity)} ${found.name}: ${sayCost(value.cost)} in value, ${saySeconds(time.cost ?? Number.POSITIVE_INFINITY)} at the fastest\n  by ${value.process?.line ?? value.process?.name}\n`;
  for (const b of value.breakdown?.base ?? [])
    text += `  ${sayCost(b.cost).padStart(10)}  ${sayQuantity(b.quantity)} ${b.item} (${b.source})\n`;
  for (const w of value.breakdown?.work.filter((row) => row.cost > 0) ?? [])
    text += `  ${sayCost(w.cost).padStart(10)}  ${sayQuantity(w.runs)} runs of ${w.recipe}: time and fees\n`;
  process.stdout.write(text);
  return 0;
}
