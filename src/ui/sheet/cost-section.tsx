"use client";
/** Cost of one, in value and in time, as a ribbon and as a list that adds up. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { ItemCosts } from "@/core/analysis/item-costs";
import { nameOf, recordAt } from "@/core/catalogue/catalogue";
import type { Id } from "@/core/schema/id";
import { sayCost, sayQuantity } from "@/core/numbers/format";
import { saySeconds } from "@/core/numbers/ticks";
import { usePlaces } from "../frame/navigate";
import { cx } from "../kit/kit";
import { WaysCompared } from "./ways-compared";
import { useLive, useStore, useStamp } from "../pantry/provider";

export function useItemCosts(id: Id) {
  const store = useStore();
  const stamp = useStamp();
  return useQuery({
    queryKey: ["costs", store.key, id, stamp],
    placeholderData: keepPreviousData,
    queryFn: () => store.api.costs(id),
  });
}

/** From which level on it can be had, and what asks for that. */
function WhyLevel({ of: { level, by, path } }: { readonly of: NonNullable<ItemCosts["level"]> }) {
  const { catalogue } = useLive();
  const places = usePlaces();
  const between = path.slice(1).filter((id) => by.kind !== "item" || id !== by.id);
  const needs = between.map((id) => nameOf(catalogue, "item", id));
  const own = by.kind === "item" && by.id === path[0];
  return (
    <p className="pt-1 text-second">
      From level <span className="ink-worked font-semibold">{level}</span>:{" "}
      {needs.length > 0 && `it needs ${needs.join(", which needs ")}, and `}
      {own ? (
        "its own level."
      ) : (
        <>
          <button type="button" className="hover:underline" onClick={() => places.open(by.kind, by.id)}>
            {nameOf(catalogue, by.kind, by.id)}
          </button>{" "}
          is level {level}.
        </>
      )}
    </p>
  );
}

const INKS = ["#2c6e8f", "#0a6650", "#7a5c2e", "#5a6231", "#7d3324", "#6b4c86", "#45595f", "#315f86"];

interface Part {
  readonly name: string;
  readonly note: string;
  readonly cost: number;
  readonly open: () => void;
}

