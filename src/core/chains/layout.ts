/** Where everything of a chain stands: columns from left to right, ribbons as wide as what they carry. */
import { Graph, layout as place } from "@dagrejs/dagre";
import type { Node } from "../network/node";
import type { Chain, Link } from "./chain";

export const WIDTH = 176;
export const HEIGHT = 46;
/** Between columns, and between things of one column. */
const [BETWEEN, APART] = [104, 14];
const MARGIN = 16;
const [THINNEST, WIDEST] = [1.5, 26];

export type Weighing = "cost" | "amount" | "even";

export interface Box {
  readonly node: Node;
  readonly x: number;
  readonly y: number;
  readonly column: number;
}
export interface Ribbon {
  readonly from: Node;
  readonly to: Node;
  /** Middle line, as a path. */
  readonly path: string;
  readonly width: number;
  readonly kept: boolean;
  readonly back: boolean;
}
export interface Layout {
  readonly width: number;
  readonly height: number;
  readonly boxes: readonly Box[];
  readonly ribbons: readonly Ribbon[];
}

/** Nothing overlaps: each thing in its column, in an order in which few ribbons cross (layered drawing by dagre). */
export function layoutOf(chain: Chain, weighing: Weighing): Layout {
  const graph = new Graph({ multigraph: true });
  graph.setGraph({
    rankdir: "LR",
    nodesep: APART,
    ranksep: BETWEEN,
    marginx: MARGIN,
    marginy: MARGIN,
    ranker: "network-simplex",
  });
  graph.setDefaultEdgeLabel(() => ({}));
  const column = new Map(chain.things.map((t) => [t.node, t.column]));
  for (const t of chain.things) graph.setNode(t.node, { width: WIDTH, height: HEIGHT });
  const carried = chain.links.map((l) => weigh(l, weighing));
  const most = Math.max(1e-12, ...carried);
  for (const { from, to, back } of chain.links) {
    const minlen = (column.get(to) ?? 0) - (column.get(from) ?? 0);
    if (!back && minlen > 0) graph.setEdge(from, to, { minlen, weight: 1 });
  }
  place(graph);
  const y = new Map(chain.things.map((t) => [t.node, (graph.node(t.node) as unknown as { y: number }).y]));
  const rows = new Map<number, Node[]>();
  for (const t of chain.things) rows.set(t.column, [...(rows.get(t.column) ?? []), t.node]);
  // The columns are those of the chain; within one, the order and about the height that was found.
  for (const nodes of rows.values()) {
    nodes.sort((a, b) => (y.get(a) as number) - (y.get(b) as number) || (a < b ? -1 : 1));
    let least = Number.NEGATIVE_INFINITY;
    for (const node of nodes) {
      const at = Math.max(y.get(node) as number, least);
      y.set(node, at);
      least = at + HEIGHT + APART;
    }
  }
  const boxes = chain.things.map((t) => ({
    node: t.node,
    column: t.column,
    x: MARGIN + t.column * (WIDTH + BETWEEN),
    y: Math.round((y.get(t.node) as number) - HEIGHT / 2),
  }));
  const at = new Map(boxes.map((b) => [b.node, b]));
  const widths = carried.map((c) => THINNEST + (WIDEST - THINNEST) * (c / most));
  const ports = portsOf(chain.links, widths, at);
  const bottom = Math.max(0, ...boxes.map((b) => b.y + HEIGHT));
  let deepest = bottom;
  const ribbons = chain.links.map((l, k): Ribbon => {
    const [a, b] = [at.get(l.from) as Box, at.get(l.to) as Box];
    const [y1, y2] = [ports.from[k], ports.to[k]];
    const [x1, x2] = [a.x + WIDTH, b.x];
    const width = Number(widths[k].toFixed(2));
    const of = { from: l.from, to: l.to, width, kept: l.amount === 0, back: l.back };
    if (!l.back) {
      const bend = Math.max(30, (x2 - x1) / 2);
      return { ...of, path: `M${x1} ${y1}C${x1 + bend} ${y1} ${x2 - bend} ${y2} ${x2} ${y2}` };
    }
    const low = bottom + 22 + 14 * (k % 6);
    deepest = Math.max(deepest, low + 8);
    return {
      ...of,
      path: `M${x1} ${y1}C${x1 + 60} ${y1} ${x1 + 60} ${low} ${x1} ${low}L${x2} ${low}C${x2 - 60} ${low} ${x2 - 60} ${y2} ${x2} ${y2}`,
    };
  });
  return {
    width: Math.max(0, ...boxes.map((b) => b.x + WIDTH)) + MARGIN,
    height: deepest + MARGIN,
    boxes,
    ribbons,
  };
}

const weigh = (l: Link, weighing: Weighing): number =>
  weighing === "even" ? 0.15 : ((weighing === "cost" ? l.share : l.amount) ?? 0);

/** Where each ribbon leaves and comes in: beside each other in the order of where they go, not on top of each other. */
function portsOf(links: readonly Link[], widths: readonly number[], at: ReadonlyMap<Node, Box>) {
  const from = new Array<number>(links.length).fill(0);
  const to = new Array<number>(links.length).fill(0);
  const spread = (side: "from" | "to", out: number[]) => {
    const other = side === "from" ? "to" : "from";
    const by = new Map<Node, number[]>();
    for (const [k, l] of links.entries()) by.set(l[side], [...(by.get(l[side]) ?? []), k]);
    for (const [node, all] of by) {
      const box = at.get(node) as Box;
      all.sort((a, b) => (at.get(links[a][other]) as Box).y - (at.get(links[b][other]) as Box).y || a - b);
      const whole = all.reduce((sum, k) => sum + widths[k], 0);
      const room = HEIGHT - 6;
      // More than fits is pressed together.
      const squeeze = Math.min(1, room / Math.max(1e-9, whole));
      let y = box.y + HEIGHT / 2 - (whole * squeeze) / 2;
      for (const k of all) {
        out[k] = Number((y + (widths[k] * squeeze) / 2).toFixed(2));
        y += widths[k] * squeeze;
      }
    }
  };
  spread("from", from);
  spread("to", to);
  return { from, to };
}
