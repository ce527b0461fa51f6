/** How things become other things. */
import { parseLine } from "../notation/parser";
import { words } from "../notation/parsed";
import { ROLES } from "../notation/roles";
import { choice } from "../schema/choice";
import { duration } from "../schema/duration";
import { defineKind } from "../schema/kind";
import { money } from "../schema/money";
import { number } from "../schema/number";
import { ref } from "../schema/ref";
import { lines } from "./lines";
import { recipeFields } from "./parsed";
import { level, note, status } from "./shared";
import { own } from "./own";

export const recipe = defineKind({
  name: "recipe",
  plural: "recipes",
  section: "recipes",
  help: "How things become other things.",
  fields: {
    kind: choice(["craft", "salvage"], { width: 90 }),
    lines: lines(ROLES),
    ticks: duration({ label: "time", title: "Time", bundled: "time", width: 80 }),
    fee: money({ currency: "feeCurrency" }),
    feeCurrency: ref("currency", { optional: true, label: "fee currency", within: "fee" }),
    level: number({ ...level, help: "Level a character needs." }),
    taughtBy: ref("item", {
      optional: true,
      label: "teaching item",
      help: "Item that teaches it, which must be had once and is kept.",
    }),
    status,
    note,
    own: own(),
  },
  notation: {
    says: ["kind", "ingredients", "outputs", "stations", "tools", "draws", "time", "fee", "level", "taughtBy"],
    read(text, around, make) {
      const parsed = parseLine(text, words(around));
      return { fields: parsed.ok ? recipeFields(parsed, make) : null, issues: parsed.issues };
    },
  },
});