export function CostSection({ id, wide = false }: { id: Id; wide?: boolean }) {
  const { catalogue } = useLive();
  const places = usePlaces();
  const { data, isError } = useItemCosts(id);
  const [measure, setMeasure] = useState<"value" | "time">("value");
  const side = data?.[measure];
  const say = (n: number) => (measure === "value" ? sayCost(n) : saySeconds(n));
  const parts: Part[] = side
    ? [
        ...side.base.map((b) => ({
          name: nameOf(catalogue, "item", b.item),
          note: `${sayQuantity(b.quantity)} from ${recordAt(catalogue, "source", b.by.id)?.name ?? ""}`,
          cost: b.cost,
          open: () => places.openItem(b.item),
        })),
        ...side.work
          .filter((w) => w.cost > 0)
          .map((w) => ({
            name: recordAt(catalogue, "recipe", w.by.id)?.name ?? "",
            note: `${sayQuantity(w.runs)} ${w.runs === 1 ? "run" : "runs"}: ${measure === "value" ? "time and fees" : "time"}`,
            cost: w.cost,
            open: () => places.open("recipe", w.by.id),
          })),
      ].sort((a, b) => b.cost - a.cost)
    : [];
  const total = side?.cost ?? 0;
  return (
    <section aria-label="Cost of one" className="pt-3.5">
      <div className="flex min-h-7 items-center justify-between">
        <h3 className="head">Cost of one</h3>
        {/** biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element */}
        <span className="flex gap-1" role="group" aria-label="Measure">
          {(["value", "time"] as const).map((m) => (
            <button
              key={m}
              type="button"
              aria-pressed={measure === m}
              onClick={() => setMeasure(m)}
              className={cx(
                "rounded-sm px-1.5",
                measure === m ? "bg-kelp-wash font-semibold text-kelp" : "text-second hover:text-ink",
              )}
            >
              {m === "value"
                ? sayCost(data?.value?.reused ?? Number.POSITIVE_INFINITY)
                : data?.time
                  ? saySeconds(data.time.reused)
                  : "–"}
              <span className="sr-only"> {m}</span>
            </button>
          ))}
        </span>
      </div>
      {isError && <p className="text-beet">The costs could not be loaded. They are updated with the next change.</p>}
      {data && !side && <p className="text-second">It is unobtainable, so it has no cost. “Findings” explains why.</p>}
      {side && side.reused < side.cost * (1 - 1e-9) && (
        <p className="pb-1 text-second">
          <span className="ink-worked font-semibold">{say(side.reused)}</span> each, if returned items are reused;{" "}
          <span className="ink-worked">{say(side.cost)}</span> for the first one, which is:
        </p>
      )}
      {side && (
        <>
          {total > 0 && (
            <div aria-hidden className="flex h-5 overflow-hidden rounded-sm">
              {parts.map((p, i) => (
                <span
                  key={p.name + p.note}
                  title={`${p.name} ${say(p.cost)}`}
                  className="h-full truncate px-1 text-[11px] leading-5 font-semibold text-white"
                  style={{ width: `${(p.cost / total) * 100}%`, background: INKS[i % INKS.length] }}
                >
                  {p.cost / total > 0.16 ? p.name : ""}
                </span>
              ))}
            </div>
          )}
          <table className="mt-1.5 w-full">
            <tbody>
              {parts.slice(0, wide ? 12 : 8).map((p, i) => (
                <tr key={p.name + p.note} className="border-b border-hair">
                  <td className="w-4">
                    <span aria-hidden className="block size-2" style={{ background: INKS[i % INKS.length] }} />
                  </td>
                  <td className="max-w-40 truncate py-0.5">
                    <button type="button" className="hover:underline" onClick={p.open}>
                      {p.name}
                    </button>
                    <span className="pl-1.5 text-second">{p.note}</span>
                  </td>
                  <td className="ink-worked py-0.5 text-right whitespace-nowrap">{say(p.cost)}</td>
                </tr>
              ))}
              {parts.length > (wide ? 12 : 8) && (
                <tr className="border-b border-hair">
                  <td />
                  <td className="py-0.5 text-second">{parts.length - (wide ? 12 : 8)} smaller parts</td>
                  <td className="ink-worked py-0.5 text-right">
                    {say(parts.slice(wide ? 12 : 8).reduce((t, p) => t + p.cost, 0))}
                  </td>
                </tr>
              )}
              <tr>
                <td />
                <td className="py-0.5 font-semibold">in total</td>
                <td className="ink-worked py-0.5 text-right">{say(total)}</td>
              </tr>
            </tbody>
          </table>
          {side.circular && (
            <p className="text-copper">
              The cheapest way is a loop through the item itself, cheaper with every round. See the loops in Checks.
            </p>
          )}
        </>
      )}
      {data?.level && <WhyLevel of={data.level} />}
      {data && data.ways.length > 1 && <WaysCompared id={id} ways={data.ways} />}
      {data?.salvages.map((s) => (
        <p key={s.recipe} className="pt-1 text-second">
          {recordAt(catalogue, "recipe", s.recipe)?.name} returns <span className="ink-worked">{sayCost(s.back)}</span>
          {s.cost !== null && s.cost > 0 && (
            <>
              , {Math.round((s.back / s.cost) * 100)}% of {sayCost(s.cost)}
            </>
          )}
          {s.unpriced.length > 0 && (
            <>
              ; {s.unpriced.map((i) => nameOf(catalogue, "item", i)).join(", ")} comes only from salvage and is not
              counted
            </>
          )}
          .
        </p>
      ))}
    </section>
  );
}
