/** Parts of a chain that are folded away, and walking from thing to thing. */
import type { Node } from "../process/node";
import type { Chain, Link } from "./chain";

/** What is behind a folded thing (or on from one, on the onward side) is left out, unless another way leads to it. */
export function foldedAway(chain: Chain, folded: ReadonlySet<Node>): Chain {
  if (!folded.size) return chain;
  const seen = new Set<Node>([chain.item]);
  const onward = new Set(chain.things.filter((t) => t.onward).map((t) => t.node));
  const behind = new Map<Node, Node[]>();
  for (const { from, to } of chain.links) {
    // From the item back to what it is made of, and on to what is made of it.
    const [near, far] = onward.has(to) ? [from, to] : [to, from];
    behind.set(near, [...(behind.get(near) ?? []), far]);
  }
  for (const node of seen) if (!folded.has(node)) for (const far of behind.get(node) ?? []) seen.add(far);
  return {
    ...chain,
    things: chain.things.filter((t) => seen.has(t.node)),
    links: chain.links.filter((l) => seen.has(l.from) && seen.has(l.to)),
    folded: chain.folded + chain.things.filter((t) => !seen.has(t.node)).length,
  };
}

export type Direction = "left" | "right" | "up" | "down";

/** The next thing that way: along the heaviest ribbon to the left and right, within the column up and down. */
export function stepFrom(chain: Chain, order: readonly Node[], from: Node, to: Direction): Node | null {
  if (to === "left" || to === "right") {
    const along = chain.links.filter((l) => (to === "left" ? l.to : l.from) === from);
    const [first] = along.sort((a, b) => weightOf(b) - weightOf(a));
    return first ? (to === "left" ? first.from : first.to) : null;
  }
  const column = chain.things.find((t) => t.node === from)?.column;
  const own = new Set(chain.things.filter((t) => t.column === column).map((t) => t.node));
  const nodes = order.filter((node) => own.has(node));
  return nodes[nodes.indexOf(from) + (to === "up" ? -1 : 1)] ?? null;
}
const weightOf = (l: Link): number => (l.share ?? 0) + (l.amount ?? 0) * 1e-9;
