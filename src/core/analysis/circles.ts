/** Circles of chosen processes whose items get cheaper at every round: solved as linear systems, or broken. */
import { type Network, SALVAGE } from "../network/network";
import { policyOrder, solve } from "./policy";

/** Costs with the processes that achieve them, as far as a circle looks at them. */
export interface ChosenCosts {
  readonly network: Network;
  readonly cost: Float64Array;
  /** Per item the chosen process; −1: none. */
  readonly via: Int32Array;
  /** Share of a run's cost that its output bears. */
  readonly share: number;
  /** What a run costs by itself. */
  own(p: number): number;
  /** Takes a bound from above, where it is below the cost. */
  lower(item: number, bound: number): void;
}

/** Steps of elimination, and items of circles gone through, per change. */
const MOST_SOLVING = 1e9;
const MOST_WALKED = 2e6;
/** More than the rounding of any sum a row can hold, in parts of the sum. */
const ROUNDING = 2 ** -44;

export class Circles {
  /** Steps taken since the last change: in what is solved at once, and in looking for where to break a circle. */
  private solving = 0;
  private walked = 0;
  private broken = new Set<number>();

  constructor(private readonly costs: ChosenCosts) {}

  /** Before a change is followed: there is as much work to spend as ever. */
  begin(): void {
    this.solving = this.walked = 0;
  }

  /**
   * Lowers the items of an item's circle to a bound from above, if it leads through itself and each round costs less: the
   * linear system of its chosen processes, each number rounded up by more than rounding could take off.
   */
  solveAt(item: number): void {
    const { network, via, cost, share } = this.costs;
    // What is too large to be solved goes on round by round, and is flagged where that does not settle.
    if (this.solving > MOST_SOLVING) return;
    const order = policyOrder(network, (i) => via[i], [item]);
    const group = order.find((g) => g.includes(item)) as number[];
    this.solving += 100 * order.reduce((n, g) => n + g.length, 0);
    if (group.length === 1 && !this.usesItself(item)) return;
    this.solving += group.length ** 3;
    if (this.solving > MOST_SOLVING) return;
    const place = new Map(group.map((i, r) => [i, r]));
    const n = group.length;
    const rows = group.map((i, r) => {
      const row = new Float64Array(n + 2);
      const p = via[i];
      const k = this.entryOf(p, i);
      // A share of the run's cost, or that less the worth of its side outputs: at most the first.
      const per = (share / (network.outs.qty as Float64Array)[k]) * (1 + ROUNDING);
      row[r] = 1;
      row[n] = this.costs.own(p) * per;
      row[n + 1] = 1;
      const { start, end, to, qty } = network.ins;
      for (let m = start[p]; m < end[p]; m++) {
        const q = (qty as Float64Array)[m];
        if (q === 0) continue;
        const c = place.get(to[m]);
        if (c === undefined) row[n] += q * per * cost[to[m]];
        else row[c] -= q * per;
      }
      row[n] *= 1 + ROUNDING;
      return row;
    });
    // A second right side of ones: where its solution is above zero, going round loses weight and the first is a bound.
    const solved = solve(rows, 2);
    if (!solved || solved[1].some((y) => !(y > 0)) || solved[0].some((x) => !(x >= 0))) return;
    // What elimination may have lost grows with the inverse.
    const doubt = 2 ** -40 + Math.max(...solved[1]) * n * 2 ** -48;
    if (doubt > 2 ** -10) return;
    for (const [r, i] of group.entries()) this.costs.lower(i, solved[0][r] * (1 + doubt));
  }

  /** Puts a process of the item's circle aside, if it leads through itself: a salvage where there is one. */
  breakAt(item: number, aside: Set<number>): void {
    const { via, network } = this.costs;
    // The others of a circle that was broken just now come by at the same time: they get another few rounds first.
    if (this.broken.delete(item)) return;
    if (this.walked > MOST_WALKED) {
      aside.add(via[item]);
      return;
    }
    const order = policyOrder(network, (i) => via[i], [item]);
    const group = order.find((g) => g.includes(item)) as number[];
    this.walked += order.reduce((n, g) => n + g.length, 0);
    if (group.length === 1 && !this.usesItself(item)) return;
    this.broken = new Set(group);
    const ps = group.map((i) => via[i]);
    aside.add(ps.find((p) => network.flags[p] & SALVAGE) ?? via[item]);
  }

  private entryOf(p: number, item: number): number {
    const { start, end, to } = this.costs.network.outs;
    for (let k = start[p]; k < end[p]; k++) if (to[k] === item) return k;
    return -1;
  }

  private usesItself(item: number): boolean {
    const { start, end, to, qty } = this.costs.network.ins;
    const p = this.costs.via[item];
    for (let k = start[p]; k < end[p]; k++) if (to[k] === item && (qty as Float64Array)[k] > 0) return true;
    return false;
  }
}
