/** Fields that several kinds have. */
import { choice } from "../schema/choice";
import { duration } from "../schema/duration";
import { flag } from "../schema/flag";
import { list } from "../schema/group";
import { keyedMap } from "../schema/keyed-map";
import { LEAST, MOST, MOST_LEVEL, MOST_TABLES, MOST_TIMES } from "../schema/limits";
import { money } from "../schema/money";
import { number } from "../schema/number";
import { ref, refs } from "../schema/ref";
import { text } from "../schema/text";
import { own } from "./own";

export const STATUSES = ["stub", "draft", "ready", "retired"] as const;
export type Status = (typeof STATUSES)[number];

/** Records in a bundle are ready unless they say otherwise. */
export const status = choice(STATUSES, { initial: "draft", bundleInitial: "ready" });
export const note = text({ most: 2000, lines: true, width: 120 });

/** What happens to items that do not fit into a bag. */
export const OVERFLOW = ["stored", "refused"] as const;

const inherited = { inheritable: true, optional: true } as const;
export const level = { min: 0, max: MOST_LEVEL, whole: true, optional: true, width: 54 } as const;

/** Drop tables that one run draws from. */
export const tables = list(
  { table: ref("table"), times: number({ min: 1, max: MOST_TIMES, whole: true, initial: 1 }) },
  {
    most: MOST_TABLES,
    noun: "table",
    brief: (said, { times }) => `${times === 1 ? "" : `${times} `}${said("table")}`,
    width: 140,
    help: "Drop tables that one run draws from, such as Surf finds.",
  },
);

/** What an item may leave to its type. */
export const inheritable = {
  level: number({ ...level, ...inherited }),
  icon: text({ most: 80, drawn: "icon", width: 156, ...inherited }),
  stack: number({ min: 1, max: 1e6, whole: true, label: "stack limit", title: "Stack", width: 54, ...inherited }),
  limit: number({
    min: 1,
    max: 1e9,
    whole: true,
    label: "maximum owned",
    title: "Maximum owned",
    width: 114,
    ...inherited,
    help: "The most a player can own, such as 1 for Founders' flag. If empty, no limit.",
  }),
  mass: number({ min: 0, max: MOST, unit: "kg", width: 66, ...inherited, help: "Weight of one, such as 0.4." }),
  buy: money({
    label: "buy price",
    title: "Buy",
    width: 70,
    ...inherited,
    help: "What a player pays for one, such as 12.",
  }),
  sell: money({
    label: "sell price",
    title: "Sell",
    width: 70,
    ...inherited,
    help: "What a player gets for one, such as 8.",
  }),
  sellable: flag({ label: "can be sold", title: "Can be sold", width: 84, ...inherited }),
  droppable: flag({ label: "can be dropped", title: "Can be dropped", width: 106, ...inherited }),
  storable: flag({ label: "can be stored", title: "Can be stored", width: 98, ...inherited }),
  slot: ref("slot", { label: "worn on", title: "Worn on", width: 84, ...inherited }),
  blocks: refs("slot", {
    label: "also blocks",
    title: "Also blocks",
    width: 84,
    inheritable: true,
    help: "Other slots that stay empty while it is worn, such as Hands.",
  }),
  room: number({
    min: 0,
    max: 1000,
    whole: true,
    label: "extra bag slots",
    title: "Extra bag slots",
    width: 104,
    ...inherited,
    help: "Bag slots that it adds while worn, such as 4.",
  }),
  carries: number({
    min: 0,
    max: MOST,
    unit: "kg",
    label: "extra load",
    title: "Extra load",
    width: 76,
    ...inherited,
    help: "Kilograms more that its wearer can carry, such as 10.",
  }),
  carrying: refs("condition", {
    label: "while carried",
    title: "While carried",
    width: 100,
    inheritable: true,
    help: "Conditions a character has while it is in the bag or worn, such as Weighed down.",
  }),
  vessel: ref("item", {
    label: "container",
    title: "Container",
    width: 100,
    ...inherited,
    help: "What it comes in, returned when it is used up, such as Stone crock.",
  }),
  burns: duration({
    label: "fuel time",
    title: "Fuel time",
    width: 74,
    ...inherited,
    help: "How long one burns in a station, such as 60s for Peat brick.",
  }),
  ash: ref("item", {
    label: "residue",
    title: "Residue",
    width: 90,
    ...inherited,
    help: "What remains when one has burned, such as Peat ash.",
  }),
  ashes: number({
    min: 0,
    max: MOST,
    least: LEAST,
    optional: true,
    label: "residue amount",
    title: "Residue amount",
    width: 112,
    inheritable: true,
    help: "How much residue one leaves, such as 0.5. If empty, 1.",
  }),
  fuel: ref("tag", {
    label: "accepted fuel",
    title: "Accepted fuel",
    width: 100,
    ...inherited,
    help: "For stations: the tag of what can burn in it, such as spirit. If empty, anything that burns.",
  }),
  pace: number({
    min: 0,
    max: 100,
    least: 0.001,
    percent: true,
    label: "time multiplier",
    title: "Time multiplier",
    width: 106,
    ...inherited,
    help: "For stations: how much of a recipe's time is needed here, such as 50% for half.",
  }),
  extra: number({
    min: 0,
    max: 1,
    percent: true,
    label: "bonus output chance",
    title: "Bonus output chance",
    width: 138,
    ...inherited,
    help: "For stations: the chance that the result comes once more, such as 10%.",
  }),
  cooldown: ref("cooldown", { label: "cooldown group", title: "Cooldown group", width: 114, ...inherited }),
  stats: keyedMap("stat", number({ min: -MOST, max: MOST }), { inheritable: true, width: 66 }),
  own: own({ inheritable: true }),
} as const;
