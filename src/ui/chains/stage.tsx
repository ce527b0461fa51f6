"use client";
/** The drawing of a chain: ribbons under things, walked by keyboard. */
import { type KeyboardEvent, useEffect, useRef } from "react";
import type { Thing } from "@/core/chains/chain";
import { type Direction, stepFrom } from "@/core/chains/folding";
import { HEIGHT, WIDTH } from "@/core/chains/layout";
import type { Named } from "@/core/chains/written";
import { held } from "@/core/catalogue/inheritance";
import { type Node, isItem } from "@/core/process/node";
import { count } from "@/core/numbers/format";
import { cx, Icon } from "../kit/kit";
import { useLive } from "../pantry/provider";
import type { Drawn } from "./use-layout";

const ARROWS: { readonly [key: string]: Direction } = {
  ArrowLeft: "left",
  ArrowRight: "right",
  ArrowUp: "up",
  ArrowDown: "down",
};

interface Props {
  readonly drawn: Drawn;
  readonly named: Named;
  readonly picked: Node;
  readonly folded: ReadonlySet<Node>;
  readonly told: string;
  readonly onPick: (node: Node) => void;
  readonly onFollow: (node: Node) => void;
  readonly onFold: (node: Node) => void;
  readonly onOpen: (node: Node) => void;
  /** The n-th of its other ways. */
  readonly onWay: (thing: Thing, n: number) => void;
}

export function Stage({ drawn, named, picked, folded, told, onPick, onFollow, onFold, onOpen, onWay }: Props) {
  const { chain, layout } = drawn;
  const { catalogue } = useLive();
  const stage = useRef<HTMLDivElement>(null);
  const things = new Map(chain.things.map((t) => [t.node, t]));
  const order = layout.boxes
    .map((b) => b)
    .sort((a, b) => a.y - b.y)
    .map((b) => b.node);
  const focus = (node: Node) => stage.current?.querySelector<HTMLElement>(`[data-node="${node}"]`)?.focus();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the item comes into sight once for each chain
  useEffect(() => {
    const box = layout.boxes.find((b) => b.node === chain.item);
    const { current } = stage;
    if (!box || !current) return;
    current.scrollTo({
      left: Math.max(
        0,
        box.x + WIDTH + 24 - current.clientWidth + (layout.width > current.clientWidth ? WIDTH + 100 : 0),
      ),
      top: Math.max(0, box.y - current.clientHeight / 2),
    });
  }, [chain.item, layout.width]);
  const pressed = (e: KeyboardEvent, thing: Thing) => {
    const { node } = thing;
    const direction = ARROWS[e.key];
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    if (direction) {
      const next = stepFrom(chain, order, node, direction);
      if (next) {
        onPick(next);
        focus(next);
      }
    } else if (e.key === "Home") {
      onPick(chain.item);
      focus(chain.item);
    } else if (e.key === "Enter") onFollow(node);
    else if (e.key === "f") onFold(node);
    else if (e.key === "o") onOpen(node);
    else if (/^[1-9]$/.test(e.key)) onWay(thing, Number(e.key) - 1);
    else return;
    e.preventDefault();
  };
  return (
    <section aria-label="The chain" className="flex min-w-0 flex-1 flex-col bg-fog">
      <div ref={stage} className="flex min-h-0 flex-1 overflow-auto">
        <div className="relative m-auto shrink-0" style={{ width: layout.width, height: layout.height }}>
          <svg aria-hidden width={layout.width} height={layout.height} className="absolute inset-0">
            {layout.ribbons.map((r) => {
              const near = r.from === picked || r.to === picked;
              return (
                <path
                  key={`${r.from} ${r.to} ${r.path}`}
                  d={r.path}
                  fill="none"
                  stroke={r.back ? "var(--beet)" : r.kept ? "var(--third)" : near ? "var(--kelp)" : "var(--chain)"}
                  strokeOpacity={r.back || r.kept ? 0.8 : near ? 0.6 : 0.28}
                  strokeWidth={r.width}
                  strokeDasharray={r.kept ? "4 4" : undefined}
                />
              );
            })}
          </svg>
          {layout.boxes.map(({ node, x, y }) => {
            const thing = things.get(node) as Thing;
            const item = isItem(node) ? catalogue.records.item.get(node) : undefined;
            const colour = (item?.type && catalogue.records.type.get(item.type)?.colour) || "var(--third)";
            return (
              <button
                key={node}
                type="button"
                data-node={node}
                tabIndex={node === picked ? 0 : -1}
                aria-pressed={node === picked}
                onClick={() => onPick(node)}
                onDoubleClick={() => onFollow(node)}
                onKeyDown={(e) => pressed(e, thing)}
                className={cx(
                  "absolute flex flex-col justify-center gap-0.5 rounded-sm border border-l-4 bg-salt px-2 text-left",
                  node === chain.item ? "border-ink" : thing.cost === null ? "border-beet" : "border-line",
                  node === picked && "bg-pick!",
                  thing.kept && "border-dashed",
                )}
                style={{ left: x, top: y, width: WIDTH, height: HEIGHT, borderLeftColor: colour }}
              >
                <span className="flex w-full items-center gap-1.5">
                  {item && (
                    <span style={{ color: colour }} className="inline-flex shrink-0">
                      <Icon name={held(catalogue, item, "icon").value} size={14} />
                    </span>
                  )}
                  <span className={cx("truncate font-semibold", item?.status === "stub" && "text-beet italic")}>
                    {named.name(node)}
                  </span>
                </span>
                <span className="flex w-full items-baseline gap-1.5 text-[12px] text-second">
                  <span className="truncate">{thing.kept ? "required, not used up" : named.amount(thing)}</span>
                  {folded.has(node) && <span className="text-copper">collapsed</span>}
                  {thing.others.length > 0 && (
                    <span className="whitespace-nowrap">+{count(thing.others.length, "way")}</span>
                  )}
                  <span className={cx("ml-auto whitespace-nowrap", thing.cost === null ? "text-beet" : "ink-worked")}>
                    {named.cost(thing)}
                  </span>
                </span>
              </button>
            );
          })}
        </div>
      </div>
      <p className="shrink-0 border-t border-line bg-salt px-3.5 py-1 text-[12px] text-second">
        {told}. Arrows walk, Enter follows, 1 to 9 switch the way, F collapses, O opens the sheet, Home returns to the
        item.
      </p>
    </section>
  );
}
