/** A chain as a file: a picture (SVG), and as a graph for other programs (GraphML, DOT). */
import type { Node } from "../process/node";
import type { Chain, ChainNode } from "./chain";
import { HEIGHT, type Layout, WIDTH } from "./layout";

const escaped = (text: string): string =>
  text.replace(/\p{Cc}/gu, " ").replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

export interface NodeWords {
  readonly name: (node: Node) => string;
  /** "3.20", "1 min"; of one of it. */
  readonly cost: (thing: ChainNode) => string;
  /** "2 ×"; of it in one of the item. */
  readonly amount: (thing: ChainNode) => string;
}

const COLOURS = {
  ground: "#fcfcfa",
  line: "#c9d2d0",
  ink: "#0f2a30",
  second: "#4a5d60",
  ribbon: "#2a6a8f",
  kept: "#9aa8a8",
  back: "#a3154d",
  picked: "#0b6b52",
  missing: "#a3154d",
};
const short = (text: string, most: number): string => (text.length > most ? `${text.slice(0, most - 1)}…` : text);

/** By itself: no fonts, no styles and no pictures from outside. */
export function chainSvg(chain: Chain, { width, height, boxes, ribbons }: Layout, named: NodeWords): string {
  const things = new Map(chain.things.map((t) => [t.node, t]));
  const paths = ribbons.map(
    (r) =>
      `<path d="${r.path}" fill="none" stroke="${r.back ? COLOURS.back : r.kept ? COLOURS.kept : COLOURS.ribbon}" stroke-opacity="${r.kept || r.back ? 0.9 : 0.35}" stroke-width="${r.width}"${r.kept ? ' stroke-dasharray="4 4"' : ""}/>`,
  );
  const nodes = boxes.map(({ node, x, y }) => {
    const thing = things.get(node) as ChainNode;
    const line = thing.cost === null ? COLOURS.missing : node === chain.item ? COLOURS.picked : COLOURS.line;
    return `<g><rect x="${x}" y="${y}" width="${WIDTH}" height="${HEIGHT}" rx="3" fill="${COLOURS.ground}" stroke="${line}" stroke-width="${node === chain.item ? 2.5 : 1}"/><text x="${x + 10}" y="${y + 19}" font-weight="600" fill="${COLOURS.ink}">${escaped(short(named.name(node), 22))}</text><text x="${x + 10}" y="${y + 36}" font-size="12" fill="${COLOURS.second}">${escaped(short([named.amount(thing), named.cost(thing)].filter(Boolean).join("  "), 26))}</text></g>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" font-family="sans-serif" font-size="13"><rect width="${width}" height="${height}" fill="#e9eeec"/>${paths.join("")}${nodes.join("")}</svg>\n`;
}

/** GraphML 1.0 with names, columns, amounts and costs. */
export function chainGraphml(chain: Chain, named: NodeWords): string {
  const key = (id: string, of: string, type: string) =>
    `<key id="${id}" for="${of}" attr.name="${id}" attr.type="${type}"/>`;
  const data = (id: string, value: string | number | boolean | null) =>
    value === null ? "" : `<data key="${id}">${escaped(String(value))}</data>`;
  return `<?xml version="1.0" encoding="UTF-8"?>
<graphml xmlns="http://graphml.graphdrawing.org/xmlns">
${[key("name", "node", "string"), key("column", "node", "int"), key("amount", "node", "double"), key("cost", "node", "double"), key("way", "node", "string"), key("units", "edge", "double"), key("share", "edge", "double"), key("loop", "edge", "boolean")].join("\n")}
<graph id="chain" edgedefault="directed">
${chain.things.map((t) => `<node id="${escaped(t.node)}">${data("name", named.name(t.node))}${data("column", t.column)}${data("amount", t.amount)}${data("cost", t.cost)}${data("way", t.way?.name ?? null)}</node>`).join("\n")}
${chain.links.map((l) => `<edge source="${escaped(l.from)}" target="${escaped(l.to)}">${data("units", l.amount)}${data("share", l.share)}${data("loop", l.back)}</edge>`).join("\n")}
</graph>
</graphml>
`;
}

/** DOT, as Graphviz reads it. */
export function chainDot(chain: Chain, named: NodeWords): string {
  const quoted = (text: string): string => `"${text.replace(/[\\"]/g, "\\$&").replace(/[\r\n]+/g, " ")}"`;
  return `digraph chain {
  rankdir=LR;
  node [shape=box];
${chain.things.map((t) => `  ${quoted(t.node)} [label=${quoted(named.name(t.node))}];`).join("\n")}
${chain.links.map((l) => `  ${quoted(l.from)} -> ${quoted(l.to)}${l.amount === null ? "" : ` [label=${quoted(String(Number(l.amount.toPrecision(6))))}${l.amount === 0 ? ", style=dashed" : ""}]`};`).join("\n")}
}
`;
}
