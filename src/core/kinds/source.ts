/** Where things enter the world; one run costs its time and price and gives its lines. */
import { choice } from "../schema/choice";
import { duration } from "../schema/duration";
import { defineKind } from "../schema/kind";
import { money } from "../schema/money";
import { ref } from "../schema/ref";
import { lines } from "./lines";
import { note } from "./shared";
import { own } from "./own";

export const source = defineKind({
  name: "source",
  plural: "sources",
  section: "sources",
  help: "Where things enter the world: gathering with its time, shops with their price.",
  fields: {
    kind: choice(["gathering", "shop"], { width: 90 }),
    lines: lines(["output"], { title: "Gives", width: 310 }),
    ticks: duration({ label: "time", title: "Time", bundled: "time", width: 80 }),
    price: money({ currency: "currency" }),
    currency: ref("currency", { optional: true, within: "price", width: 100 }),
    note,
    own: own(),
  },
});
