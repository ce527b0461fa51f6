"use client";
/** Every stat of what is worn, with where it comes from, and what it would be with the item that is tried. */
import { sayQuantity } from "@/core/numbers/format";
import type { Id } from "@/core/schema/id";
import type { Total } from "@/core/trials/worn";
import { cx } from "../kit/kit";
import { useLive } from "../pantry/provider";

/** Totals are shown to three decimals. */
export const round = (n: number) => Math.round(n * 1000) / 1000;

export function Totals({
  now,
  then,
}: {
  readonly now: ReadonlyMap<Id, Total>;
  readonly then: ReadonlyMap<Id, Total> | null;
}) {
  const { catalogue } = useLive();
  const stats = [...catalogue.records.stat.values()].filter((s) => now.has(s.id) || then?.has(s.id));
  if (!stats.length)
    return <p className="pt-3 text-second">No stats yet: neither the character nor its equipment has any.</p>;
  return (
    <table className="mt-3 w-full">
      <thead>
        <tr className="text-left">
          <th className="head py-1">Stat</th>
          <th className="head w-24 text-right">Now</th>
          {then && <th className="head w-24 text-right">Then</th>}
          {then && <th className="head w-40 pl-3">Change</th>}
          <th className="head pl-5">Sources</th>
        </tr>
      </thead>
      <tbody>
        {stats.map((stat) => {
          const [a, b] = [now.get(stat.id), then?.get(stat.id)];
          const delta = round((b?.value ?? 0) - (a?.value ?? 0));
          const better = stat.better === "neither" || delta === 0 ? null : delta > 0 === (stat.better === "higher");
          return (
            <tr key={stat.id} className="border-t border-hair">
              <td className="py-1">
                {stat.name}
                {stat.unit && <span className="text-second">, {stat.unit}</span>}
              </td>
              <td className="text-right font-semibold tabular-nums">{a ? sayQuantity(round(a.value)) : "–"}</td>
              {then && (
                <td className="text-right font-semibold tabular-nums">{b ? sayQuantity(round(b.value)) : "–"}</td>
              )}
              {then && (
                <td className={cx("pl-3", better === true && "text-kelp", better === false && "text-beet")}>
                  {delta === 0
                    ? "same"
                    : `${delta > 0 ? "+" : "−"}${sayQuantity(Math.abs(delta))}${better === null ? "" : better ? " better" : " worse"}`}
                </td>
              )}
              <td className="pl-5 text-second">
                {(b ?? a)?.shares
                  .map((s) => `${s.name} ${sayQuantity(round(s.value))}`)
                  .join({ sum: " + ", product: " × ", highest: " or ", lowest: " or " }[stat.combine])}
                {stat.combine === "highest" || stat.combine === "lowest" ? `, the ${stat.combine}` : ""}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
