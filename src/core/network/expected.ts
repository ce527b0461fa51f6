/** What lines come to in one run, on average: as plain numbers and exactly as typed. */
import type { Amounts } from "../notation/line";
import type { Node } from "../process/node";
import type { Flow } from "./process";
import { add, divide, type Fraction, fraction, fromNumber, multiply, negate, sign, ZERO } from "../numbers/fraction";

const within = (chance: number): number => Math.min(1, Math.max(0, chance));

/** Expected amount of a line in one run, as a plain number. A tool counts by its wear, a station not at all. */
export function expected(line: Amounts): number {
  if (line.role === "station") return 0;
  const amount =
    ((line.min + line.max) / 2) *
    within(line.chance) *
    (line.draw ? (line.draw.times * line.draw.weight) / line.draw.of : 1);
  return line.role === "tool" ? (line.uses === null ? 0 : amount / line.uses) : amount;
}

/** The same, exactly as typed. */
export function expectedExactly(line: Amounts): Fraction {
  if (line.role === "station" || (line.role === "tool" && line.uses === null)) return ZERO;
  const middle = divide(
    multiply(add(fromNumber(line.min), fromNumber(line.max)), fromNumber(within(line.chance))),
    fraction(2n),
  );
  const amount = line.draw
    ? multiply(
        middle,
        divide(multiply(fromNumber(line.draw.times), fromNumber(line.draw.weight)), fromNumber(line.draw.of)),
      )
    : middle;
  return line.uses === null ? amount : divide(amount, fraction(BigInt(line.uses)));
}

/** Exact net yield of one run for every item that does not come out even: negative is used up. */
export function netYield(lines: readonly Flow[]): Map<Node, Fraction> {
  const net = new Map<Node, Fraction>();
  for (const line of lines) {
    const amount = expectedExactly(line);
    net.set(line.item, add(net.get(line.item) ?? ZERO, line.role === "output" ? amount : negate(amount)));
  }
  for (const [item, amount] of net) if (sign(amount) === 0) net.delete(item);
  return net;
}
