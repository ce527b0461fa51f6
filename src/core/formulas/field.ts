/** A field that holds a formula. */
import type { Field, FieldOptions, Surroundings } from "../schema/field";
import { linked } from "../schema/linked";
import { formatFormula, type Formula, LONGEST_FORMULA, parseFormula } from "./formula";
import { keptNames, NAMED_KINDS, namesIn, type Scope, typedNames, unitOfVariable, writtenNames } from "./scope";
import { sameUnit, sayUnit, type Unit, unitOf } from "./units";

/** A kept formula is longer than a typed one: names stand in it by their ids. */
const LONGEST_KEPT = 4 * LONGEST_FORMULA;

const trees = new Map<string, Formula | null>();
/** Most formulas that are kept read; what is over is read again. */
const KEPT = 5000;
/** A formula as it is kept, read; null where it can't be. */
export function formulaOf(kept: string, scope: Scope): Formula | null {
  const key = `${scope} ${kept}`;
  let tree = trees.get(key);
  if (tree === undefined) {
    const parsed = parseFormula(kept, keptNames(scope), LONGEST_KEPT);
    tree = parsed.ok ? parsed.formula : null;
    if (trees.size >= KEPT) trees.clear();
    trees.set(key, tree);
  }
  return tree;
}

/** What a typed formula is: kept, or what is wrong with it and where. Units are looked at too. */
export function readFormula(
  typed: string,
  scope: Scope,
  around: Surroundings,
  wanted?: Unit,
):
  | { readonly kept: string; readonly formula: Formula; readonly unit: Unit | null }
  | { readonly message: string; readonly from: number; readonly to: number; readonly suggestions: readonly string[] } {
  const parsed = parseFormula(typed, typedNames(scope, around));
  if (!parsed.ok) return parsed;
  const unit = unitOf(parsed.formula, (token) => unitOfVariable(token, around));
  if ("message" in unit) return { message: unit.message, ...parsed.place(unit.of), suggestions: [] };
  if (wanted && unit.unit && !sameUnit(unit.unit, wanted)) {
    const message = `This comes to “${sayUnit(unit.unit)}”; ${sayUnit(wanted) ? `“${sayUnit(wanted)}”` : "a number without a unit"} is needed here.`;
    return { message, from: 0, to: typed.length, suggestions: [] };
  }
  return { kept: formatFormula(parsed.formula), formula: parsed.formula, unit: unit.unit };
}

/** A kept formula as people read and type it. */
export function writeFormula(kept: string, scope: Scope, around: Surroundings): string {
  const tree = formulaOf(kept, scope);
  return tree ? formatFormula(renamed(tree, writtenNames(scope, around))) : kept;
}

function renamed(of: Formula, name: (token: string) => string): Formula {
  switch (of.is) {
    case "name":
      return { is: "name", name: name(of.name) };
    case "negate":
    case "not":
      return { is: of.is, of: renamed(of.of, name) };
    case "call":
      return { ...of, with: of.with.map((part) => renamed(part, name)) };
    case "operation":
      return { ...of, left: renamed(of.left, name), right: renamed(of.right, name) };
    default:
      return of;
  }
}

export const formula = (scope: Scope, options: FieldOptions = {}): Field<string | null> => {
  const field = linked(
    {
      kinds: NAMED_KINDS,
      read(typed, typing) {
        const read = readFormula(typed, scope, typing);
        return "message" in read ? { message: read.message } : { value: read.kept };
      },
      write: (value, around) => writeFormula(value, scope, around),
      problem(value) {
        const parsed = parseFormula(value, keptNames(scope), LONGEST_KEPT);
        return parsed.ok ? null : `This formula can't be read: ${parsed.message}`;
      },
    },
    LONGEST_KEPT,
    options,
  );
  return { ...field, type: "formula", completions: (around) => namesIn(scope, around) };
};
