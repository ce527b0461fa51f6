"use client";
/** The ways to have one item beside each other, and what several recipes make changed together. */
import { useState } from "react";
import type { WayTo } from "@/core/analysis/item-costs";
import { around } from "@/core/catalogue/surroundings";
import { givingTimes } from "@/core/editing/together";
import { allLines } from "@/core/kinds/ways";
import { sayNode } from "@/core/process/node";
import { sayCost, sayQuantity } from "@/core/numbers/format";
import { saySeconds } from "@/core/numbers/ticks";
import type { Id } from "@/core/schema/id";
import { typedNumber } from "@/core/numbers/typed";
import { usePlaces } from "../frame/navigate";
import { Button } from "../kit/kit";
import { useLive, useStore } from "../pantry/provider";

export function WaysCompared({ id, ways }: { id: Id; ways: readonly WayTo[] }) {
  const { catalogue } = useLive();
  const places = usePlaces();
  const store = useStore();
  const [typed, setTyped] = useState("2");
  const recipes = [...new Set(ways.flatMap(({ by }) => (by.kind === "recipe" ? [by.id] : [])))]
    .flatMap((recipe) => catalogue.records.recipe.get(recipe) ?? [])
    .filter((recipe) => allLines(recipe).some((l) => l.role === "output" && l.item === id));
  const read = typedNumber(typed, { format: catalogue.numbers });
  const factor = "value" in read ? read.value : null;
  const right = factor !== null && factor > 0 && factor <= 1000 && factor !== 1;
  const least = (of: (w: WayTo) => number | null): number =>
    Math.min(...ways.map((w) => of(w) ?? Number.POSITIVE_INFINITY));
  const [cheapest, quickest, first] = [least((w) => w.value), least((w) => w.time), least((w) => w.level)];
  const best = (is: boolean) => (is ? "font-semibold text-kelp" : "");
  return (
    <section aria-label="Compare alternatives" className="pt-3">
      <h4 className="head pb-1">Compare alternatives</h4>
      <table className="w-full">
        <thead>
          <tr>
            {["Alternative", "Each", "Time", "Gives", "From level"].map((h) => (
              <th key={h} className={h === "Alternative" ? "head pb-0.5 text-left" : "head pb-0.5 pl-2 text-right"}>
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {ways.map((w) => (
            <tr key={`${w.by.id}${w.name}`} className="border-t border-hair align-top">
              <td className="max-w-40 py-0.5">
                <button
                  type="button"
                  className="block max-w-full truncate text-left hover:underline"
                  title={w.name}
                  onClick={() => places.open(w.by.kind, w.by.id)}
                >
                  {w.name}
                </button>
                {w.alone.length > 0 && (
                  <span className="block truncate text-[12px] text-second">
                    needs {w.alone.map((node) => sayNode(around(catalogue), node)).join(", ")}
                  </span>
                )}
              </td>
              {w.value === null ? (
                <td colSpan={2} className="py-0.5 pl-2 text-right text-beet">
                  unobtainable
                </td>
              ) : (
                <>
                  <td className={`num py-0.5 pl-2 text-right ${best(w.value === cheapest)}`}>{sayCost(w.value)}</td>
                  <td className={`num py-0.5 pl-2 text-right whitespace-nowrap ${best(w.time === quickest)}`}>
                    {saySeconds(w.time ?? 0)}
                  </td>
                </>
              )}
              <td className="num py-0.5 pl-2 text-right">{sayQuantity(w.amount)}</td>
              <td className={`num py-0.5 pl-2 text-right ${best(w.level === first)}`}>{w.level ?? ""}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {recipes.length > 1 && (
        <form
          className="flex items-center gap-1.5 pt-1.5"
          onSubmit={(e) => {
            e.preventDefault();
            if (right) void store.submit(givingTimes(catalogue, recipes, id, factor));
          }}
        >
          <label className="flex items-center gap-1.5 text-second">
            All {recipes.length} recipes make
            <input
              className="field num w-14!"
              inputMode="decimal"
              aria-label="Multiply the output of all of them"
              aria-invalid={!right}
              value={typed}
              onChange={(e) => setTyped(e.target.value)}
            />
            times as much
          </label>
          <Button type="submit" disabled={!right}>
            Edit all {recipes.length}
          </Button>
        </form>
      )}
    </section>
  );
}
