/** Gaining loops: recipes that, run in some whole numbers, leave more than before and less of nothing. */
import type { Id } from "../catalogue/records";
import { rounds } from "../network/components";
import { netYield, type Network } from "../network/network";
import { add, type Fraction, fraction, fromNumber, multiply, negate, sign, subtract, toNumber, wholeMultiples, ZERO } from "../numbers/fraction";
import type { Obtainable } from "./obtainable";
import { EXACT, FLOAT, maximise } from "./simplex";

export interface Gain {
  /** Whole numbers of runs, the smallest that were found; drop any process and it stops gaining. */
  readonly runs: readonly { readonly process: number; readonly times: bigint }[];
  /** Exact expected net of one round; every entry is above zero, all other items come out even. */
  readonly net: readonly { readonly item: number; readonly amount: Fraction }[];
  /** True when it gains even in the worst draw of every chance and range. */
  readonly certain: boolean;
  /** True when every process in it can be reached in a new world. */
  readonly live: boolean;
  /** Expected seconds of one round. */
  readonly seconds: number;
}

export interface GainReport {
  readonly gains: readonly Gain[];
  /** Processes of the groups in which something comes round without loss and without gain. */
  readonly even: readonly (readonly number[])[];
  /** False where the search stopped at its limits: there may be more loops than those reported. */
  readonly complete: boolean;
}

type Column = { readonly process: number; readonly net: ReadonlyMap<number, Fraction> };

const SMALL = 150;
const MOST_LOOPS = 40;
const MOST_SOLVES = 120;

/**
 * A gaining loop is x ≥ 0 over recipes with S x ≥ 0 and S x ≠ 0, S the exact expected net yields (Farkas: either that, or
 * prices p > 0 with pᵀS ≤ 0 certify that there is none). Recipes with a fee can't take part: nothing makes money back here.
 *
 * 1. Drop recipes that use something no remaining recipe makes, and those that only lead from one circle into another:
 *    if there is a gain at all, there is one inside a single circle.
 * 2. Look for a support: a linear programme over the circle's recipes in floating point; large circles start from those
 *    recipes that no prices can make lossy, and price further ones in (column generation).
 * 3. Shrink the support in exact fractions until no process can be dropped, find small whole multiplicities, verify.
 * 4. Look again without one of its processes, for every process, until nothing gains.
 */
export function gains(network: Network, reach: Obtainable): GainReport {
  const { alive, free } = candidates(network);
  const found: Gain[] = free.map((p) => proof(network, reach, [columnOf(network, p)], [1n]));
  const even: number[][] = [];
  let complete = true;
  for (const circle of circles(network, alive)) {
    const search = new Search(network, circle.processes);
    const result = search.all();
    if (!result.complete) complete = false;
    for (const support of result.supports) found.push(proof(network, reach, support, multiplicities(support)));
    if (!result.supports.length && search.comesRound()) even.push(circle.processes);
  }
  const size = (g: Gain) => g.runs.reduce((t, r) => t + Number(r.times), 0);
  return { gains: found.sort((a, b) => a.runs.length - b.runs.length || size(a) - size(b)), even, complete };
}

const columnOf = (network: Network, process: number): Column => ({
  process,
  net: new Map([...netYield(network.processes[process])].map(([id, q]) => [network.index.get(id) as number, q])),
});

/**
 * Recipes that could go round (alive), and those that gain by themselves: they take something in and are left with no net
 * use. An entry is missing from the network's rows only where it is exactly zero, so this asks no fractions.
 */
function candidates(network: Network): { alive: Uint8Array; free: number[] } {
  const { uses, makes, processes } = network;
  const alive = new Uint8Array(processes.length);
  const free: number[] = [];
  for (let p = 0; p < alive.length; p++) {
    if (processes[p].of === "source" || !network.consumes[p] || network.money[p] > 0 || makes.ptr[p] === makes.ptr[p + 1]) continue;
    if (uses.ptr[p] === uses.ptr[p + 1]) free.push(p);
    else alive[p] = 1;
  }
  prune(network, alive);
  return { alive, free };
}

