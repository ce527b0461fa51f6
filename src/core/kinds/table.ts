/** What comes by chance: certain things, each with its own chance, and draws by weight. */
import { flag } from "../schema/flag";
import { list } from "../schema/group";
import { defineKind } from "../schema/kind";
import { LEAST, MOST, MOST_TIMES, MOST_WEIGHT } from "../schema/limits";
import { number } from "../schema/number";
import { ref } from "../schema/ref";
import { union } from "../schema/union";
import { level, note } from "./shared";

const what = union(
  { nothing: {}, item: { item: ref("item") }, currency: { currency: ref("currency") }, table: { table: ref("table") } },
  { is: "nothing" },
);
const amount = (label: string, help?: string) => number({ min: 0, max: MOST, least: LEAST, initial: 1, label, help });
/** What an entry gives, how much of it, and between which levels of whoever draws. */
const gives = {
  what,
  min: amount("least"),
  max: amount("most", "What lies between the two comes equally often."),
  from: number({ ...level, label: "from level" }),
  to: number({ ...level, label: "to level" }),
} as const;
const most = 200;

export const table = defineKind({
  name: "table",
  plural: "tables",
  section: "tables",
  table: "chance_table",
  help: "What comes by chance, out of a crate, a creature, a haul. Tables may stand in tables.",
  fields: {
    always: list(gives, { most, noun: "certain entry", width: 160 }),
    chances: list(
      { chance: number({ min: 0, max: 1, percent: true }), ...gives },
      { most, noun: "chance", width: 160, help: "Each comes or not, whatever the others do." },
    ),
    draws: list(
      {
        times: number({ min: 1, max: MOST_TIMES, whole: true, initial: 1 }),
        back: flag({ initial: true, label: "put back", help: "No: what was drawn is not drawn again." }),
        entries: list(
          { weight: number({ min: 0, max: MOST_WEIGHT, places: 6, initial: 1 }), ...gives },
          { most, noun: "weighed entry" },
        ),
      },
      { most: 40, noun: "draw", width: 220 },
    ),
    note,
  },
});
