"use client";
/** Uses, cooldowns, stats and conditions of a tasting over time. */
import { type KeyboardEvent, type ReactNode, useRef } from "react";
import { readyIn, usesOf } from "@/core/catalogue/uses";
import { sayQuantity } from "@/core/numbers/format";
import { formatTicks } from "@/core/numbers/ticks";
import type { Id } from "@/core/schema/id";
import type { Planned } from "@/core/trials/play";
import type { Report } from "@/core/trials/tasting";
import { cx } from "../kit/kit";
import { useLive } from "../pantry/provider";

/** Uses as marks, cooldowns as gaps before the next, conditions as bars, under the same seconds as the curves. */
export function Timeline({
  report,
  plans,
  onAt,
}: {
  readonly report: Report;
  readonly plans: readonly (Planned | { readonly message: string })[];
  readonly onAt: (row: number, times: readonly number[]) => void;
}) {
  const { catalogue } = useLive();
  const tps = catalogue.pantry.ticksPerSecond;
  const left = (tick: number) => `${(100 * Math.min(tick, report.ticks)) / report.ticks}%`;
  const conditions = [...new Set(report.bars.map((b) => b.condition))];
  return (
    <div className="space-y-1 pl-[42px] pr-2.5">
      {plans.map((plan, k) => {
        if ("message" in plan) return null;
        const item = catalogue.records.item.get(plan.item);
        const times = plan.rule.is === "at" ? plan.rule.ticks : null;
        const held = item ? usesOf(catalogue, item).find((u) => plan.use === null || u.use.id === plan.use) : undefined;
        // Each use has its own marks, also where several are of one item.
        const mine = report.moments.filter((m) => m.item === plan.item && m.use === held?.chain.at(-1)?.id);
        const wait = held ? readyIn(catalogue, held) + held.windup : 0;
        return (
          <Track
            key={k}
            label={item?.name ?? ""}
            onAdd={
              times
                ? (share) =>
                    onAt(
                      k,
                      [...times, Math.round((share * report.ticks) / tps) * tps].sort((a, b) => a - b),
                    )
                : undefined
            }
          >
            {mine.slice(0, 400).flatMap((m) =>
              m.refused || wait === 0
                ? []
                : [
                    <span
                      key={`wait${m.tick}`}
                      aria-hidden
                      title={`on cooldown until ${formatTicks(m.tick + wait, tps)}`}
                      className="pointer-events-none absolute top-1.5 h-1 bg-line"
                      style={{
                        left: left(m.tick),
                        width: `${(100 * Math.min(wait, report.ticks - m.tick)) / report.ticks}%`,
                      }}
                    />,
                  ],
            )}
            {times
              ? times.map((tick, n) => (
                  <Mark
                    key={n}
                    tick={tick}
                    left={left(tick)}
                    refused={mine.find((m) => m.tick === tick)?.refused ?? null}
                    label={`${item?.name} at ${formatTicks(tick, tps)}`}
                    onMove={(by) =>
                      onAt(
                        k,
                        times.map((t, i) => (i === n ? Math.max(0, t + by * tps) : t)),
                      )
                    }
                    onShare={(share) =>
                      onAt(
                        k,
                        times.map((t, i) => (i === n ? Math.round((share * report.ticks) / tps) * tps : t)),
                      )
                    }
                    onGone={() =>
                      onAt(
                        k,
                        times.filter((_, i) => i !== n),
                      )
                    }
                  />
                ))
              : mine
                  .slice(0, 400)
                  .map((m) => (
                    <span
                      key={`${m.tick}${m.refused}`}
                      title={`${formatTicks(m.tick, tps)}: ${m.refused ?? "used"}`}
                      className={cx("absolute top-0 h-full w-0.5", m.refused ? "bg-beet" : "bg-kelp")}
                      style={{ left: left(m.tick) }}
                    />
                  ))}
          </Track>
        );
      })}
      {report.stats.map(({ stat, curve }) => (
        <StatTrack key={stat} report={report} stat={stat} curve={curve} />
      ))}
      {conditions.map((id) => {
        const condition = catalogue.records.condition.get(id);
        return (
          <Track key={id} label={condition?.name ?? ""}>
            {report.bars
              .filter((b) => b.condition === id && b.from < report.ticks)
              .slice(0, 400)
              .map((b) => (
                <span
                  key={`${b.from}${b.to}`}
                  title={`${formatTicks(b.from, tps)} to ${formatTicks(Math.min(b.to, report.ticks), tps)}${b.layers > 1 ? `, ${b.layers} layers` : ""}`}
                  className={cx(
                    "absolute top-0.5 h-[calc(100%-4px)] rounded-sm",
                    condition?.nature === "bad" ? "bg-beet" : condition?.nature === "good" ? "bg-kelp" : "bg-third",
                  )}
                  style={{
                    left: left(b.from),
                    width: `calc(${(100 * (Math.min(b.to, report.ticks) - b.from)) / report.ticks}% - 1px)`,
                    opacity: Math.min(1, 0.45 + 0.2 * b.layers),
                  }}
                />
              ))}
          </Track>
        );
      })}
    </div>
  );
}

