"use client";
/** What one run of a recipe costs, by each of its ways: what goes in, burns, comes back, and what is made for how much. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { RunCost, Taken } from "@/core/analysis/recipe-costs";
import { around } from "@/core/catalogue/surroundings";
import { isItem, type Node, sayNode } from "@/core/process/node";
import { count, list, sayCost, sayQuantity } from "@/core/numbers/format";
import { saySeconds } from "@/core/numbers/ticks";
import type { Id } from "@/core/schema/id";
import { usePlaces } from "../frame/navigate";
import { useCatalogue, useStore, useStamp } from "../pantry/provider";

export function RunCosts({ id }: { readonly id: Id }) {
  const store = useStore();
  const [chosen, setChosen] = useState("");
  const stamp = useStamp();
  const { data, isError } = useQuery({
    queryKey: ["run costs", store.key, id, stamp],
    placeholderData: keepPreviousData,
    queryFn: () => store.api.runs(id),
  });
  if (isError)
    return <p className="text-beet">The costs could not be loaded. They are updated with the next change.</p>;
  if (!data) return <p className="text-second">Computing…</p>;
  const { runs } = data;
  if (!runs.length) return <p className="text-second">It is retired, so it isn't used.</p>;
  const run = runs.find((r) => r.name === chosen) ?? runs[0];
  return (
    <>
      {runs.length > 1 && (
        <select
          aria-label="Alternative"
          className="field mb-1 w-auto!"
          value={run.name}
          onChange={(e) => setChosen(e.target.value)}
        >
          {runs.map((r) => (
            <option key={r.name} value={r.name}>
              {r.name}: {r.value === null ? "not possible" : sayCost(r.value)}
            </option>
          ))}
        </select>
      )}
      <OneRun run={run} />
    </>
  );
}

function OneRun({ run }: { readonly run: RunCost }) {
  const catalogue = useCatalogue();
  const name = (node: Node) => sayNode(around(catalogue), node);
  const value = (n: number | null) => (n === null ? "unobtainable" : sayCost(n));
  const note = ({ from }: Taken): string => {
    if (!from) return "";
    const leaves = from.leaves.map((l) => `${sayQuantity(l.amount)} ${name(l.thing)}`);
    return `: ${sayQuantity(from.amount)} ${name(from.item)}${leaves.length ? `, which leaves ${list(leaves)}` : ""}`;
  };
  return (
    <table className="w-full" aria-label={`One run of ${run.name}`}>
      <tbody>
        {run.takes.map((t) => (
          <tr key={`takes ${t.thing}`} className="border-b border-hair">
            <td className="py-1 pr-2">
              <CostRow node={t.thing} amount={t.amount} name={name} />
              <span className="text-second">{note(t)}</span>
            </td>
            <td className="num py-1 text-right">{value(t.value)}</td>
          </tr>
        ))}
        {run.fee > 0 && <Line what="Fee" value={sayCost(run.fee)} />}
        {run.work > 0 && <Line what="Time" value={sayCost(run.work)} />}
        <tr className="border-b border-line font-semibold">
          <td className="py-1">
            One run{run.keeps.length > 0 && `, using ${list(run.keeps.map(name))}`}
            {run.level !== null && run.level > 0 && `, from level ${run.level}`}
          </td>
          <td className="num py-1 text-right">{run.value === null ? "not possible" : sayCost(run.value)}</td>
        </tr>
        {run.gives.map((g) => (
          <tr key={`gives ${g.thing}`} className="border-b border-hair">
            <td className="py-1 pr-2">
              gives <CostRow node={g.thing} amount={g.amount} name={name} />
              {g.each !== null && g.value !== null && g.value / g.amount < g.each * (1 - 1e-9) && (
                <span className="text-second">, {sayCost(g.value / g.amount)} elsewhere</span>
              )}
            </td>
            <td className="num ink-worked py-1 text-right">{g.each === null ? "–" : `${sayCost(g.each)} each`}</td>
          </tr>
        ))}
      </tbody>
      <caption className="caption-bottom pt-1 text-left text-[12px] text-second">
        {run.seconds !== null && `${saySeconds(run.seconds)} in total, including its ingredients. `}
        Amounts are averages.{" "}
        {run.gives.length > 1 && `Each of the ${count(run.gives.length, "thing")} carries the full cost.`}
      </caption>
    </table>
  );
}

const Line = ({ what, value }: { readonly what: string; readonly value: string }) => (
  <tr className="border-b border-hair">
    <td className="py-1 text-second">{what}</td>
    <td className="num py-1 text-right">{value}</td>
  </tr>
);

function CostRow({
  node,
  amount,
  name,
}: {
  readonly node: Node;
  readonly amount: number;
  readonly name: (node: Node) => string;
}) {
  const places = usePlaces();
  return (
    <>
      {sayQuantity(amount)}{" "}
      {isItem(node) ? (
        <button type="button" className="hover:underline" onClick={() => places.openItem(node)}>
          {name(node)}
        </button>
      ) : (
        name(node)
      )}
    </>
  );
}
