/** Where things enter the world; one run costs its time and price and gives its lines, and what its tables draw. */
import { choice } from "../schema/choice";
import { duration } from "../schema/duration";
import { list } from "../schema/group";
import { defineKind } from "../schema/kind";
import { LEAST, MOST } from "../schema/limits";
import { money } from "../schema/money";
import { number } from "../schema/number";
import { ref } from "../schema/ref";
import { lines } from "./lines";
import { level, note, tables } from "./shared";
import { own } from "./own";

/** What a shop sells, at its own price. */
const wares = list(
  {
    item: ref("item"),
    amount: number({ min: 0, max: MOST, least: LEAST, initial: 1, help: "Sold together for the price." }),
    price: money(),
    currency: ref("currency", { optional: true, help: "Nothing: the currency of the shop." }),
    stock: number({
      min: 1,
      max: MOST,
      whole: true,
      optional: true,
      help: "How often it can be bought. Nothing: as often as one likes.",
    }),
    restock: duration({ optional: true, label: "again in", help: "When the stock is full again. Nothing: never." }),
    level: number({ ...level }),
  },
  {
    most: 200,
    noun: "ware",
    brief: (said, { amount, price }) =>
      [
        `${amount === 1 ? "" : `${amount} `}${said("item")} for ${price}${said("currency") ? ` ${said("currency")}` : ""}`,
        ...(said("stock") ? [`${said("stock")} in stock`] : []),
        ...(said("restock") ? [`again in ${said("restock")}`] : []),
        ...(said("level") ? [`from level ${said("level")}`] : []),
      ].join(", "),
    width: 260,
    help: "What a shop sells, each at its own price.",
  },
);

export const source = defineKind({
  name: "source",
  plural: "sources",
  section: "sources",
  help: "Where things enter the world: gathering with its time, what creatures and places drop, shops with their wares, gifts.",
  fields: {
    kind: choice(["gathering", "drop", "shop", "gift"], { width: 90 }),
    lines: lines(["output"], { title: "Gives", width: 310 }),
    ticks: duration({ label: "time", title: "Time", bundled: "time", width: 80 }),
    price: money({ currency: "currency" }),
    currency: ref("currency", { optional: true, within: "price", width: 100 }),
    level: number({ ...level, help: "Level a character needs." }),
    runs: number({
      min: 1,
      max: MOST,
      whole: true,
      optional: true,
      label: "times a world",
      title: "A world",
      width: 70,
      help: "How often there is one in a world. Nothing: a gift once, anything else as often as one likes.",
    }),
    share: number({
      min: 0,
      max: 10,
      percent: true,
      optional: true,
      label: "buys back at",
      title: "Buys back",
      width: 74,
      help: "Of the price of a ware, so much is paid to whoever sells it to the shop.",
    }),
    tables,
    kit: ref("subject", {
      optional: true,
      label: "drops the kit of",
      title: "Drops kit of",
      width: 100,
      help: "A character whose starting kit and money come out of each run, beside the rest.",
    }),
    wares,
    note,
    own: own(),
  },
});
