"use client";
/** Resources over time as lines, with the band that chance leaves; a second tasting in dashes over the first. */
import { Area, CartesianGrid, ComposedChart, Line, ResponsiveContainer, Tooltip, XAxis, YAxis } from "recharts";
import { sayQuantity } from "@/core/numbers/format";
import { saySeconds } from "@/core/numbers/ticks";
import type { Report } from "@/core/trials/tasting";
import { useLive } from "../pantry/provider";
import { coloursOf } from "./colours";

/** Most points of a line that are drawn. */
const POINTS = 400;

/** @param other  the name of someone else there */
export function Curves({
  first,
  second,
  other,
}: {
  readonly first: Report;
  readonly second: Report | null;
  readonly other: string;
}) {
  const { catalogue } = useLive();
  const tps = catalogue.pantry.ticksPerSecond;
  const seconds = first.ticks / tps;
  const colours = coloursOf(catalogue, [...first.resources, ...first.others, ...(second?.resources ?? [])]);
  const shown = [
    { of: first.resources, behind: "", dashes: undefined },
    { of: first.others, behind: ` of ${other}`, dashes: "1.5 4" },
    { of: second?.resources ?? [], behind: " (beside)", dashes: "5 4" },
  ];
  const lines = shown.flatMap(({ of, behind, dashes }, n) =>
    of.map(({ resource, curve, band, most }) => ({
      id: `${n}${resource}`,
      name: `${catalogue.records.resource.get(resource)?.name ?? ""}${behind}`,
      colour: colours.get(resource) ?? "var(--kelp)",
      most,
      dashes,
      data: thinned(curve.ticks.map((tick, k) => ({ t: tick / tps, y: curve.values[k] }))),
      band: band?.ticks.map((tick, k) => ({ t: tick / tps, band: [band.low[k], band.high[k]] })),
    })),
  );
  const top = Math.max(1, ...lines.map((l) => l.most));
  return (
    <figure aria-label={`${lines.map((l) => l.name).join(", ")} over ${saySeconds(seconds)}`} className="h-60">
      <ResponsiveContainer>
        <ComposedChart margin={{ top: 8, right: 10, bottom: 2, left: -18 }} accessibilityLayer={false}>
          <CartesianGrid stroke="var(--hair)" />
          <XAxis
            dataKey="t"
            type="number"
            domain={[0, seconds]}
            allowDuplicatedCategory={false}
            tick={{ fontSize: 11, fill: "var(--second)" }}
            stroke="var(--line)"
            tickFormatter={(s: number) => saySeconds(s)}
            minTickGap={40}
          />
          <YAxis
            type="number"
            domain={[0, Math.ceil(top)]}
            tick={{ fontSize: 11, fill: "var(--second)" }}
            stroke="var(--line)"
          />
          <Tooltip
            isAnimationActive={false}
            content={({ payload }) => {
              const rows = (payload ?? []).filter((p) => typeof p.value === "number");
              const at = rows[0]?.payload as { t: number } | undefined;
              return rows.length && at ? (
                <div className="rounded-sm border border-line bg-salt px-2 py-1 shadow">
                  <b>{saySeconds(at.t)}</b>
                  {rows.map((p) => (
                    <div key={String(p.name)}>
                      {p.name} {sayQuantity(Math.round(Number(p.value) * 100) / 100)}
                    </div>
                  ))}
                </div>
              ) : null;
            }}
          />
          {lines.map((l) =>
            l.band ? (
              <Area
                key={`band${l.id}`}
                data={l.band}
                dataKey="band"
                name={`${l.name} band`}
                stroke="none"
                fill={l.colour}
                fillOpacity={0.15}
                isAnimationActive={false}
                tooltipType="none"
              />
            ) : null,
          )}
          {lines.map((l) => (
            <Line
              key={l.id}
              data={l.data}
              dataKey="y"
              name={l.name}
              stroke={l.colour}
              strokeWidth={2}
              strokeDasharray={l.dashes}
              dot={false}
              isAnimationActive={false}
              type="linear"
            />
          ))}
        </ComposedChart>
      </ResponsiveContainer>
    </figure>
  );
}

function thinned<T>(points: readonly T[]): readonly T[] {
  if (points.length <= POINTS) return points;
  const step = points.length / POINTS;
  return [...Array.from({ length: POINTS }, (_, k) => points[Math.floor(k * step)]), points[points.length - 1]];
}
