/**
 * Units of formulas: a number written as such fits any of them, what is added or compared must be of one, and products
 * and quotients have the product and quotient of theirs.
 */
import type { Formula } from "./formula";

/** Powers of the units that a quantity is counted in, in order of their names; empty: a mere count. */
export type Unit = ReadonlyMap<string, number>;
export const COUNT: Unit = new Map();

const POWER: { readonly [sign: string]: number } = { "²": 2, "³": 3 };

/** "kg", "kg/s", "N·m", "m²", "1/s": what stands behind the first slash divides. */
export function readUnit(text: string): Unit {
  const powers = new Map<string, number>();
  for (const [k, part] of text.split("/").entries())
    for (const factor of part.split(/[*·\s]+/)) {
      const [, name, power] = /^(.*?)(?:\^?(\d)|([²³]))?$/u.exec(factor) as RegExpExecArray;
      if (!name || name === "1" || name === "%") continue;
      const by = power ? Number(power) : (POWER[factor.slice(-1)] ?? 1);
      powers.set(name.toLowerCase(), (powers.get(name.toLowerCase()) ?? 0) + (k === 0 ? by : -by));
    }
  return tidied(powers);
}
const tidied = (powers: Map<string, number>): Unit =>
  new Map([...powers].filter(([, power]) => power !== 0).sort(([a], [b]) => (a < b ? -1 : 1)));

export const sameUnit = (a: Unit, b: Unit): boolean => sayUnit(a) === sayUnit(b);

export function sayUnit(unit: Unit): string {
  const side = (sign: number) =>
    [...unit]
      .filter(([, power]) => power * sign > 0)
      .map(([name, power]) => (Math.abs(power) === 1 ? name : `${name}^${Math.abs(power)}`))
      .join("·");
  const [over, under] = [side(1), side(-1)];
  return under ? `${over || "1"}/${under}` : over;
}

function times(a: Unit, b: Unit, sign: 1 | -1): Unit {
  const powers = new Map(a);
  for (const [name, power] of b) powers.set(name, (powers.get(name) ?? 0) + sign * power);
  return tidied(powers);
}

/** Where units do not go together. */
export interface UnitFault {
  readonly message: string;
  readonly of: Formula;
}
const quantity = (unit: Unit): string => (unit.size ? `“${sayUnit(unit)}”` : "a number without a unit");

/**
 * @param unitOf  the unit of a name
 * @returns the unit of the whole, null where any would do (it is made of written numbers and mere counts); or what does
 *          not go together
 */
export function unitOf(
  formula: Formula,
  unitOfName: (name: string) => Unit,
): { readonly unit: Unit | null } | UnitFault {
  try {
    return { unit: find(formula) };
  } catch (thrown) {
    if (thrown instanceof Mismatch) return { message: thrown.message, of: thrown.of };
    throw thrown;
  }

  function find(of: Formula): Unit | null {
    switch (of.is) {
      case "number":
        return null;
      case "name": {
        const unit = unitOfName(of.name);
        return unit.size ? unit : null;
      }
      case "negate":
        return find(of.of);
      case "not":
        find(of.of);
        return null;
      case "call": {
        if (of.name !== "if") return alike(of.with);
        find(of.with[0]);
        return alike(of.with.slice(1));
      }
      case "operation": {
        const { operator, left, right } = of;
        if (operator === "and" || operator === "or") {
          find(left);
          find(right);
          return null;
        }
        if (operator === "*" || operator === "/") {
          const made = times(find(left) ?? COUNT, find(right) ?? COUNT, operator === "*" ? 1 : -1);
          return made.size ? made : null;
        }
        const unit = alike([left, right]);
        return operator === "+" || operator === "-" ? unit : null;
      }
    }
  }
  /** The one unit of parts that are put beside each other. */
  function alike(parts: readonly Formula[]): Unit | null {
    let unit: Unit | null = null;
    for (const part of parts) {
      const own = find(part);
      if (own === null) continue;
      if (unit !== null && !sameUnit(unit, own))
        throw new Mismatch(`${quantity(unit)} and ${quantity(own)} can't be combined here.`, part);
      unit = own;
    }
    return unit;
  }
}
class Mismatch extends Error {
  constructor(
    message: string,
    readonly of: Formula,
  ) {
    super(message);
  }
}
