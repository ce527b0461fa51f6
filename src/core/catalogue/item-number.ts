/** The numbers of an item that formulas may name, and amounts that hang on them alone. */
import { compiled } from "../formulas/compiled";
import { formulaOf } from "../formulas/field";
import { type Variable, variableOf } from "../formulas/scope";
import type { Item } from "../kinds/index";
import type { Catalogue } from "./catalogue";
import { held, heldOwn, heldStat } from "./inheritance";

/** The number that an item has by a name of a formula; 0 where it has none. A duration is in seconds. */
export function itemNumber(catalogue: Catalogue, item: Item | null, { kind, id, plain }: Variable): number {
  if (!item) return 0;
  if (kind === "stat") return id ? (heldStat(catalogue, item, id).value ?? 0) : 0;
  if (kind === "field") {
    const value = id ? heldOwn(catalogue, item, id).value : null;
    if (typeof value !== "number") return 0;
    const isTime = id !== null && catalogue.records.field.get(id)?.form === "duration";
    return isTime ? value / catalogue.pantry.ticksPerSecond : value;
  }
  const field = ({ level: "level", mass: "mass", "buy price": "buy", "sell price": "sell" } as const)[plain as "level"];
  return Number(held(catalogue, item, field).value ?? 0);
}

/** What the amount of an effect comes to over the item and constants; null where it hangs on who uses it, or is none. */
export function itemAmount(catalogue: Catalogue, item: Item, kept: string | null): number | null {
  if (kept === null) return 1;
  const tree = formulaOf(kept, "use");
  if (!tree) return null;
  const values: number[] = [];
  let known = true;
  const evaluate = compiled(tree, (token) => {
    const variable = variableOf(token);
    if (variable?.kind === "constant" && variable.id)
      return values.push(catalogue.records.constant.get(variable.id)?.value ?? 0) - 1;
    if (variable?.who !== "item") known = false;
    return values.push(variable ? itemNumber(catalogue, item, variable) : 0) - 1;
  });
  const value = known ? evaluate(values) : Number.NaN;
  return Number.isFinite(value) ? value : null;
}
