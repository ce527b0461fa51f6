/** Where everything of a chain stands: columns from left to right, ribbons as wide as what they carry. */
import type { Node } from "../process/node";
import type { Chain, Link } from "./chain";

export const WIDTH = 164;
export const HEIGHT = 46;
/** Between columns, and between things of one column. */
const [BETWEEN, APART] = [76, 14];
const MARGIN = 16;
const [THINNEST, WIDEST] = [1.5, 26];

export type Weighing = "cost" | "amount" | "even";

export interface Rectangle {
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
  readonly boxes: readonly Rectangle[];
  readonly ribbons: readonly Ribbon[];
}

/**
 * Nothing overlaps: each thing in its column, in an order in which few ribbons cross (barycentres: Sugiyama, Tagawa and
 * Toda 1981). Linear in the ribbons.
 */
export function layoutOf(chain: Chain, weighing: Weighing): Layout {
  const carried = chain.links.map((l) => weigh(l, weighing));
  const most = Math.max(1e-12, ...carried);
  const columns = new Map<number, Node[]>();
  for (const t of chain.things) columns.set(t.column, [...(columns.get(t.column) ?? []), t.node]);
  const y = heights(
    [...columns].sort(([a], [b]) => a - b).map(([, nodes]) => nodes),
    chain.links,
    carried,
  );
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
    const [a, b] = [at.get(l.from) as Rectangle, at.get(l.to) as Rectangle];
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

/** Sweeps to and fro: in the first, things change places; in all, they come to where their ribbons are about level. */
const [SORTING, SWEEPS] = [24, 40];

function heights(columns: readonly Node[][], links: readonly Link[], carried: readonly number[]): Map<Node, number> {
  const step = HEIGHT + APART;
  const y = new Map<Node, number>();
  for (const nodes of columns)
    for (const [k, node] of nodes.entries()) y.set(node, (k - (nodes.length - 1) / 2) * step);
  const near = new Map<Node, { readonly to: Node; readonly by: number }[]>(columns.flat().map((node) => [node, []]));
  const most = Math.max(1e-12, ...carried);
  for (const [k, { from, to, back }] of links.entries()) {
    if (back) continue;
    // A little for every ribbon, so that thin ones do not go anywhere.
    const by = 0.1 + carried[k] / most;
    near.get(from)?.push({ to, by });
    near.get(to)?.push({ to: from, by });
  }
  const wantedOf = (node: Node): number => {
    const all = near.get(node) ?? [];
    const whole = all.reduce((sum, n) => sum + n.by, 0);
    if (!whole) return y.get(node) as number;
    return all.reduce((sum, n) => sum + n.by * (y.get(n.to) as number), 0) / whole;
  };
  for (let sweep = 0; sweep < SWEEPS; sweep++)
    for (const nodes of sweep % 2 ? columns : [...columns].reverse()) {
      const wanted = new Map(nodes.map((node) => [node, wantedOf(node)]));
      const at = (node: Node) => wanted.get(node) as number;
      if (sweep < SORTING) nodes.sort((a, b) => at(a) - at(b));
      for (const [k, height] of inOrder(nodes.map(at), step).entries()) y.set(nodes[k], height);
    }
  const top = Math.min(...y.values());
  for (const [node, at] of y) y.set(node, at - top + MARGIN + HEIGHT / 2);
  return y;
}

/** The numbers nearest to those wanted that grow by a step at least (isotonic regression, pooling adjacent violators). */
function inOrder(wanted: readonly number[], step: number): number[] {
  const pools: { sum: number; n: number }[] = [];
  for (const [k, at] of wanted.entries()) {
    let pool = { sum: at - k * step, n: 1 };
    for (
      let last = pools[pools.length - 1];
      last && last.sum / last.n > pool.sum / pool.n;
      last = pools[pools.length - 1]
    ) {
      pools.pop();
      pool = { sum: pool.sum + last.sum, n: pool.n + last.n };
    }
    pools.push(pool);
  }
  return pools.flatMap(({ sum, n }) => Array.from({ length: n }, () => sum / n)).map((at, k) => at + k * step);
}

const weigh = (l: Link, weighing: Weighing): number =>
  weighing === "even" ? 0.15 : ((weighing === "cost" ? l.share : l.amount) ?? 0);

/** Where each ribbon leaves and comes in: beside each other in the order of where they go, not on top of each other. */
function portsOf(links: readonly Link[], widths: readonly number[], at: ReadonlyMap<Node, Rectangle>) {
  const from = new Array<number>(links.length).fill(0);
  const to = new Array<number>(links.length).fill(0);
  const spread = (side: "from" | "to", out: number[]) => {
    const other = side === "from" ? "to" : "from";
    const by = new Map<Node, number[]>();
    for (const [k, l] of links.entries()) by.set(l[side], [...(by.get(l[side]) ?? []), k]);
    for (const [node, all] of by) {
      const box = at.get(node) as Rectangle;
      all.sort((a, b) => (at.get(links[a][other]) as Rectangle).y - (at.get(links[b][other]) as Rectangle).y || a - b);
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
