"use client";
/** How an item's cost came about: at each level of a character, and after each change that moved it. */
import { useQuery } from "@tanstack/react-query";
import { Line, LineChart, ResponsiveContainer, XAxis, YAxis } from "recharts";
import type { CostAt } from "@/core/analysis/cost-trend";
import { tellChange } from "@/core/history/telling";
import type { LoggedChange } from "@/core/history/log";
import { useState } from "react";
import { sayCost } from "@/core/numbers/format";
import { saySeconds } from "@/core/numbers/ticks";
import type { Id } from "@/core/schema/id";
import { Button } from "../kit/kit";
import { useCatalogue, useStore, useStamp } from "../pantry/provider";

const CHANGES = 100;
const LISTED = 8;
const say = (value: number | null): string => (value === null ? "unobtainable" : sayCost(value));

export function CostTrends({ id }: { readonly id: Id }) {
  const store = useStore();
  const [wanted, setWanted] = useState<Id | null>(null);
  const withHistory = wanted === id;
  const stamp = useStamp();
  const { data, isError } = useQuery({
    queryKey: ["trend", store.key, id, withHistory, stamp],
    // While the next one is computed, the last one stays; that of another item does not.
    placeholderData: (last, query) =>
      query?.queryKey[2] === id && query.queryKey[3] === withHistory ? last : undefined,
    queryFn: () => store.api.costTrend(id, withHistory),
  });
  if (isError) return <p className="pt-4 text-beet">The history of this cost could not be loaded.</p>;
  if (!data) return withHistory ? <p className="pt-5 text-second">Going back over the last changes.</p> : null;
  const { levels, moreLevels, history } = data;
  return (
    <>
      {(levels.length > 1 || (levels[0]?.level ?? 0) > 0) && (
        <section aria-label="Cost by level">
          <h3 className="head pt-5 pb-1">Cost by level</h3>
          <table className="w-full">
            <tbody>
              {levels.map((step) => (
                <tr key={step.level} className="border-b border-hair">
                  <td className="py-0.5">from level {step.level}</td>
                  <td className="ink-worked py-0.5 text-right">{say(step.value)}</td>
                  <td className="ink-worked w-28 py-0.5 text-right">
                    {step.time === null ? "–" : saySeconds(step.time)}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          {moreLevels && <p className="text-second">Higher levels are not listed.</p>}
        </section>
      )}
      <section aria-label="History of the cost">
        <h3 className="head pt-5 pb-1">History</h3>
        {!withHistory && <Button onClick={() => setWanted(id)}>Show what moved this cost</Button>}
        {withHistory && history === null && <p className="text-second">The last changes can't be followed back.</p>}
        {withHistory && history?.length === 1 && <p className="text-second">No recent change moved it.</p>}
        {withHistory && history && history.length > 1 && <History history={history} />}
      </section>
    </>
  );
}

function History({ history }: { readonly history: readonly CostAt[] }) {
  const store = useStore();
  const catalogue = useCatalogue();
  const { data: changes } = useQuery({
    queryKey: ["last-changes", store.key, catalogue.revision],
    queryFn: () => store.api.changes(CHANGES),
  });
  const words = (revision: number): string => {
    const change = changes?.find((c) => c.revision === revision);
    return change ? wordsOf(change) : "";
  };
  const wordsOf = ({ edits, note, undoes }: LoggedChange): string =>
    undoes ? `Undid revision ${undoes}` : edits.length ? tellChange(catalogue, edits) : note;
  const points = [...history].reverse().map(({ revision, value }) => ({ revision, value }));
  // The line goes on to the revision of now.
  points.push({ revision: catalogue.revision, value: history[0].value });
  return (
    <>
      {history.length > 2 && (
        <figure aria-label={`Cost after each change: ${points.map((p) => say(p.value)).join(", ")}`} className="h-20">
          <ResponsiveContainer>
            <LineChart data={points} margin={{ top: 4, right: 4, bottom: 0, left: -18 }} accessibilityLayer={false}>
              <XAxis
                dataKey="revision"
                type="number"
                domain={["dataMin", "dataMax"]}
                tick={{ fontSize: 11, fill: "var(--second)" }}
                stroke="var(--line)"
                tickCount={3}
                allowDecimals={false}
              />
              <YAxis tick={{ fontSize: 11, fill: "var(--second)" }} stroke="var(--line)" tickCount={3} />
              <Line type="stepAfter" dataKey="value" stroke="var(--kelp)" dot={false} isAnimationActive={false} />
            </LineChart>
          </ResponsiveContainer>
        </figure>
      )}
      <table className="w-full">
        <tbody>
          {history.slice(0, LISTED).map(({ revision, value }, k) =>
            k === history.length - 1 ? null : (
              <tr key={revision} className="border-b border-hair align-baseline">
                <td className="w-10 py-0.5 text-right text-second">{revision}</td>
                <td className="max-w-40 truncate px-2 py-0.5" title={words(revision)}>
                  {words(revision)}
                </td>
                <td className="py-0.5 text-right whitespace-nowrap">
                  <span className="text-second">{say(history[k + 1].value)} →</span>{" "}
                  <span className="ink-worked">{say(value)}</span>
                </td>
              </tr>
            ),
          )}
        </tbody>
      </table>
      {history.length - 1 > LISTED && <p className="text-second">and {history.length - 1 - LISTED} earlier changes</p>}
    </>
  );
}