/** Takes out recipes that use an item no recipe left makes, until nothing changes. */
function prune(network: Network, alive: Uint8Array): void {
  const { uses, makes, usedBy } = network;
  const makers = new Int32Array(network.items.length);
  for (let p = 0; p < alive.length; p++) if (alive[p]) for (let k = makes.ptr[p]; k < makes.ptr[p + 1]; k++) makers[makes.to[k]]++;
  const dead: number[] = [];
  const kill = (p: number) => {
    alive[p] = 0;
    dead.push(p);
  };
  for (let p = 0; p < alive.length; p++) {
    if (!alive[p]) continue;
    for (let k = uses.ptr[p]; k < uses.ptr[p + 1]; k++)
      if (makers[uses.to[k]] === 0) {
        kill(p);
        break;
      }
  }
  for (let p = dead.pop(); p !== undefined; p = dead.pop())
    for (let k = makes.ptr[p]; k < makes.ptr[p + 1]; k++) {
      const item = makes.to[k];
      if (--makers[item] > 0) continue;
      for (let u = usedBy.ptr[item]; u < usedBy.ptr[item + 1]; u++) if (alive[usedBy.to[u]]) kill(usedBy.to[u]);
    }
}

/** Circles whose recipes take everything from within. Changes `alive`. */
function circles(network: Network, alive: Uint8Array): { items: number[]; processes: number[] }[] {
  for (;;) {
    const groups = rounds(network, network.usedBy, alive);
    const inside = new Uint8Array(alive.length);
    const closed = groups.map(({ items, processes }) => {
      const own = new Set(items);
      const kept = processes.filter((p) => {
        for (let k = network.uses.ptr[p]; k < network.uses.ptr[p + 1]; k++) if (!own.has(network.uses.to[k])) return false;
        return true;
      });
      for (const p of kept) inside[p] = 1;
      return { items, processes: kept };
    });
    let changed = false;
    for (let p = 0; p < alive.length; p++) if (alive[p] && !inside[p]) { alive[p] = 0; changed = true; }
    if (!changed) return closed.filter((c) => c.processes.length > 0);
    prune(network, alive);
  }
}

/**
 * Prices under which as few columns as possible gain: where the outputs are worth more than the inputs, the most valuable
 * output is lowered to what the inputs pay for; a column lowered more than 8 times is left as it is.
 */
function potentials(columns: readonly (readonly { row: number; q: number }[])[], rows: number): Float64Array {
  const price = new Float64Array(rows).fill(1);
  if (rows < 3) return price;
  const users: number[][] = Array.from({ length: rows }, () => []);
  columns.forEach((entries, c) => {
    for (const { row, q } of entries) if (q < 0) users[row].push(c);
  });
  const lowered = new Uint8Array(columns.length);
  const queue = columns.map((_, c) => c);
  for (let at = 0; at < queue.length; at++) {
    const c = queue[at];
    let [worth, best, bestWorth, bestQ] = [0, -1, 0, 0];
    for (const { row, q } of columns[c]) {
      worth += q * price[row];
      if (q * price[row] > bestWorth) [best, bestWorth, bestQ] = [row, q * price[row], q];
    }
    if (worth <= 1e-12 * bestWorth || best < 0 || lowered[c] >= 8) continue;
    lowered[c]++;
    price[best] = Math.max((bestWorth - worth) / bestQ, price[best] / 1000, 1e-9);
    for (const u of users[best]) if (lowered[u] < 8) queue.push(u);
    // Lowering an output may leave the column itself short of its goal.
    queue.push(c);
  }
  return price;
}

/** The search for gaining supports among the columns of one circle. */
class Search {
  private solves = 0;
  private readonly rowOf = new Map<number, number>();
  /** Nets in floating point, rows scaled by price, columns by what they take in. */
  private readonly scaled: { row: number; q: number }[][];
  private readonly exact = new Map<number, Column>();

