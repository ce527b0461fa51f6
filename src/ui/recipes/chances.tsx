"use client";
/** What a number of runs gives of each thing that comes by chance; follows the line while it is typed. */
import { useDeferredValue, useMemo, useState } from "react";
import { work } from "@/core/analysis/chances";
import { outcomes, runsUntil } from "@/core/analysis/outcomes";
import { nameOf } from "@/core/catalogue/catalogue";
import { namesOf } from "@/core/catalogue/surroundings";
import { givenWith } from "@/core/trials/given";
import type { Id } from "@/core/schema/id";
import type { ParsedLine } from "@/core/notation/parsed";
import { lineFrom } from "@/core/kinds/parsed";
import { linesFor, makerOf } from "@/core/process/maker";
import { sayPercent, sayQuantity } from "@/core/numbers/format";
import { useCatalogue } from "../pantry/provider";

const MOST_RUNS = 10_000;
const SURE = [0.5, 0.9, 0.99];
/** The table follows every key press: a few hundredths of a second for all of it. */
const STEPS = 2e7;
const sayRuns = (n: number | null | "unknown"): string =>
  n === "unknown" ? "unknown" : n === null ? "over 100,000" : sayQuantity(n);
/** What is the same for all is said once. */
const sayAllRuns = (list: readonly (number | null | "unknown")[]): string =>
  [...new Set(list.map(sayRuns))].length === 1 && list[0] === "unknown" ? "unknown" : list.map(sayRuns).join(", ");

export function Chances({ parsed }: { parsed: ParsedLine }) {
  const catalogue = useCatalogue();
  const [typed, setTyped] = useState("1");
  const runs = Number(typed);
  const right = Number.isInteger(runs) && runs >= 1 && runs <= MOST_RUNS;
  const entries = useDeferredValue(parsed.entries);
  // A name that is not in the pantry yet stands for itself.
  const lines = useMemo(() => {
    const said = entries.map((e) => lineFrom(e, (name) => name as Id));
    return linesFor(said, makerOf(catalogue));
  }, [entries, catalogue]);
  const { tables: named, level } = parsed;
  const giving = useMemo(() => {
    const book = namesOf(catalogue, "table");
    const tables = named.flatMap(({ table, times }) => {
      const there = book.find(table);
      return there.found === "one" ? [{ table: there.id, times }] : [];
    });
    return givenWith(catalogue, lines, tables, level ?? 0);
  }, [catalogue, lines, named, level]);
  const found = useMemo(() => (right ? outcomes(giving, runs, work(STEPS)) : []), [giving, runs, right]);
  const until = useMemo(() => {
    const steps = work(STEPS);
    return new Map(found.map((o) => [o.item, SURE.map((c) => runsUntil(giving, o.item, 1, c, steps))]));
  }, [giving, found]);
  if (!giving.items.length) return null;
  return (
    <section aria-label="Random results" className="pt-1">
      <div className="flex items-center gap-2 pb-1">
        <h3 className="head">Random results</h3>
        <label className="flex items-center gap-1.5 text-second">
          in
          <input
            className="field num w-18!"
            inputMode="numeric"
            aria-label="Runs"
            aria-invalid={!right}
            value={typed}
            onChange={(e) => setTyped(e.target.value.trim())}
          />
          {runs === 1 ? "run" : "runs"}
        </label>
        {!right && <span className="text-beet">A whole number from 1 to {MOST_RUNS.toLocaleString("en")}.</span>}
      </div>
      {right && (
        <table className="w-full">
          <caption className="caption-bottom pt-1 text-left text-[12px] text-second">
            One player in ten gets at most Low, half get at most Middle, nine in ten get at most High. Last column: runs
            until the first one.
            {found.some((o) => o.about) &&
              " Values marked ≈ are approximate, because there are too many different amounts."}
          </caption>
          <thead>
            <tr>
              <th className="head pb-0.5 pr-2 text-left">Item</th>
              {["On average", "None", "Low", "Middle", "High", "Runs for 1 (50 / 90 / 99%)"].map((h) => (
                <th key={h} className="head pb-0.5 pl-3 text-right">
                  {h}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {found.map((o) => (
              <tr key={o.item}>
                <td className="truncate pr-2">
                  {catalogue.records.item.has(o.item) ? nameOf(catalogue, "item", o.item) : o.item}
                </td>
                {[
                  sayQuantity(o.expected),
                  o.none > 0 && o.none < 1e-6 ? "almost never" : sayPercent(o.none),
                  ...[o.low, o.middle, o.high].map((n) => `${o.about ? "≈ " : ""}${sayQuantity(n)}`),
                  sayAllRuns(until.get(o.item) ?? []),
                ].map((text, k) => (
                  <td key={k} className="num pl-3 text-right whitespace-nowrap">
                    {text}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
