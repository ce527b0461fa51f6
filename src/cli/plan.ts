/** salty plan: what to bring, buy and run for given quantities, in order. */
import { around } from "../core/catalogue/surroundings";
import { planFor } from "../core/analysis/plan";
import { sayNoPlan } from "../core/analysis/plan-written";
import { readingsOf } from "../core/analysis/readings";
import { formatRecipe } from "../core/notation/format";
import { list, sayCost, sayPercent, sayQuantity } from "../core/numbers/format";
import { saySeconds } from "../core/numbers/ticks";
import type { Recipe } from "../core/kinds/index";
import { processAt } from "../core/network/compile";
import { BadUse, oneOf } from "./failure";
import { readCatalogue, wantedItem } from "./input";

export async function planCommand(
  [file, ...wanted]: string[],
  options: Record<string, string | boolean | undefined>,
): Promise<number> {
  const format = oneOf("format", options.format, ["text", "json"], "text");
  const measure = oneOf("measure", options.measure, ["value", "time"], "value");
  if (!wanted.length)
    throw new BadUse("At least one item is needed: its key or name, with =QUANTITY for more than one.");
  const confidence = options.confidence === undefined ? undefined : Number(options.confidence);
  if (confidence !== undefined && !(confidence > 0 && confidence < 1))
    throw new BadUse(`“${String(options.confidence)}” is no confidence. Write a chance between 0 and 1, such as 0.9.`);
  const catalogue = await readCatalogue(file);
  const readings = readingsOf(catalogue);
  const { compiled } = readings;
  const numbered = (texts: readonly string[]) => {
    const amounts = new Map<number, number>();
    for (const text of texts) {
      const { id, quantity } = wantedItem(catalogue, file, text);
      const i = compiled.numberOf(id) as number;
      amounts.set(i, (amounts.get(i) ?? 0) + quantity);
    }
    return amounts;
  };
  const make = numbered(wanted);
  const stock = numbered(
    typeof options.stock === "string"
      ? options.stock
          .split(",")
          .map((t) => t.trim())
          .filter(Boolean)
      : [],
  );
  const itemAt = (i: number) => catalogue.records.item.get(compiled.idOf(i) as never);
  const plan = planFor(readings, { make, stock, confidence, measure });
  if ("no" in plan) {
    const name = itemAt(plan.item)?.name ?? "";
    const says = sayNoPlan(name, plan.no);
    process.stdout.write(format === "json" ? `${JSON.stringify({ plan: null, says })}\n` : `${says}\n`);
    return 0;
  }
  const keyed = (map: ReadonlyMap<number, number>) =>
    [...map].map(([i, quantity]) => ({ item: itemAt(i)?.key ?? "", quantity }));
  const steps = plan.steps.map(({ process: p, runs }) => {
    const { kind, record } = processAt(compiled, p);
    return {
      kind,
      key: record.key,
      name: record.name,
      runs,
      ...(kind === "recipe" ? { line: formatRecipe(around(catalogue), record as Recipe) } : {}),
    };
  });
  if (format === "json") {
    const stations = [...plan.busy].map(([i, seconds]) => ({ station: itemAt(i)?.key ?? "", seconds }));
    process.stdout.write(
      `${JSON.stringify({ make: keyed(make), value: plan.value, seconds: plan.seconds, best: plan.best, steps, shopping: keyed(plan.shopping), needed: plan.needed.map((i) => itemAt(i)?.key), taken: keyed(plan.taken), left: keyed(plan.left), stations }, null, 2)}\n`,
    );
    return 0;
  }
  const named = (map: ReadonlyMap<number, number>) =>
    list(
      [...map].map(([i, n]) => `${sayQuantity(n)} ${itemAt(i)?.name ?? ""}`),
      99,
    );
  let text = `${named(make)}: ${sayCost(plan.value)} in value, ${saySeconds(plan.seconds)}${confidence === undefined ? ", by expectation" : `, each step enough with a chance of ${sayPercent(confidence)}`}${plan.best ? ", and no cheaper whole numbers of runs exist" : ""}\n`;
  for (const s of steps) text += `  ${String(s.runs).padStart(6)} × ${s.line ?? s.name}\n`;
  if (plan.taken.size) text += `from the stock: ${named(plan.taken)}\n`;
  if (plan.shopping.size) text += `gathered and bought: ${named(plan.shopping)}\n`;
  if (plan.needed.length)
    text += `needed and kept: ${list(
      plan.needed.map((i) => itemAt(i)?.name ?? ""),
      99,
    )}\n`;
  if (plan.left.size) text += `left over: ${named(plan.left)}\n`;
  for (const [i, seconds] of plan.busy) text += `  ${itemAt(i)?.name} is busy for ${saySeconds(seconds)}\n`;
  process.stdout.write(text);
  return 0;
}
