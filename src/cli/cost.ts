/** salty cost: the least cost of an item in value and in time, with what it consists of. */
import { breakdown } from "../core/analysis/breakdown";
import { type Readings, readingsOf } from "../core/analysis/readings";
import { nearest } from "../core/catalogue/names";
import { formatRecipe } from "../core/notation/format";
import { itemBook } from "../core/notation/book";
import { sayCost, sayQuantity } from "../core/numbers/format";
import { saySeconds } from "../core/numbers/ticks";
import { BadUse, oneOf, Unreadable } from "./failure";
import { readCatalogue } from "./input";

interface Side {
  /** Cost of the asked quantity; null: it can't be had. */
  readonly cost: number | null;
  readonly process: { kind: "recipe" | "source"; key: string; name: string; line?: string } | null;
  readonly breakdown: { base: { item: string; quantity: number; cost: number; source: string }[]; work: { recipe: string; runs: number; cost: number }[] } | null;
  /** True where the cheapest way goes through the item itself. */
  readonly circular: boolean;
}

function side(r: Readings, measure: "value" | "time", item: number, quantity: number): Side {
  const { network } = r;
  const least = r[measure];
  const parts = breakdown(network, r.own[measure], least, item);
  if (!parts) return { cost: null, process: null, breakdown: null, circular: false };
  const { of, record } = network.processes[least.by[item]];
  const key = (i: number) => network.catalogue.item.get(network.items[i])?.key ?? "";
  return {
    cost: least.cost[item] * quantity,
    process: { kind: of, key: record.key, name: record.name, ...(of === "recipe" ? { line: formatRecipe(network.catalogue, record) } : {}) },
    breakdown: {
      base: parts.base.map((b) => ({ item: key(b.item), quantity: b.quantity * quantity, cost: b.cost * quantity, source: network.processes[b.process].record.key })),
      work: parts.work.map((w) => ({ recipe: network.processes[w.process].record.key, runs: w.runs * quantity, cost: w.cost * quantity })),
    },
    circular: least.circular.has(item),
  };
}

export async function costCommand([file, wanted]: string[], options: Record<string, string | boolean | undefined>): Promise<number> {
  const format = oneOf("format", options.format, ["text", "json"], "text");
  if (!wanted) throw new BadUse("An item is needed: its key or name, with =QUANTITY for more than one.");
  const [, name, amount] = /^(.*?)(?:=([^=]*))?$/s.exec(wanted) as RegExpExecArray;
  const quantity = amount === undefined ? 1 : Number(amount);
  if (!Number.isFinite(quantity) || quantity <= 0) throw new BadUse(`“${amount}” is no quantity. Write a number above 0, such as ${name}=20.`);
  const catalogue = await readCatalogue(file);
  const found = itemBook(catalogue).find(name);
  if (found.found === "several") throw new Unreadable(`${file}: “${name}” is the name of several items. Use a key: ${found.keys.join(" or ")}.`);
  if (found.found === "none") {
    const offers = nearest(name, [...catalogue.item.values()].flatMap((i) => [i.key, i.name]));
    throw new Unreadable(`${file}: there is no item “${name}”.${offers.length ? ` Did you mean ${offers.join(" or ")}?` : ""}`);
  }
  const r = readingsOf(catalogue);
  const index = r.network.index.get(found.id) as number;
  const item = catalogue.item.get(found.id);
  const [value, time] = [side(r, "value", index, quantity), side(r, "time", index, quantity)];
  if (format === "json") {
    process.stdout.write(`${JSON.stringify({ item: item?.key, quantity, value: value.cost, time: time.cost, process: value.process, breakdown: value.breakdown, circular: value.circular, byTime: { process: time.process, breakdown: time.breakdown, circular: time.circular } }, null, 2)}\n`);
    return 0;
  }
  if (value.cost === null) {
    process.stdout.write(`${found.name} can't be had.\n`);
    return 0;
  }
  let text = `${sayQuantity(quantity)} ${found.name}: ${sayCost(value.cost)} in value, ${saySeconds(time.cost ?? Number.POSITIVE_INFINITY)} at the fastest\n  by ${value.process?.line ?? value.process?.name}\n`;
  for (const b of value.breakdown?.base ?? []) text += `  ${sayCost(b.cost).padStart(10)}  ${sayQuantity(b.quantity)} ${b.item} (${b.source})\n`;
  for (const w of value.breakdown?.work.filter((row) => row.cost > 0) ?? []) text += `  ${sayCost(w.cost).padStart(10)}  ${sayQuantity(w.runs)} runs of ${w.recipe}: time and fees\n`;
  process.stdout.write(text);
  return 0;
}
