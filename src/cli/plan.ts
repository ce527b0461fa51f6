/** salty plan: what to bring, buy and run for given quantities, in order. */
import { around } from "../core/catalogue/surroundings";
import { planFor } from "../core/analysis/plan";
import { sayNoPlan } from "../core/analysis/plan-written";
import { readingsOf } from "../core/analysis/readings";
import { formatRecipe } from "../core/notation/format";
import { list, sayCost, sayPercent, sayQuantity } from "../core/numbers/format";
import { saySeconds } from "../core/numbers/ticks";
import { recordAt } from "../core/catalogue/catalogue";
import type { Recipe } from "../core/kinds/index";
import { fuelOf, type Node, sayNode, tagOf, vesselIn } from "../core/process/node";
import type { Id } from "../core/schema/id";
import { processAt } from "../core/network/compile";
import { BadUse, oneOf } from "./failure";
import { readCatalogue, wantedItem } from "./input";

export async function planCommand(
  [file, ...wanted]: string[],
  options: Record<string, string | boolean | undefined>,
): Promise<number> {
  const format = oneOf("format", options.format, ["text", "json"], "text");
  const measure = oneOf("measure", options.measure, ["value", "time"], "value");
  if (!wanted.length) throw new BadUse("Name at least one item by key or name, with =QUANTITY for more than one.");
  const confidence = options.confidence === undefined ? undefined : Number(options.confidence);
  if (confidence !== undefined && !(confidence > 0 && confidence < 1))
    throw new BadUse(`“${String(options.confidence)}” isn't a confidence. Use a number between 0 and 1, such as 0.9.`);
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
  const nameAt = (i: number) => sayNode(around(catalogue), compiled.nodeOf(i) as Node);
  /** A thing by its key: {"item": …}, any with a tag {"tag": …}, or seconds of heat {"heat": the tag of what burns, or null}. */
  const thingAt = (i: number) => {
    const node = compiled.nodeOf(i) as Node;
    const [tag, fuel] = [tagOf(node), fuelOf(node)];
    const keyOf = (kind: "item" | "tag", id: Id) => recordAt(catalogue, kind, id)?.key ?? id;
    if (fuel !== undefined) return { heat: fuel === null ? null : keyOf("tag", fuel) };
    if (tag === null) return { item: keyOf("item", node) };
    const vessel = vesselIn(node);
    return { tag: keyOf("tag", tag), ...(vessel === null ? {} : { in: keyOf("item", vessel) }) };
  };
  const plan = planFor(readings, { make, stock, confidence, measure });
  if ("no" in plan) {
    const message = sayNoPlan(nameAt(plan.item), plan.no);
    process.stdout.write(format === "json" ? `${JSON.stringify({ plan: null, message })}\n` : `${message}\n`);
    return 0;
  }
  const keyed = (map: ReadonlyMap<number, number>) => [...map].map(([i, quantity]) => ({ ...thingAt(i), quantity }));
  const steps = plan.steps.map(({ process: p, runs, turns }) => {
    const { kind, record } = processAt(compiled, p);
    return {
      kind,
      key: record.key,
      name: record.name,
      runs,
      ...(turns === undefined ? {} : { turns }),
      ...(kind === "recipe" ? { line: formatRecipe(around(catalogue), record as Recipe) } : {}),
    };
  });
  if (format === "json") {
    const stations = [...plan.busy].map(([i, seconds]) => {
      const { item: station, ...any } = { item: undefined, ...thingAt(i) };
      return { ...(station === undefined ? any : { station }), seconds };
    });
    process.stdout.write(
      `${JSON.stringify({ make: keyed(make), value: plan.value, seconds: plan.seconds, best: plan.best, steps, shopping: keyed(plan.shopping), needed: keyed(plan.needed), taken: keyed(plan.taken), left: keyed(plan.left), stations }, null, 2)}\n`,
    );
    return 0;
  }
  const named = (map: ReadonlyMap<number, number>) =>
    list(
      [...map].map(([i, n]) => `${sayQuantity(n)} ${nameAt(i)}`),
      99,
    );
  let text = `${named(make)}: ${sayCost(plan.value)} in value, ${saySeconds(plan.seconds)}${confidence === undefined ? ", on average" : `, each step with ${sayPercent(confidence)} confidence`}${plan.best ? ", the cheapest plan with whole runs" : ""}\n`;
  for (const s of steps)
    text += `  ${String(s.runs).padStart(6)} × ${s.line ?? s.name}${s.turns === undefined ? "" : `, in ${s.turns} batches`}\n`;
  if (plan.taken.size) text += `taken from stock: ${named(plan.taken)}\n`;
  if (plan.shopping.size) text += `gathered and bought: ${named(plan.shopping)}\n`;
  if (plan.needed.size) text += `required tools and stations: ${named(plan.needed)}\n`;
  if (plan.left.size) text += `leftovers: ${named(plan.left)}\n`;
  for (const [i, seconds] of plan.busy) text += `  ${nameAt(i)} is busy for ${saySeconds(seconds)}\n`;
  process.stdout.write(text);
  return 0;
}
