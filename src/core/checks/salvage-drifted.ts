import { value, ways } from "../analysis/registry";
import { keptFor, suggestSalvage, writeSuggested } from "../analysis/suggested-salvage";
import { around } from "../catalogue/surroundings";
import { itemsBelow } from "../catalogue/types";
import type { Payback, Recipe } from "../kinds/index";
import { formatGiven } from "../notation/format";
import { outputsOf } from "../notation/line";
import { sayPercent } from "../numbers/format";
import type { Id } from "../schema/id";
import { perRecord, recipeRef, ref } from "./check";
import { holdersBeside } from "./holders";

/** A salvage says otherwise than the rule that is kept for its type. */
export const salvageDrifted = perRecord<"item">({
  id: "salvage-drifted",
  reads: [ways],
  per: ["item"],
  concerns: ({ records }) => records.payback.size > 0,
  *also({ catalogue, readings: { compiled } }, delta, edits) {
    // What is given by worth hangs on what things cost, and on what that costs which is given.
    const byWorth = [...catalogue.records.payback.values()].filter((p) => p.type !== null && p.into !== null);
    if (byWorth.length) {
      const moved = delta.of(value);
      for (const i of moved.keys()) {
        const id = compiled.idOf(i);
        if (id) yield id;
      }
      for (const { type, into } of byWorth)
        if (moved.has(compiled.numberOf(into as Id) ?? -1)) yield* itemsBelow(catalogue, new Set([type as Id]));
    }
    if (!catalogue.records.payback.size && !edits.some((e) => e.kind === "payback")) return;
    yield* holdersBeside(catalogue, edits);
    for (const edit of edits) {
      if (edit.kind === "payback") {
        const there = edit.op === "set" ? catalogue.records.payback.get(edit.id) : (edit.record as Payback);
        const types = [there?.type, ...(edit.op === "set" && edit.field === "type" ? [edit.from, edit.to] : [])];
        yield* itemsBelow(catalogue, new Set(types.flatMap((t) => (t ? [t as Id] : []))));
      } else if (edit.kind === "recipe") {
        const recipe = edit.op === "set" ? catalogue.records.recipe.get(edit.id) : (edit.record as Recipe);
        const sides = edit.op === "set" && edit.field === "lines" ? [edit.from, edit.to] : [];
        for (const lines of [recipe?.lines, ...sides])
          for (const { item } of (lines ?? []) as readonly { item?: Id }[]) if (item) yield item;
      }
    }
  },
  *at({ catalogue, readings }, item) {
    const rule = item.status === "retired" ? null : keptFor(catalogue, item);
    if (!rule) return;
    const by = () => {
      const process = readings.compiled.process(readings.by("value", readings.compiled.numberOf(item.id) as number));
      return process?.kind === "recipe" ? process.record.id : null;
    };
    const worth = (id: Id) => {
      const i = readings.compiled.numberOf(id);
      const cost = i === undefined ? Number.POSITIVE_INFINITY : readings.value.cost[i];
      return Number.isFinite(cost) ? cost : null;
    };
    const [suggested] = suggestSalvage(catalogue, [item], { ...rule, replace: true }, by, worth);
    if (!suggested?.there || suggested.skipped !== null) return;
    const here = around(catalogue);
    const { there, gives } = suggested;
    yield {
      subject: recipeRef(there),
      with: [ref(catalogue, "item", item.id), ref(catalogue, "payback", rule.id)],
      message: `${there.name} gives ${formatGiven(here, outputsOf(there.lines)) || "nothing"}, but ${rule.name} returns ${sayPercent(rule.share)} of ${suggested.made ? "the ingredients" : "the value"}: ${formatGiven(here, gives)}.`,
      evidence: { type: "lines", inputs: [ref(catalogue, "item", item.id)], recipes: [recipeRef(there)] },
      fixes: [
        {
          message: `Change it to ${formatGiven(here, gives)}`,
          do: "edit",
          edits: writeSuggested(catalogue, [suggested], rule),
        },
        { message: `Open ${rule.name}`, do: "open", kind: "payback", id: rule.id },
      ],
    };
  },
});