  constructor(
    private readonly network: Network,
    private readonly columns: readonly number[],
  ) {
    const { uses, makes } = network;
    const row = (item: number) => {
      let at = this.rowOf.get(item);
      if (at === undefined) {
        at = this.rowOf.size;
        this.rowOf.set(item, at);
      }
      return at;
    };
    const plain = columns.map((p) => {
      const entries: { row: number; q: number }[] = [];
      for (let k = uses.ptr[p]; k < uses.ptr[p + 1]; k++) entries.push({ row: row(uses.to[k]), q: -uses.qty[k] });
      for (let k = makes.ptr[p]; k < makes.ptr[p + 1]; k++) entries.push({ row: row(makes.to[k]), q: makes.qty[k] });
      return entries;
    });
    const prices = potentials(plain, this.rowOf.size);
    this.scaled = plain.map((entries) => {
      const size = entries.reduce((t, e) => t + Math.max(0, -e.q) * prices[e.row], 0) || 1;
      return entries.map((e) => ({ row: e.row, q: (e.q * prices[e.row]) / size }));
    });
  }

  private column(c: number): Column {
    let column = this.exact.get(c);
    if (!column) {
      column = columnOf(this.network, this.columns[c]);
      this.exact.set(c, column);
    }
    return column;
  }

  all(): { supports: Column[][]; complete: boolean } {
    const supports: Column[][] = [];
    const seen = new Set<string>();
    const large = this.columns.length > SMALL;
    const open: number[][] = [[]];
    let complete = true;
    for (let at = 0; at < open.length; at++) {
      if (supports.length >= MOST_LOOPS || this.solves >= MOST_SOLVES) {
        complete = false;
        break;
      }
      const banned = new Set(open[at]);
      let support = supports.find((s) => s.every((c) => !banned.has(c.process)));
      if (!support) {
        const fresh = this.one(banned);
        if (!fresh) continue;
        support = fresh;
        supports.push(fresh);
      }
      for (const process of large ? [lastOf(support)] : support.map((c) => c.process)) {
        const next = [...banned, process].sort((a, b) => a - b);
        const key = next.join();
        if (!seen.has(key)) {
          seen.add(key);
          open.push(next);
        }
      }
    }
    return { supports, complete };
  }

  /** One minimal gaining support that avoids the banned processes, or null: none. */
  private one(banned: ReadonlySet<number>): Column[] | null {
    const open = this.columns.map((_, c) => c).filter((c) => !banned.has(this.columns[c]));
    let chosen = open.length > SMALL ? open.filter((c) => this.reduced(c, null) > 1e-9) : open;
    for (let round = 0; round < 200 && chosen.length; round++) {
      this.solves++;
      const { value, x, rowDuals } = this.programme(chosen, (c) => Math.max(-1, this.reduced(c, null)));
      if (value > 1e-9) {
        const shrunk = shrink(chosen.filter((_, k) => x[k] > 1e-9).map((c) => this.column(c)));
        if (shrunk) return shrunk;
        if (chosen.length <= 40) return shrink(chosen.map((c) => this.column(c)));
      }
      if (chosen.length === open.length || value > 1e-9) return null;
      const inside = new Set(chosen);
      const priced = open
        .filter((c) => !inside.has(c))
        .map((c) => ({ c, gain: this.reduced(c, rowDuals) }))
        .filter((p) => p.gain > 1e-9)
        .sort((a, b) => b.gain - a.gain)
        .slice(0, 40);
      if (!priced.length) return null;
      chosen = [...chosen, ...priced.map((p) => p.c)];
    }
    return null;
  }

  /** True when something can go round without loss (only asked where nothing gains). */
  comesRound(): boolean {
    if (this.columns.length > SMALL) return false;
    const { x } = this.programme(this.columns.map((_, c) => c), () => 1);
    const support = this.columns.map((_, c) => c).filter((c) => x[c] > 1e-9).map((c) => this.column(c));
    return support.length > 0 && support.length <= 40 && exactly(support, () => fraction(1n)) !== null;
  }

