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

/** What is in a bundle is ready unless it says otherwise. */
export const status = choice(STATUSES, { initial: "draft", bundleInitial: "ready" });
export const note = text({ most: 2000, lines: true, width: 120 });

/** What becomes of things that do not fit a bag. */
export const OVERFLOW = ["stored", "refused"] as const;

const inherited = { inheritable: true, optional: true } as const;
export const level = { min: 0, max: MOST_LEVEL, whole: true, optional: true, width: 54 } as const;

/** Tables that one run draws from. */
export const tables = list(
  { table: ref("table"), times: number({ min: 1, max: MOST_TIMES, whole: true, initial: 1 }) },
  {
    most: MOST_TABLES,
    noun: "table",
    brief: (said, { times }) => `${times === 1 ? "" : `${times} `}${said("table")}`,
    width: 140,
    help: "Tables that one run draws from.",
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
    label: "most one may own",
    title: "Own at most",
    width: 84,
    ...inherited,
    help: "Of one and the same item; nothing: as many as there are.",
  }),
  mass: number({ min: 0, max: MOST, unit: "kg", width: 66, ...inherited, help: "Kilograms of one." }),
  buy: money({ label: "buy price", title: "Buy", width: 70, ...inherited, help: "What a player pays for one." }),
  sell: money({ label: "sell price", title: "Sell", width: 70, ...inherited, help: "What a player gets for one." }),
  sellable: flag({ label: "may be sold", title: "Sold", width: 56, ...inherited }),
  droppable: flag({ label: "may be dropped", title: "Dropped", width: 66, ...inherited }),
  storable: flag({ label: "may be stored", title: "Stored", width: 60, ...inherited }),
  slot: ref("slot", { label: "worn on", title: "Worn on", width: 84, ...inherited }),
  blocks: refs("slot", {
    label: "blocks also",
    title: "Blocks",
    width: 84,
    inheritable: true,
    help: "Slots in which nothing else can be worn with it.",
  }),
  room: number({
    min: 0,
    max: 1000,
    whole: true,
    label: "bag room",
    title: "Room",
    width: 60,
    ...inherited,
    help: "Slots of a bag that wearing it adds.",
  }),
  carries: number({
    min: 0,
    max: MOST,
    unit: "kg",
    width: 66,
    ...inherited,
    help: "Kilograms more that one can carry while wearing it.",
  }),
  carrying: refs("condition", {
    label: "while carried",
    title: "While carried",
    width: 100,
    inheritable: true,
    help: "Conditions that a character has for as long as it is in the bag or worn.",
  }),
  vessel: ref("item", {
    title: "Vessel",
    width: 100,
    ...inherited,
    help: "What it is in, which comes back when it is used up.",
  }),
  burns: duration({
    label: "burns for",
    title: "Burns",
    width: 70,
    ...inherited,
    help: "How long one of it gives heat.",
  }),
  ash: ref("item", {
    label: "leaves when burnt",
    title: "Leaves burnt",
    width: 90,
    ...inherited,
    help: "What is left of one when it has burnt.",
  }),
  ashes: number({
    min: 0,
    max: MOST,
    least: LEAST,
    optional: true,
    label: "amount left",
    title: "Amount left",
    width: 70,
    inheritable: true,
    help: "How much is left of one when it has burnt, such as 0.5. If empty, 1.",
  }),
  fuel: ref("tag", {
    label: "burns only",
    title: "Burns only",
    width: 90,
    ...inherited,
    help: "As a station: the tag of what may burn in it. Nothing: whatever burns.",
  }),
  pace: number({
    min: 0,
    max: 100,
    least: 0.001,
    percent: true,
    label: "time at it",
    title: "Time at it",
    width: 74,
    ...inherited,
    help: "As a station: of the time that a recipe says, so much is needed. 50%: half of it.",
  }),
  extra: number({
    min: 0,
    max: 1,
    percent: true,
    label: "extra at it",
    title: "Extra",
    width: 60,
    ...inherited,
    help: "As a station: the chance that what is made there comes once more.",
  }),
  cooldown: ref("cooldown", { label: "waits with", title: "Waits with", width: 90, ...inherited }),
  stats: keyedMap("stat", number({ min: -MOST, max: MOST }), { inheritable: true, width: 66 }),
  own: own({ inheritable: true }),
} as const;
