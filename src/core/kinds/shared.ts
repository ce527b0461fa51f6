/** Fields that several kinds have. */
import { choice } from "../schema/choice";
import { keyedMap } from "../schema/keyed-map";
import { MOST } from "../schema/limits";
import { money } from "../schema/money";
import { number } from "../schema/number";
import { text } from "../schema/text";

export const STATUSES = ["stub", "draft", "ready", "retired"] as const;
export type Status = (typeof STATUSES)[number];

/** What is in a bundle is ready unless it says otherwise. */
export const status = choice(STATUSES, { initial: "draft", bundleInitial: "ready" });
export const note = text({ most: 2000, lines: true, width: 120 });

const inherited = { inheritable: true, optional: true } as const;
export const level = { min: 0, max: 1000, whole: true, optional: true, width: 54 } as const;

/** What an item may leave to its type. */
export const inheritable = {
  level: number({ ...level, ...inherited }),
  icon: text({ most: 80, drawn: "icon", width: 156, ...inherited }),
  stack: number({ min: 1, max: 1e6, whole: true, label: "stack limit", title: "Stack", width: 54, ...inherited }),
  mass: number({ min: 0, max: MOST, title: "Mass kg", width: 66, ...inherited, help: "Kilograms of one." }),
  buy: money({ label: "buy price", title: "Buy", width: 58, ...inherited, help: "What a player pays for one." }),
  sell: money({ label: "sell price", title: "Sell", width: 58, ...inherited, help: "What a player gets for one." }),
  stats: keyedMap("stat", number({ min: -MOST, max: MOST }), { inheritable: true, width: 70 }),
} as const;