  /** Worth of a column's net at the search's prices plus the given duals. */
  private reduced(c: number, duals: readonly number[] | null): number {
    let worth = 0;
    for (const { row, q } of this.scaled[c]) worth += q * (1 + (duals?.[row] ?? 0));
    return worth;
  }

  private programme(chosen: readonly number[], goal: (c: number) => number): { value: number; x: number[]; rowDuals: number[] } {
    const rows = new Map<number, number[]>();
    chosen.forEach((c, k) => {
      for (const { row, q } of this.scaled[c]) {
        let line = rows.get(row);
        if (!line) {
          line = new Array<number>(chosen.length).fill(0);
          rows.set(row, line);
        }
        line[k] = -q;
      }
    });
    const kept = [...rows].filter(([, line]) => line.some((v) => v > 0));
    const a = [...kept.map(([, line]) => line), chosen.map(() => 1)];
    const best = maximise(FLOAT, a, [...kept.map(() => 0), 1], chosen.map(goal));
    const rowDuals = new Array<number>(this.rowOf.size).fill(0);
    if (best) kept.forEach(([row], r) => { rowDuals[row] = best.duals[r]; });
    return best ? { value: best.value, x: best.x, rowDuals } : { value: 0, x: chosen.map(() => 0), rowDuals };
  }
}

const lastOf = (support: readonly Column[]): number => support.reduce((best, c) => Math.max(best, c.process), -1);

/** Rows of the exact system over a support: item → coefficients. */
function rowsOf(support: readonly Column[]): Map<number, Fraction[]> {
  const rows = new Map<number, Fraction[]>();
  support.forEach(({ net }, k) => {
    for (const [item, q] of net) {
      let row = rows.get(item);
      if (!row) {
        row = support.map(() => ZERO);
        rows.set(item, row);
      }
      row[k] = q;
    }
  });
  return rows;
}

/** A vertex of { x ≥ 0, Sx ≥ 0, sum x ≤ 1 } that maximises the goal, exactly; null when the maximum is 0. */
function exactly(support: readonly Column[], goal: (k: number, rows: ReadonlyMap<number, Fraction[]>) => Fraction): Fraction[] | null {
  const rows = rowsOf(support);
  const a = [...rows.values()].map((row) => row.map(negate));
  const best = maximise(EXACT, [...a, support.map(() => fraction(1n))], [...a.map(() => ZERO), fraction(1n)], support.map((_, k) => goal(k, rows)));
  return best && sign(best.value) > 0 ? best.x : null;
}

const totalNet = (k: number, rows: ReadonlyMap<number, Fraction[]>): Fraction => [...rows.values()].reduce((t, row) => add(t, row[k]), ZERO);

/** The smallest part of a support that still gains, by dropping one process after the other; null: it never gained. */
function shrink(support: readonly Column[]): Column[] | null {
  let x = exactly(support, totalNet);
  if (!x) return null;
  let kept = support.filter((_, k) => sign((x as Fraction[])[k]) > 0);
  for (let k = kept.length - 1; k >= 0; k--) {
    const fewer = kept.filter((_, j) => j !== k);
    x = fewer.length ? exactly(fewer, totalNet) : null;
    if (!x) continue;
    const chosen = x;
    kept = fewer.filter((_, j) => sign(chosen[j]) > 0);
    k = kept.length;
  }
  return kept;
}

