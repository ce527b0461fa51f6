/** Recipes that undo each other exactly: what they turn into each other counts as one thing in the search for loops. */
import { add, divide, type Fraction, multiply, negate, ONE, sign, subtract, ZERO } from "../numbers/fraction";

/** A process that turns one thing into one other, with exact amounts. */
export interface Turn {
  readonly process: number;
  readonly from: number;
  readonly to: number;
  readonly takes: Fraction;
  readonly gives: Fraction;
}

interface Link {
  readonly parent: number;
  /** The processes that turn it into its parent, and back. */
  readonly up: Turn;
  readonly down: Turn;
}

/**
 * Pairs of turns that lose nothing either way tie things together: a block is nine bars, a bar nine nuggets. Hundreds
 * of such
 * pairs would each be a loop that comes out even, and hide what gains; so each set of things tied together is one
 * thing, of
 * which each is a fixed multiple (a spanning tree of pairs; further pairs must agree with it, else they are left as
 * they are).
 */
export class Conversions {
  private readonly links = new Map<number, Link>();
  /** Things that others count as; kept when a tree is turned round, for they stay tied. */
  private readonly parents = new Set<number>();
  /** Thing → the one it counts as, and how many of that one of it is. */
  private readonly roots = new Map<number, { root: number; factor: Fraction }>();
  /** Processes that are done with: the pairs that come out even. */
  readonly pairs: (readonly [Turn, Turn])[] = [];
  readonly dropped = new Set<number>();

  constructor(turns: readonly Turn[]) {
    const byEnds = new Map<string, Turn[]>();
    for (const turn of turns) {
      const key = `${turn.from}>${turn.to}`;
      byEnds.set(key, [...(byEnds.get(key) ?? []), turn]);
    }
    for (const turn of turns) {
      if (turn.from > turn.to || this.dropped.has(turn.process)) continue;
      const back = (byEnds.get(`${turn.to}>${turn.from}`) ?? []).find(
        (b) =>
          !this.dropped.has(b.process) &&
          sign(subtract(multiply(turn.gives, b.gives), multiply(turn.takes, b.takes))) === 0,
      );
      if (back) this.tie(turn, back);
    }
  }

  /** `turn` leads from one thing to another, `back` the other way. */
  private tie(turn: Turn, back: Turn): void {
    const [a, b] = [this.root(turn.from), this.root(turn.to)];
    // One of `to` is worth takes ÷ gives of `from`.
    const worth = divide(turn.takes, turn.gives);
    if (a.root === b.root) {
      if (sign(subtract(b.factor, multiply(worth, a.factor))) !== 0) return;
    } else {
      // Everything tied to `to` is tied to the root of `from`, by the way of this pair: its tree is turned round to
      // hang here.
      this.hang(turn.to, { parent: turn.from, up: back, down: turn });
      const scale = divide(multiply(worth, a.factor), b.factor);
      for (const [thing, at] of this.roots)
        if (at.root === b.root) this.roots.set(thing, { root: a.root, factor: multiply(at.factor, scale) });
    }
    this.pairs.push([turn, back]);
    this.dropped.add(turn.process).add(back.process);
  }

  private hang(thing: number, link: Link): void {
    const before = this.links.get(thing);
    this.links.set(thing, link);
    this.parents.add(link.parent);
    if (before) this.hang(before.parent, { parent: thing, up: before.down, down: before.up });
  }

  root(thing: number): { root: number; factor: Fraction } {
    const known = this.roots.get(thing);
    if (known) return known;
    const own = { root: thing, factor: ONE };
    this.roots.set(thing, own);
    return own;
  }
  /** Things that count as another, or as which others count. */
  things(): Set<number> {
    return new Set([...this.links.keys(), ...this.parents]);
  }
  /** Whether a thing counts as another, or another as it. */
  counted(thing: number): boolean {
    return this.links.has(thing) || this.parents.has(thing);
  }
  get any(): boolean {
    return this.pairs.length > 0;
  }

  /** A net in which each thing is counted as its root. */
  merged(net: ReadonlyMap<number, Fraction>): Map<number, Fraction> {
    const sum = new Map<number, Fraction>();
    for (const [thing, q] of net) {
      const { root, factor } = this.roots.get(thing) ?? { root: thing, factor: ONE };
      sum.set(root, add(sum.get(root) ?? ZERO, multiply(q, factor)));
    }
    for (const [thing, q] of sum) if (sign(q) === 0) sum.delete(thing);
    return sum;
  }

  /** The turns that make up for what a net lacks of one thing with what it has of another that counts as the same. */
  makeUp(net: ReadonlyMap<number, Fraction>): Turn[] {
    const left = new Map(net);
    const depth = (thing: number): number => {
      const link = this.links.get(thing);
      return link ? depth(link.parent) + 1 : 0;
    };
    const turns: Turn[] = [];
    const open = [...left.keys()].filter((t) => this.links.has(t)).sort((a, b) => depth(b) - depth(a));
    const seen = new Set(open);
    for (let at = 0; at < open.length; at++) {
      const thing = open[at];
      const amount = left.get(thing) ?? ZERO;
      const link = this.links.get(thing);
      if (!link || sign(amount) === 0) continue;
      const turn = sign(amount) > 0 ? link.up : link.down;
      turns.push(turn);
      const parents =
        sign(amount) > 0
          ? multiply(amount, divide(turn.gives, turn.takes))
          : multiply(amount, divide(turn.takes, turn.gives));
      left.set(link.parent, add(left.get(link.parent) ?? ZERO, parents));
      if (this.links.has(link.parent) && !seen.has(link.parent)) {
        seen.add(link.parent);
        // Parents come after all their children: they are less deep.
        const place = open.findIndex((t, k) => k > at && depth(t) < depth(link.parent));
        open.splice(place < 0 ? open.length : place, 0, link.parent);
      }
    }
    return turns;
  }
}

/** A turn read from an exact net; null where it is none. */
export function turnOf(process: number, net: ReadonlyMap<number, Fraction>): Turn | null {
  if (net.size !== 2) return null;
  const [[a, x], [b, y]] = [...net];
  if (sign(x) * sign(y) >= 0) return null;
  return sign(x) < 0
    ? { process, from: a, to: b, takes: negate(x), gives: y }
    : { process, from: b, to: a, takes: negate(y), gives: x };
}
