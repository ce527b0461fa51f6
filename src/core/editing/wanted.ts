/** What someone wants, as it is typed where items are gathered: "Eel pie", "20 eel pie", "2.5 Brine". */
import type { Catalogue } from "../catalogue/catalogue";
import { namesOf } from "../catalogue/surroundings";
import type { Item } from "../kinds/index";
import { typedNumber } from "../numbers/typed";

export type ItemAmount = { readonly item: Item; readonly amount: number };

/** @returns the item and how many of it (1 where nothing is said), or what is wrong */
export function wantedBy(catalogue: Catalogue, typed: string): ItemAmount | { readonly message: string } {
  const names = namesOf(catalogue, "item");
  const whole = names.find(typed.trim());
  const [, count, name] = whole.found === "none" ? (/^(\S*\d\S*)\s*[x×]?\s+(.+)$/.exec(typed.trim()) ?? []) : [];
  const amount = count ? typedNumber(count, { format: catalogue.numbers }) : { value: 1 };
  if ("message" in amount) return amount;
  if (!(amount.value > 0)) return { message: `“${count}” isn't an amount. Enter a number above 0.` };
  const found = name ? names.find(name) : whole;
  if (found.found === "several")
    return {
      message: `“${name ?? typed}” is the name of several items. Enter the key of one: ${found.keys.join(" or ")}.`,
    };
  const item = found.found === "one" ? catalogue.records.item.get(found.id) : undefined;
  if (item) return { item, amount: amount.value };
  const near = names.near(name ?? typed);
  return {
    message: `There is no item called “${name ?? typed}”.${near.length ? ` Did you mean ${near.join(" or ")}?` : ""}`,
  };
}
