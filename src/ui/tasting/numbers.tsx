"use client";
/** What a tasting came to in numbers: each resource, conditions, what was used up and gained, refusals. */
import { sayCost, sayPercent, sayQuantity } from "@/core/numbers/format";
import { formatTicks, saySeconds } from "@/core/numbers/ticks";
import type { Id } from "@/core/schema/id";
import type { Report, ResourceReport } from "@/core/trials/tasting";
import { cx } from "../kit/kit";
import { figuresOf, useLive } from "../pantry/provider";
import { coloursOf } from "./colours";

export function Numbers({
  report,
  second,
  other,
}: {
  readonly report: Report;
  readonly second: Report | null;
  readonly other: string;
}) {
  const { catalogue, model } = useLive();
  const tps = catalogue.pantry.ticksPerSecond;
  const seconds = report.ticks / tps;
  const back = report.gained.reduce((t, { thing, count }) => {
    const [kind, id] = thing.split(":") as ["item" | "currency", Id];
    return t + (kind === "item" ? count * (figuresOf(model, id).value ?? 0) : 0);
  }, 0);
  const paid = report.spent.reduce((t, { item, count }) => t + count * (figuresOf(model, item).value ?? Number.NaN), 0);
  const cost = Math.max(0, paid - back);
  const refused = [
    ...new Map(
      report.moments.filter((m) => m.refused).map((m) => [`${m.item}${m.refused?.replace(/[\d.]+/g, "")}`, m]),
    ).values(),
  ];
  const of = (r: Report | null, id: Id) => r?.resources.find((x) => x.resource === id);
  const cells = ({ restored, wasted, drained, least }: ResourceReport) => [
    restored,
    wasted,
    drained,
    restored / seconds,
    cost > 0 ? restored / cost : Number.NaN,
    least,
  ];
  const colours = coloursOf(catalogue, [...report.resources, ...report.others]);
  const rows = [
    ...report.resources.map((r) => ({ r, behind: "", beside: of(second, r.resource) })),
    ...report.others.map((r) => ({ r, behind: ` of ${other}, dotted`, beside: undefined })),
  ];
  const show = (n: number) => (Number.isFinite(n) ? sayQuantity(Math.round(n * 1000) / 1000) : "–");
  return (
    <div className="space-y-3 pt-4">
      <table className="w-full">
        <thead>
          <tr className="text-right">
            <th className="head py-1 text-left">
              Over {saySeconds(seconds)}
              {second && <span className="font-normal">, the other in small figures</span>}
            </th>
            <th className="head">Restored</th>
            <th className="head">Wasted</th>
            <th className="head">Drained</th>
            <th className="head">Per second</th>
            <th className="head">Per value unit</th>
            <th className="head">Lowest</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ r, behind, beside }) => (
            <tr key={`${r.resource}${behind}`} className="border-t border-hair text-right">
              <td className="py-1 text-left">
                <span
                  aria-hidden
                  className="mr-1.5 inline-block size-2.5 rounded-full"
                  style={{ background: colours.get(r.resource) }}
                />
                {catalogue.records.resource.get(r.resource)?.name}
                {behind}
              </td>
              {cells(r).map((n, c) => {
                const other = beside ? cells(beside)[c] : null;
                return (
                  <td key={c} className={cx("tabular-nums", c === 1 && n > 0 && "text-copper")}>
                    {show(n)}
                    {other !== null && Math.abs(other - n) > 1e-9 && (
                      <span className="block text-[11px] text-second">{show(other)}</span>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <dl className="grid grid-cols-2 gap-x-8 gap-y-1">
        {report.uptime.map(({ condition, share }) => (
          <div key={condition} className="flex justify-between border-b border-hair">
            <dt>{catalogue.records.condition.get(condition)?.name} is on</dt>
            <dd className={cx("font-semibold", share >= 0.999 && "text-copper")}>
              {sayPercent(Math.round(share * 1000) / 1000)} of the time
            </dd>
          </div>
        ))}
        {report.spent.map(({ item, count }) => (
          <div key={item} className="flex justify-between border-b border-hair">
            <dt>{catalogue.records.item.get(item)?.name} used up</dt>
            <dd className="font-semibold">{show(count)}</dd>
          </div>
        ))}
        {report.spent.length > 0 && (
          <div className="flex justify-between border-b border-hair">
            <dt>{back > 0 ? "Total cost, minus returned items" : "Total cost"}</dt>
            <dd className="font-semibold">{sayCost(cost)}</dd>
          </div>
        )}
        {report.gained.map(({ thing, count }) => {
          const [kind, id] = thing.split(":") as ["item" | "currency", Id];
          return (
            <div key={thing} className="flex justify-between border-b border-hair">
              <dt>{catalogue.records[kind].get(id)?.name} gained</dt>
              <dd className="font-semibold">{show(count)}</dd>
            </div>
          );
        })}
        {report.signals.length > 0 && (
          <div className="flex justify-between border-b border-hair">
            <dt>Signals sent to the game</dt>
            <dd className="font-semibold">{report.signals.length}</dd>
          </div>
        )}
        {refused.slice(0, 8).map((m) => (
          <div key={`${m.item}${m.tick}`} className="flex justify-between gap-3 text-beet">
            <dt>
              {m.name} {catalogue.records.item.get(m.item)?.name} refused at {formatTicks(m.tick, tps)}
            </dt>
            <dd className="text-right">{m.refused}</dd>
          </div>
        ))}
      </dl>
    </div>
  );
}
