/** The numbers of an item that formulas may name. */
import type { Variable } from "../formulas/scope";
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
