"use client";
/** A loop drawn as a ring: its recipes in order with their whole multiplicities, the net per round in the middle. */
import type { Evidence } from "@/core/checks/check";
import { sayQuantity } from "@/core/numbers/format";
import { saySeconds } from "@/core/numbers/ticks";

type Loop = Extract<Evidence, { type: "loop" }>;

const CARD = { w: 216, h: 66 };
/** More cards than these would cover each other; a longer loop is a list. */
export const MOST_ON_A_RING = 6;

export function Ring({
  loop,
  runs,
  onOpen,
}: {
  loop: Loop;
  runs: readonly (Loop["runs"][number] & { readonly line: string })[];
  onOpen: (of: Loop["runs"][number]["of"]) => void;
}) {
  const n = loop.runs.length;
  const width = n < 5 ? 640 : 700;
  const height = n === 1 ? 190 : n === 2 ? 210 : n === 3 ? 300 : n < 5 ? 380 : 440;
  const [cx, cy] = [width / 2, height / 2];
  const [rx, ry] = [width / 2 - CARD.w / 2 - 6, height / 2 - CARD.h / 2 - 6];
  const at = (turn: number) => ({ x: cx + rx * Math.cos(turn), y: cy + ry * Math.sin(turn) });
  const start = n === 2 ? Math.PI : -Math.PI / 2;
  const turns = loop.runs.map((_, i) => start + (i * 2 * Math.PI) / n);
  const gap = n === 1 ? 0.5 : n === 2 ? 0.62 : n === 3 ? 0.5 : n < 5 ? 0.32 : 0.28;
  return (
    <figure
      aria-label={`Loop: ${loop.runs.map((r) => `${r.of.name} ${r.times} times`).join(", then ")}`}
      className="relative mx-auto"
      style={{ width, height }}
    >
      <svg aria-hidden width={width} height={height} className="absolute inset-0">
        <defs>
          <marker id="tip" viewBox="0 0 10 10" refX="6" refY="5" markerWidth="4.5" markerHeight="4.5" orient="auto">
            <path d="M0 0 10 5 0 10z" fill="#2c6e8f" />
          </marker>
        </defs>
        <ellipse cx={cx} cy={cy} rx={rx} ry={ry} fill="none" stroke="var(--line)" strokeWidth="10" />
        {turns.map((turn) => {
          const [from, to] = [at(turn + gap), at(turn + (2 * Math.PI) / n - gap * (n === 1 ? 1 : 1.05))];
          const large = (2 * Math.PI) / n - 2 * gap > Math.PI ? 1 : 0;
          return (
            <path
              key={turn}
              d={`M${from.x} ${from.y} A${rx} ${ry} 0 ${large} 1 ${to.x} ${to.y}`}
              fill="none"
              stroke="#2c6e8f"
              strokeWidth="4.5"
              markerEnd="url(#tip)"
            />
          );
        })}
      </svg>
      <div
        className="absolute text-center"
        style={{ left: cx - 100, width: 200, top: n === 1 ? height - 76 : cy - 36 }}
      >
        <Net loop={loop} />
      </div>
      {runs.map((run, i) => {
        const p = at(turns[i]);
        // The line below says what is bought; a name needs the room.
        const does = run.of.kind === "item" ? `Sell ${run.of.name}` : run.of.name;
        return (
          <button
            key={run.of.kind + run.of.id}
            type="button"
            onClick={() => onOpen(run.of)}
            title={`${does}: ${run.line.replace(/^[^:]*: /, "")}`}
            className="absolute overflow-hidden rounded-sm border-2 border-ink bg-salt px-2.5 py-1 text-left hover:border-kelp"
            style={{ width: CARD.w, height: CARD.h, left: p.x - CARD.w / 2, top: p.y - CARD.h / 2 }}
          >
            <span className="flex justify-between gap-2">
              <span className="title truncate">{does}</span>
              <span className="ink-worked shrink-0">{run.times === "1" ? "once" : `${run.times} times`}</span>
            </span>
            <span className="line-clamp-2 text-[12px] leading-4 text-second">{run.line.replace(/^[^:]*: /, "")}</span>
          </button>
        );
      })}
    </figure>
  );
}

/** What one round leaves, and how long it takes. */
export function Net({ loop }: { loop: Loop }) {
  return (
    <>
      <p className="text-second">net per round</p>
      {loop.net.slice(0, 3).map((net) => (
        <p key={net.of.id} className="title text-[19px] leading-6 text-beet">
          +{net.amount.includes("/") ? sayQuantity(net.value) : net.amount} {net.of.name}
          {net.amount.includes("/") && (
            <span className="block text-[12px] font-normal text-second">exactly {net.amount}</span>
          )}
        </p>
      ))}
      {loop.seconds > 0 && <p className="text-second">in {saySeconds(loop.seconds)}</p>}
    </>
  );
}
