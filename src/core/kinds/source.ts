/** Where items enter the world: one run costs its time and price, and gives its lines and what its drop tables draw. */
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
    amount: number({
      min: 0,
      max: MOST,
      least: LEAST,
      initial: 1,
      help: "How many are sold together for the price, such as 5.",
    }),
    price: money(),
    currency: ref("currency", { optional: true, help: "If empty, the shop's currency, such as shells." }),
    stock: number({
      min: 1,
      max: MOST,
      whole: true,
      optional: true,
      help: "Purchases until it is sold out, such as 3. If empty, no limit.",
    }),
    restock: duration({
      optional: true,
      label: "restocks every",
      help: "Time until the stock is full again, such as 1h. If empty, never.",
    }),
    level: number({ ...level }),
  },
  {
    most: 200,
    noun: "shop item",
    label: "shop stock",
    title: "Shop stock",
    brief: (said, { amount, price }) =>
      [
        `${amount === 1 ? "" : `${amount} `}${said("item")} for ${price}${said("currency") ? ` ${said("currency")}` : ""}`,
        ...(said("stock") ? [`${said("stock")} in stock`] : []),
        ...(said("restock") ? [`restocks every ${said("restock")}`] : []),
        ...(said("level") ? [`from level ${said("level")}`] : []),
      ].join(", "),
    width: 260,
    help: "What a shop sells, each at its own price, such as Rope for 12.",
  },
);

export const source = defineKind({
  name: "source",
  section: "sources",
  help: "Where items enter the world, such as Eel weir at the ebb: gathering, drops, shops and one-time sources.",
  fields: {
    kind: choice(["gathering", "drop", "shop", "gift"], { width: 120, words: { gift: "one-time source" } }),
    lines: lines(["output"], { title: "Gives", width: 310 }),
    ticks: duration({ label: "time", title: "Time", bundled: "time", width: 80 }),
    price: money({ currency: "currency" }),
    currency: ref("currency", { optional: true, within: "price", width: 100 }),
    level: number({ ...level, help: "Level a character needs, such as 5." }),
    runs: number({
      min: 1,
      max: MOST,
      whole: true,
      optional: true,
      label: "times per world",
      title: "Times per world",
      width: 112,
      help: "How often it can happen in a world, such as 2. If empty, once for a one-time source, otherwise no limit.",
    }),
    share: number({
      min: 0,
      max: 10,
      percent: true,
      optional: true,
      label: "buy-back rate",
      title: "Buy-back rate",
      width: 98,
      help: "What the shop pays for items it sells, as a share of its price, such as 40%.",
    }),
    tables,
    kit: ref("subject", {
      optional: true,
      label: "drops kit of",
      title: "Drops kit of",
      width: 100,
      help: "A test character whose starting kit and money drop on every run, such as Skerry.",
    }),
    wares,
    note,
    own: own(),
  },
});
