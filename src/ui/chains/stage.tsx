"use client";
/** The drawing of a chain: ribbons under things, walked by keyboard. */
import { type KeyboardEvent, type RefObject, useCallback, useEffect, useRef, useState } from "react";
import type { ChainNode } from "@/core/chains/chain";
import { type Direction, stepFrom } from "@/core/chains/folding";
import { HEIGHT, WIDTH } from "@/core/chains/layout";
import type { NodeWords } from "@/core/chains/written";
import { held } from "@/core/catalogue/inheritance";
import { type Node, isItem } from "@/core/process/node";
import { count } from "@/core/numbers/format";
import { Icon } from "../kit/jars";
import { Button, cx } from "../kit/kit";
import { useLive } from "../pantry/provider";
import type { Drawn } from "./use-layout";

const ARROWS: { readonly [key: string]: Direction } = {
  ArrowLeft: "left",
  ArrowRight: "right",
  ArrowUp: "up",
  ArrowDown: "down",
};

/** One step of zooming. */
const STEP = 1.2;
const [SMALLEST, LARGEST] = [0.3, 2];
/** A chain that does not fit at this size is shown at it, with its item in the middle. */
const LEGIBLE = 0.8;

/** How large the drawing is; a new chain is fitted to the room there is. Ctrl and the wheel zoom too. */
function useZoom(
  stage: RefObject<HTMLDivElement | null>,
  { width, height }: { readonly width: number; readonly height: number },
  of: Node,
) {
  const [zoom, set] = useState(1);
  const setZoom = useCallback((to: number) => set(Math.min(LARGEST, Math.max(SMALLEST, to))), []);
  const toFit = useCallback(
    (least = SMALLEST) => {
      const { current } = stage;
      if (!current) return;
      const [across, down] = [(current.clientWidth - 24) / width, (current.clientHeight - 24) / height];
      setZoom(Math.min(1, Math.max(least, Math.min(across, down))));
    },
    [stage, width, height, setZoom],
  );
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each chain and size
  useEffect(() => toFit(LEGIBLE), [of, toFit]);
  useEffect(() => {
    const { current } = stage;
    const turned = (e: WheelEvent) => {
      if (!e.ctrlKey && !e.metaKey) return;
      e.preventDefault();
      set((now) => Math.min(LARGEST, Math.max(SMALLEST, now * (e.deltaY < 0 ? STEP : 1 / STEP))));
    };
    current?.addEventListener("wheel", turned, { passive: false });
    return () => current?.removeEventListener("wheel", turned);
  }, [stage]);
  return { zoom, setZoom, toFit };
}

interface Props {
  readonly drawn: Drawn;
  readonly named: NodeWords;
  readonly picked: Node;
  readonly folded: ReadonlySet<Node>;
  readonly told: string;
  readonly onPick: (node: Node) => void;
  readonly onFollow: (node: Node) => void;
  readonly onFold: (node: Node) => void;
  readonly onOpen: (node: Node) => void;
  /** The n-th of its other ways. */
  readonly onWay: (thing: ChainNode, n: number) => void;
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
  const { zoom, setZoom, toFit } = useZoom(stage, layout, chain.item);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the item comes into sight once for each chain
  useEffect(() => {
    const box = layout.boxes.find((b) => b.node === chain.item);
    const { current } = stage;
    if (!box || !current) return;
    current.scrollTo({
      left: (box.x + WIDTH / 2) * zoom - current.clientWidth / 2,
      top: (box.y + HEIGHT / 2) * zoom - current.clientHeight / 2,
    });
  }, [chain.item, layout.width, zoom]);
  const pressed = (e: KeyboardEvent, thing: ChainNode) => {
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
    else if (e.key === "+" || e.key === "=") setZoom(zoom * STEP);
    else if (e.key === "-") setZoom(zoom / STEP);
    else if (e.key === "0") toFit();
    else if (e.key === "f") onFold(node);
    else if (e.key === "o") onOpen(node);
    else if (/^[1-9]$/.test(e.key)) onWay(thing, Number(e.key) - 1);
    else return;
    e.preventDefault();
  };
  return (
    <section aria-label="The chain" className="flex min-w-0 flex-1 flex-col bg-fog">
      <div ref={stage} className="flex min-h-0 flex-1 overflow-auto">
        <div className="relative m-auto shrink-0" style={{ width: layout.width * zoom, height: layout.height * zoom }}>
          <div
            className="absolute top-0 left-0 origin-top-left"
            style={{ width: layout.width, height: layout.height, transform: `scale(${zoom})` }}
          >
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
              const thing = things.get(node) as ChainNode;
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
                    <span className="truncate">{thing.kept ? "required" : named.amount(thing)}</span>
                    {folded.has(node) && <span className="text-copper">collapsed</span>}
                    {thing.others.length > 0 && (
                      <span className="whitespace-nowrap" title="Alternatives">
                        +{count(thing.others.length, "other")}
                      </span>
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
      </div>
      <p className="flex shrink-0 items-center gap-1 border-t border-line bg-salt px-3.5 py-1 text-[12px] text-second">
        <span className="min-w-0 flex-1">
          {told}. Arrow keys move, Enter shows the chain of an item. For more keys, press ?.
        </span>
        <Button look="quiet" className="h-6!" onClick={() => toFit()}>
          Fit
        </Button>
        <Button look="quiet" className="h-6! px-1.5!" aria-label="Zoom out" onClick={() => setZoom(zoom / STEP)}>
          −
        </Button>
        <span className="num w-10 text-center">{Math.round(zoom * 100)}%</span>
        <Button look="quiet" className="h-6! px-1.5!" aria-label="Zoom in" onClick={() => setZoom(zoom * STEP)}>
          +
        </Button>
      </p>
    </section>
  );
}
