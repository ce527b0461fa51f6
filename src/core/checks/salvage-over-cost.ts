import { bare } from "../analysis/registry";
import { type SalvageReturn, salvageReturn } from "../analysis/salvage";
import { list, sayCost, sayPercent } from "../numbers/format";
import { SALVAGE } from "../network/network";
import { type Checked, type Fix, namedRef, perRecord, recipeRef } from "./check";
import type { Id } from "../schema/id";
import { setLines } from "./fixes";

/** What ways of a salvage give back, where it is more than the pantry allows. */
const richReturns = ({ catalogue, readings }: Checked, id: Id): SalvageReturn[] =>
  readings.compiled
    .processesOf("recipe", id)
    .filter((p) => readings.network.flags[p] & SALVAGE)
    .map((p) => salvageReturn(readings, p))
    .filter(({ cost, back }) => Number.isFinite(cost) && back > cost * catalogue.pantry.salvageCeiling * (1 + 1e-9));

/** Taking an item apart gives more than making it costs. */
export const salvageOverCost = perRecord<"recipe">({
  id: "salvage-over-cost",
  reads: [bare],
  // What a salvage takes and gives moved.
  *also({ readings }, delta) {
    const { compiled } = readings;
    const { consumers, producers, flags } = compiled.network;
    for (const i of delta.of(bare).keys())
      for (const { start, end, to } of [consumers, producers])
        for (let k = start[i]; k < end[i]; k++) {
          const process = flags[to[k]] & SALVAGE ? compiled.behind(to[k]) : null;
          if (process?.kind === "recipe") yield process.id;
        }
  },
  per: ["recipe"],
  may: ({ kind }) => kind === "salvage",
  mayBe: (id, context) => richReturns(context, id).length > 0,
  *at(context, record) {
    const { catalogue, readings } = context;
    const ceiling = catalogue.pantry.salvageCeiling;
    // Of several ways the one that gives back most.
    const [worst] = richReturns(context, record.id).sort(
      (a, b) => b.back / b.cost - a.back / a.cost || a.process - b.process,
    );
    if (!worst) return;
    const { cost, back, process } = worst;
    const way = readings.compiled.process(process);
    const how = way && way.record !== record ? ` (${way.record.name})` : "";
    const taken = record.lines.filter((l) => l.role === "ingredient").map((l) => namedRef(catalogue, l).name);
    const share = cost > 0 ? `, ${sayPercent(Math.round((back / cost) * 100) / 100)} of it` : "";
    const chance = Math.floor(((cost * ceiling) / back) * 20) / 20;
    const lower: Fix[] =
      chance > 0 && !how
        ? [
            {
              message: `${record.name}: reduce every chance to ${sayPercent(chance)} of its value`,
              do: "edit",
              edits: [
                setLines(
                  catalogue,
                  "recipe",
                  record.id,
                  record.lines.map((l) =>
                    l.role === "output" ? { ...l, chance: Number((l.chance * chance).toFixed(4)) } : l,
                  ),
                ),
              ],
            },
          ]
        : [];
    const items = record.lines.filter((l) => l.role === "ingredient").map((l) => namedRef(catalogue, l));
    yield {
      subject: recipeRef(record),
      with: items,
      message: `Salvaging ${list(taken)}${how} returns ${sayCost(back)} on average; ${taken.length === 1 ? "it" : "they"} cost ${sayCost(cost)}${share}.`,
      evidence: {
        type: "amounts",
        unit: "value",
        rows: [
          { label: "costs", value: cost },
          { label: "returns", value: back },
        ],
      },
      size: back / cost,
      fixes: [...lower, { message: `Open ${record.name}`, do: "open", kind: "recipe", id: record.id }],
    };
  },
});
