import { gaining } from "../analysis/registry";
import { processAt } from "../network/compile";
import type { Gain } from "../analysis/rounds";
import type { LoopStep, Balance } from "../analysis/trade";
import { setField } from "../catalogue/edit";
import type { Id } from "../schema/id";
import type { Recipe } from "../kinds/index";
import { count, list, sayPercent, sayQuantity } from "../numbers/format";
import { show, toNumber } from "../numbers/fraction";
import {
  type Fix,
  type FindingDraft,
  itemRef,
  recipeRef,
  type Ref,
  ref,
  type CheckContext,
  type WholeCheck,
} from "./check";
import { closeLoop, sellForLess } from "./fixes";

/** How many loops get tailored ways to close them; the others can still be retired. */
const TAILORED = 6;

/** Recipes, purchases and sales that together give back more than they take. */
export const gainingLoop: WholeCheck = {
  id: "gaining-loop",
  reads: [gaining],
  namesOthers: true,
  *find(context) {
    const { failed } = context.readings.gain;
    if (failed !== undefined) throw new Error(failed);
    let tailored = 0;
    for (const gain of context.readings.gain.gains) {
      const trades = gain.runs.some(
        ({ step }) => step.run === "sale" || processAt(context.readings.compiled, step.process).spec.sort === "source",
      );
      const close = !trades && tailored++ < TAILORED;
      yield context.told.about(gain, context, [...gain.of, close], () => tell(context, gain, trades, close));
    }
  },
};

function tell(context: CheckContext, gain: Gain, trades: boolean, tailored: boolean): FindingDraft {
  const { catalogue, readings } = context;
  const { compiled } = readings;
  const { chance, exact } = gain.luck();
  const steps = gain.runs.map(({ step, times }) => ({ ...stepOf(step), times }));
  const net = gain.net.map(({ thing, amount }) => ({
    of: thingRef(context, thing),
    amount: show(amount),
    value: toNumber(amount),
  }));
  const surplus = list(net.map((n) => `${n.amount.includes("/") ? sayQuantity(n.value) : n.amount} ${n.of.name}`));
  const recipes = steps.flatMap((s) => s.recipe ?? []);
  const retire = recipes.map(
    (recipe): Fix => ({
      message: `Retire ${recipe.name}`,
      do: "edit",
      edits: [setField(catalogue, "recipe", recipe.id, "status", "retired")],
    }),
  );
  const close = tailored ? closeLoop(catalogue, recipes) : [];
  const sold = steps.flatMap(({ of, times, sells }) =>
    sells === undefined ? [] : [{ of, times: Number(times), sells }],
  );
  // If the surplus is money from one sale, a lower price removes exactly that.
  const money = net.length === 1 && gain.net[0].thing.of === "currency" && gain.net[0].thing.currency === 0;
  const price = money && sold.length === 1 ? sellForLess(catalogue, sold[0], net[0].value) : [];
  const often = chance === 1 ? "every" : "on average every";
  const luck =
    chance === 1
      ? ""
      : ` Chance that one round gains: ${exact ? "" : "about "}${sayPercent(Number(chance.toFixed(4)))}.`;
  return {
    subject: steps.map((s) => s.of),
    with: net.map((n) => n.of),
    message: `${trades ? count(steps.length, "step") : count(steps.length, "recipe")} ${steps.length === 1 ? "gives" : "give"} ${surplus} from nothing ${often} round: ${list(
      steps.map((s) => `${s.does} ${s.times === 1n ? "once" : `${s.times} times`}`),
      8,
    )}.${luck}${gain.live ? "" : " It can't be started yet: part of it is unobtainable."}`,
    evidence: {
      type: "loop",
      runs: steps.map(({ of, times }) => ({ of, times: String(times) })),
      net,
      chance,
      exact,
      live: gain.live,
      seconds: gain.seconds,
    },
    size: net.reduce((sum, n) => sum + n.value, 0),
    fixes: [
      ...close,
      ...price,
      ...sold.slice(0, 2).map(
        (s): Fix => ({
          message: `Open ${s.of.name} and lower its sell price`,
          do: "open",
          kind: "item",
          id: s.of.id,
        }),
      ),
      ...retire.slice(-1),
      ...steps
        .slice(0, 1)
        .map((s): Fix => ({ message: `Open ${s.of.name}`, do: "open", kind: s.of.kind, id: s.of.id })),
    ],
  };

  function stepOf(step: LoopStep): { of: Ref; does: string; recipe?: Recipe; sells?: number } {
    if (step.run === "sale") {
      const of = itemRef(context, step.item);
      return { of, does: `sell ${of.name}`, sells: compiled.salesOf(step.item).get(step.currency) };
    }
    const { kind, record } = processAt(compiled, step.process);
    if (kind === "recipe") {
      // A variant can't be fixed by the lines of its recipe.
      const recipe = record === catalogue.records.recipe.get(record.id) ? { recipe: record as Recipe } : {};
      return { of: recipeRef(record as Recipe), does: record.name, ...recipe };
    }
    const { id, key, name } = record;
    return { of: { kind, id, key, name }, does: kind === "source" ? `buy from ${name}` : name };
  }
}

function thingRef(context: CheckContext, thing: Balance): Ref {
  if (thing.of === "item") return itemRef(context, thing.item);
  const id = context.readings.compiled.currencies[thing.currency];
  return id === null
    ? { kind: "currency", id: "" as Id, key: "value", name: "value units" }
    : ref(context.catalogue, "currency", id);
}
