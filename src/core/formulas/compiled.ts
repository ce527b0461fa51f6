/**
 * A formula as closures over slots of numbers: no name is looked up and nothing is allocated when it is evaluated. At
 * most as many steps as it has parts, so that its length bounds its work.
 */
import { type Formula, FUNCTIONS, type Operator, OPERATIONS } from "./formula";

/** @returns NaN or an infinity where it divides by zero or grows beyond numbers */
export type Evaluator = (values: ArrayLike<number>) => number;

/** @param slot  where the value of a name stands */
export function compiled(formula: Formula, slot: (name: string) => number): Evaluator {
  const of = (part: Formula) => compiled(part, slot);
  switch (formula.is) {
    case "number": {
      const { value } = formula;
      return () => value;
    }
    case "name": {
      const at = slot(formula.name);
      return (v) => v[at];
    }
    case "negate": {
      const inner = of(formula.of);
      return (v) => -inner(v);
    }
    case "not": {
      const inner = of(formula.of);
      return (v) => (inner(v) ? 0 : 1);
    }
    case "call": {
      const parts = formula.with.map(of);
      const [a, b, c] = parts;
      switch (formula.name) {
        case "if":
          return (v) => (a(v) ? b(v) : c(v));
        case "min":
          return parts.length === 2 ? (v) => Math.min(a(v), b(v)) : (v) => Math.min(...parts.map((part) => part(v)));
        case "max":
          return parts.length === 2 ? (v) => Math.max(a(v), b(v)) : (v) => Math.max(...parts.map((part) => part(v)));
        case "clamp":
          return (v) => Math.min(Math.max(a(v), b(v)), c(v));
        case "floor":
          return (v) => Math.floor(a(v));
        case "ceil":
          return (v) => Math.ceil(a(v));
        case "abs":
          return (v) => Math.abs(a(v));
        default: {
          const call = FUNCTIONS[formula.name].of as (given: readonly number[]) => number;
          return (v) => call(parts.map((part) => part(v)));
        }
      }
    }
    case "operation": {
      const [left, right] = [of(formula.left), of(formula.right)];
      // By a written number: one call less.
      if (formula.right.is === "number") {
        const by = formula.right.value;
        if (formula.operator === "*") return (v) => left(v) * by;
        if (formula.operator === "+") return (v) => left(v) + by;
        if (formula.operator === "-") return (v) => left(v) - by;
        if (formula.operator === "/") return (v) => left(v) / by;
      }
      return BINARY[formula.operator]?.(left, right) ?? compared(formula.operator, left, right);
    }
  }
}
const BINARY: { readonly [o in Operator]?: (a: Evaluator, b: Evaluator) => Evaluator } = {
  "+": (a, b) => (v) => a(v) + b(v),
  "-": (a, b) => (v) => a(v) - b(v),
  "*": (a, b) => (v) => a(v) * b(v),
  "/": (a, b) => (v) => a(v) / b(v),
  and: (a, b) => (v) => (a(v) && b(v) ? 1 : 0),
  or: (a, b) => (v) => (a(v) || b(v) ? 1 : 0),
};
function compared(operator: Operator, a: Evaluator, b: Evaluator): Evaluator {
  const compare = OPERATIONS[operator as keyof typeof OPERATIONS];
  return (v) => compare(a(v), b(v));
}
