"use client";
/**
 * Every priced item as a point: cost across, sell price up, on logarithmic scales; below the line it sells at a loss.
 */
import {
  CartesianGrid,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  ScatterChart,
  Tooltip,
  XAxis,
  YAxis,
} from "recharts";
import { soldFor } from "@/core/catalogue/inheritance";
import type { Id } from "@/core/schema/id";
import { sayCost } from "@/core/numbers/format";
import { figuresOf, useLive } from "../pantry/provider";

interface Point {
  readonly id: Id;
  readonly name: string;
  readonly cost: number;
  readonly price: number;
}

export function PriceChart({ chosen, onPick }: { chosen: Id; onPick: (id: Id) => void }) {
  const { catalogue, model } = useLive();
  const points: Point[] = [...catalogue.records.item.values()].flatMap((i) => {
    const cost = figuresOf(model, i.id).value;
    const price = soldFor(catalogue, i);
    return cost && price ? [{ id: i.id, name: i.name, cost, price }] : [];
  });
  if (points.length < 2)
    return <p className="text-second">The chart needs at least two items with a cost and a sell price.</p>;
  const values = points.flatMap((p) => [p.cost, p.price]);
  const [low, high] = [
    10 ** Math.floor(Math.log10(Math.min(...values))),
    10 ** Math.ceil(Math.log10(Math.max(...values))),
  ];
  const ticks: number[] = [];
  for (let t = low; t <= high * 1.001; t *= 10) ticks.push(Number(t.toPrecision(1)));
  const axis = {
    type: "number" as const,
    scale: "log" as const,
    domain: [low, high] as [number, number],
    ticks,
    allowDataOverflow: true,
    tick: { fontSize: 11, fill: "var(--second)" },
    stroke: "var(--line)",
    tickFormatter: (v: number) => String(v),
  };
  return (
    <figure aria-label={`Sell price against cost of ${points.length} items`} className="h-64">
      <ResponsiveContainer>
        <ScatterChart margin={{ top: 6, right: 8, bottom: 14, left: -14 }} accessibilityLayer={false}>
          <CartesianGrid stroke="var(--hair)" />
          <XAxis
            dataKey="cost"
            name="cost"
            {...axis}
            label={{ value: "cost", position: "insideBottom", offset: -8, fontSize: 11, fill: "var(--second)" }}
          />
          <YAxis dataKey="price" name="price" {...axis} />
          <ReferenceLine
            segment={[
              { x: low, y: low },
              { x: high, y: high },
            ]}
            stroke="var(--beet)"
            strokeDasharray="4 3"
          />
          <Tooltip
            isAnimationActive={false}
            content={({ payload }) => {
              const p = payload?.[0]?.payload as Point | undefined;
              return p ? (
                <div className="rounded-sm border border-line bg-salt px-2 py-1 shadow">
                  <b>{p.name}</b>
                  <br />
                  costs {sayCost(p.cost)}, sells {sayCost(p.price)}
                </div>
              ) : null;
            }}
          />
          <Scatter
            data={points}
            isAnimationActive={false}
            onClick={(p) => onPick((p as unknown as { payload: Point }).payload.id)}
            shape={(p: unknown) => {
              const { cx, cy, payload } = p as { cx: number; cy: number; payload: Point };
              const own = payload.id === chosen;
              return (
                <circle
                  cx={cx}
                  cy={cy}
                  r={own ? 6 : 3}
                  fill={payload.price < payload.cost ? "var(--beet)" : "var(--kelp)"}
                  fillOpacity={own ? 1 : 0.55}
                  stroke={own ? "var(--ink)" : "none"}
                  strokeWidth={2}
                />
              );
            }}
          />
        </ScatterChart>
      </ResponsiveContainer>
    </figure>
  );
}
