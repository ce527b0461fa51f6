/** A drop table: guaranteed entries, entries rolled independently, and draws by weight. */
import { sayRange } from "../numbers/format";
import type { Brief } from "../schema/field";
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
  min: amount("minimum"),
  max: amount("maximum", "Amounts from minimum to maximum are equally likely, such as 2 to 4."),
  from: number({ ...level, label: "from level" }),
  to: number({ ...level, label: "to level" }),
} as const;
const most = 200;

/** "2–4 Hemp yarn, from level 5", as it stands in a line of a recipe. */
const entry: Brief = (said, { min, max }) => {
  const amount = min === 1 && max === 1 ? "" : `${sayRange(min as number, max as number)} `;
  const levels = ["from", "to"].flatMap((name) => (said(name) ? [`, ${name} level ${said(name)}`] : []));
  return `${amount}${said("what") || "nothing"}${levels.join("")}`;
};
const behind =
  (name: string, sign: string): Brief =>
  (said, value) =>
    `${said(name) || value[name]}${sign} ${entry(said, value)}`;

export const table = defineKind({
  name: "table",
  section: "tables",
  table: "chance_table",
  help: "Random drops from a crate, creature or haul, such as Wreck finds. Drop tables can contain drop tables.",
  fields: {
    always: list(gives, { most, noun: "guaranteed entry", brief: entry, width: 160 }),
    chances: list(
      { chance: number({ min: 0, max: 1, percent: true }), ...gives },
      {
        most,
        noun: "independent entry",
        brief: behind("chance", ""),
        width: 160,
        help: "Each entry is rolled independently, such as 25% Mud pearl.",
      },
    ),
    draws: list(
      {
        times: number({ min: 1, max: MOST_TIMES, whole: true, initial: 1 }),
        back: flag({
          initial: true,
          label: "can repeat",
          help: "Choose no so that each entry is drawn at most once, such as one of each oyster.",
        }),
        entries: list(
          { weight: number({ min: 0, max: MOST_WEIGHT, places: 6, initial: 1 }), ...gives },
          { most, noun: "weighted entry", brief: behind("weight", ":") },
        ),
      },
      {
        most: 40,
        noun: "draw",
        brief: (said, { times, back }) =>
          `${times} ${times === 1 ? "draw" : "draws"}${back ? "" : " without repeats"} ${said("entries") ? `{ ${said("entries").replaceAll("; ", " | ")} }` : "from nothing"}`,
        width: 220,
      },
    ),
    note,
  },
});
