/** An item as a player reads it: what is marked as shown, in the order in which the game reads it. */
import type { Catalogue } from "../catalogue/catalogue";
import { fieldsOfItem, statsOfItem } from "../catalogue/fields";
import { heldOwn, heldStat } from "../catalogue/inheritance";
import { around } from "../catalogue/surroundings";
import type { Item, Stat } from "../kinds/index";
import { fieldOfDefinition } from "../kinds/own";
import { sayQuantity } from "../numbers/format";
import type { Id } from "../schema/id";

export interface CardLine {
  readonly label: string;
  readonly text: string;
  /** Of a stat: what two cards are compared by. */
  readonly stat?: { readonly id: Id; readonly value: number; readonly better: Stat["better"] };
}

/** Stats by name, then the designers' fields that players see, in their order. */
export function cardLines(catalogue: Catalogue, item: Item): CardLine[] {
  const here = around(catalogue);
  const measured = statsOfItem(catalogue, item);
  const stats = [...catalogue.records.stat.values()]
    .sort((a, b) => a.name.localeCompare(b.name))
    .flatMap(({ id, name, unit, better }): CardLine[] => {
      const { value } = heldStat(catalogue, item, id);
      if (value === null || (measured && !measured.has(id))) return [];
      const text = `${sayQuantity(value)}${unit ? `${unit === "%" ? "" : " "}${unit}` : ""}`;
      return [{ label: name, text, stat: { id, value, better } }];
    });
  const fields = fieldsOfItem(catalogue, item)
    .filter((field) => field.shown)
    .flatMap((field): CardLine[] => {
      const { value } = heldOwn(catalogue, item, field.id);
      if (value === null) return [];
      const text = fieldOfDefinition(field).say(value, here);
      return [{ label: field.name, text: field.unit ? `${text} ${field.unit}` : text }];
    });
  return [...stats, ...fields];
}

export interface Compared {
  readonly label: string;
  readonly here: string;
  readonly beside: string;
  /** How much more the other has; null where one of them has none. */
  readonly delta: number | null;
  readonly verdict: "better" | "worse" | "same" | "different";
}

/** The second item beside the first, stat by stat: better or worse by the direction of each. */
export function compareCards(catalogue: Catalogue, first: Item, second: Item): Compared[] {
  const [a, b] = [first, second].map((item) => cardLines(catalogue, item).filter((line) => line.stat));
  const labels = [...new Set([...a, ...b].map((line) => line.label))];
  return labels.map((label) => {
    const [x, y] = [a, b].map((lines) => lines.find((line) => line.label === label));
    const delta = x?.stat && y?.stat ? Number((y.stat.value - x.stat.value).toPrecision(12)) : null;
    return { label, here: x?.text ?? "–", beside: y?.text ?? "–", delta, verdict: verdictOf() };

    function verdictOf(): Compared["verdict"] {
      const better = (x ?? y)?.stat?.better;
      // What one of them does not say counts as nothing of it.
      const more = (y?.stat?.value ?? 0) - (x?.stat?.value ?? 0);
      if (more === 0) return "same";
      if (better === "neither" || better === undefined) return "different";
      return more > 0 === (better === "higher") ? "better" : "worse";
    }
  });
}