/** A stat as steps between its least and most, with both written. */
function StatTrack({
  report,
  stat,
  curve,
}: {
  readonly report: Report;
  readonly stat: Id;
  readonly curve: Report["stats"][number]["curve"];
}) {
  const { catalogue } = useLive();
  const [low, high] = [Math.min(...curve.values), Math.max(...curve.values)];
  const y = (v: number) => 15 - (13 * (v - low)) / (high - low || 1);
  const points = curve.ticks.slice(0, 2000).flatMap((tick, k) => {
    const x = (1000 * Math.min(tick, report.ticks)) / report.ticks;
    return [...(k > 0 ? [`${x},${y(curve.values[k - 1])}`] : []), `${x},${y(curve.values[k])}`];
  });
  points.push(`1000,${y(curve.values[curve.values.length - 1])}`);
  const round = (v: number) => sayQuantity(Math.round(v * 100) / 100);
  return (
    <Track label={`${catalogue.records.stat.get(stat)?.name}, ${round(low)} to ${round(high)}`}>
      <svg viewBox="0 0 1000 17" preserveAspectRatio="none" className="absolute inset-0 size-full" aria-hidden>
        <polyline
          points={points.join(" ")}
          fill="none"
          stroke="var(--second)"
          strokeWidth={1.5}
          vectorEffect="non-scaling-stroke"
        />
      </svg>
    </Track>
  );
}

function Track({
  label,
  children,
  onAdd,
}: {
  readonly label: string;
  readonly children: ReactNode;
  readonly onAdd?: (share: number) => void;
}) {
  return (
    <div>
      <span className="block text-[11px] leading-4 text-second">
        {label}
        {onAdd && ": click to add a use, drag or use arrow keys to move one, Delete to remove it"}
      </span>
      {/** biome-ignore lint/a11y/noStaticElementInteractions: by keyboard times are typed in the plan */}
      {/** biome-ignore lint/a11y/useKeyWithClickEvents: by keyboard times are typed in the plan */}
      <div
        className={cx("relative h-4 rounded-sm bg-shade", onAdd && "cursor-copy")}
        onClick={(e) => {
          if (!onAdd || e.target !== e.currentTarget) return;
          const { left, width } = e.currentTarget.getBoundingClientRect();
          onAdd((e.clientX - left) / width);
        }}
      >
        {children}
      </div>
    </div>
  );
}

/** One use at its time; moved by drag or by the arrow keys. */
function Mark({
  tick,
  left,
  refused,
  label,
  onMove,
  onShare,
  onGone,
}: {
  readonly tick: number;
  readonly left: string;
  readonly refused: string | null;
  readonly label: string;
  /** How far from where it was drawn. */
  readonly onMove: (seconds: number) => void;
  readonly onShare: (share: number) => void;
  readonly onGone: () => void;
}) {
  /** Seconds it was moved by since it was drawn: keys may come quicker than drawings. */
  const moved = useRef({ from: tick, by: 0 });
  if (moved.current.from !== tick) moved.current = { from: tick, by: 0 };
  const press = (e: KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowRight: 1 }[e.key as "ArrowLeft"];
    if (by) {
      moved.current.by += by * (e.shiftKey ? 10 : 1);
      onMove(moved.current.by);
    } else if (e.key === "Delete" || e.key === "Backspace") onGone();
    else return;
    e.preventDefault();
  };
  return (
    <button
      type="button"
      aria-label={refused ? `${label}, refused: ${refused}` : label}
      title={refused ? `${label}: ${refused}` : label}
      className={cx(
        "absolute top-0 h-full w-2 -translate-x-1 cursor-ew-resize rounded-sm",
        refused ? "bg-beet" : "bg-kelp",
      )}
      style={{ left }}
      onKeyDown={press}
      onPointerDown={(e) => e.currentTarget.setPointerCapture(e.pointerId)}
      onPointerUp={(e) => {
        const track = e.currentTarget.parentElement?.getBoundingClientRect();
        if (!track || !e.currentTarget.hasPointerCapture(e.pointerId)) return;
        const share = Math.min(1, Math.max(0, (e.clientX - track.left) / track.width));
        if (Math.abs(e.clientX - e.currentTarget.getBoundingClientRect().left) > 6) onShare(share);
      }}
    />
  );
}