/** Whole numbers of runs for a minimal support: tried from small sums upwards, else a vertex of the exact programme. */
function multiplicities(support: readonly Column[]): bigint[] {
  const rows = [...rowsOf(support).values()].map((row) => row.map(toNumber));
  const k = support.length;
  let tries = 0;
  for (let total = k; total <= 60 && k <= 8 && tries < 30_000; total++) {
    const parts = new Array<number>(k).fill(1);
    const place = (at: number, left: number): number[] | null => {
      if (tries++ > 30_000) return null;
      if (at === k - 1) {
        parts[at] = left;
        const near = rows.every((row) => row.reduce((t, q, j) => t + q * parts[j], 0) > -1e-9);
        return near && gainsWith(support, parts.map(BigInt)) ? [...parts] : null;
      }
      for (let n = 1; n <= left - (k - 1 - at); n++) {
        parts[at] = n;
        const hit = place(at + 1, left - n);
        if (hit) return hit;
      }
      return null;
    };
    const hit = place(0, total);
    if (hit) return hit.map(BigInt);
  }
  return wholeMultiples(exactly(support, totalNet) as Fraction[]);
}

function netOf(support: readonly Column[], times: readonly bigint[]): Map<number, Fraction> {
  const net = new Map<number, Fraction>();
  support.forEach((column, k) => {
    for (const [item, q] of column.net) net.set(item, add(net.get(item) ?? ZERO, multiply(q, fraction(times[k]))));
  });
  return net;
}

const gainsWith = (support: readonly Column[], times: readonly bigint[]): boolean => {
  const signs = [...netOf(support, times).values()].map(sign);
  return signs.every((s) => s >= 0) && signs.some((s) => s > 0);
};

/** The processes in the order in which a player would run them: each uses what the one before it makes, where that can be. */
function inOrder(support: readonly Column[]): number[] {
  const rest = new Set(support.map((_, k) => k));
  const order: number[] = [];
  const follows = (k: number, after: Column) => [...support[k].net].some(([item, q]) => q.n < 0n && (after.net.get(item)?.n ?? 0n) > 0n);
  const first = support.reduce((best, c, k) => (c.process < support[best].process ? k : best), 0);
  for (let k: number | undefined = first; k !== undefined; ) {
    order.push(k);
    rest.delete(k);
    const here: Column = support[k];
    k = [...rest].find((j) => follows(j, here)) ?? [...rest][0];
  }
  return order;
}

/** @throws Error when the exact sum does not bear the claim out: a fault of this file, never of the data */
function proof(network: Network, reach: Obtainable, support: readonly Column[], times: readonly bigint[]): Gain {
  if (!gainsWith(support, times)) throw new Error("A gaining loop failed its proof.");
  const net = [...netOf(support, times)].filter(([, q]) => sign(q) > 0).map(([item, amount]) => ({ item, amount }));
  const seconds = support.reduce((t, { process }, k) => t + network.seconds[process] * Number(times[k]), 0);
  return {
    runs: inOrder(support).map((k) => ({ process: support[k].process, times: times[k] })),
    net,
    certain: worstCase(network, support, times),
    live: support.every(({ process }) => reach.processes[process]),
    seconds,
  };
}

/** Does it gain when every range and chance falls out against the player? */
function worstCase(network: Network, support: readonly Column[], times: readonly bigint[]): boolean {
  const net = new Map<Id, Fraction>();
  support.forEach(({ process }, k) => {
    for (const line of network.processes[process].record.lines) {
      if (line.role === "station" || (line.role === "tool" && line.uses === null)) continue;
      const runs = fraction(times[k]);
      let amount = line.role === "output" ? (line.chance >= 1 ? fromNumber(Math.min(line.min, line.max)) : ZERO) : line.chance > 0 ? fromNumber(Math.max(line.min, line.max)) : ZERO;
      if (line.uses !== null) amount = multiply(amount, fraction(1n, BigInt(line.uses)));
      const delta = multiply(amount, runs);
      net.set(line.item, line.role === "output" ? add(net.get(line.item) ?? ZERO, delta) : subtract(net.get(line.item) ?? ZERO, delta));
    }
  });
  const signs = [...net.values()].map(sign);
  return signs.every((s) => s >= 0) && signs.some((s) => s > 0);
}
