/** The records of a pantry and their fields: one table that validation, store, exchange and views all read. */

import { fromNumber, subtract, toNumber } from "../numbers/fraction";

declare const idBrand: unique symbol;
/** Immutable name of a record, twelve characters of 0-9a-z. Never shown to people. */
export type Id = string & { readonly [idBrand]: true };

export const KINDS = ["currency", "rarity", "stat", "tag", "type", "item", "recipe", "source"] as const;
export type Kind = (typeof KINDS)[number];

export const STATUSES = ["stub", "draft", "ready", "retired"] as const;
export type Status = (typeof STATUSES)[number];
export const ROLES = ["ingredient", "tool", "station", "output"] as const;
export type Role = (typeof ROLES)[number];

interface Named {
  readonly id: Id;
  /** Lower-case words joined by "_", unique within its kind. */
  readonly key: string;
  readonly name: string;
}

/** Values an item may leave to its type. `null` means "not said here". */
export interface Inheritable {
  readonly level: number | null;
  readonly icon: string | null;
  readonly stack: number | null;
  /** Kilograms of one. */
  readonly mass: number | null;
  /** What a player pays for one, in value units. */
  readonly buy: number | null;
  /** What a player gets for one, in value units. */
  readonly sell: number | null;
  readonly stats: Readonly<Record<string, number>>;
}

export interface ItemType extends Named, Inheritable {
  readonly parent: Id | null;
  readonly colour: string;
}
export interface Stat extends Named {
  readonly unit: string;
  readonly form: "whole" | "decimal" | "percent";
  readonly better: "higher" | "lower" | "neither";
  readonly min: number | null;
  readonly max: number | null;
}
export interface Rarity extends Named {
  /** 1 (plain) to 5; shown as that many grains. */
  readonly rank: number;
  readonly colour: string;
}
export interface Tag extends Named {}
export interface Currency extends Named {
  readonly symbol: string;
  /** Value units one of it is worth. */
  readonly worth: number;
}
export interface Item extends Named, Inheritable {
  readonly type: Id | null;
  readonly rarity: Id | null;
  readonly tags: readonly Id[];
  readonly description: string;
  readonly status: Status;
  readonly note: string;
}
/**
 * One of several weighted alternatives, of which each draw gives one. The lines of a draw share its number, times and
 * `of`.
 */
export interface Draw {
  /** Which draw of the recipe or source, from 1. */
  readonly group: number;
  /** How often is drawn. */
  readonly times: number;
  readonly weight: number;
  /** All weights together; what the lines' own do not make up is the weight of nothing. */
  readonly of: number;
}
/** One entry of a recipe or source. Quantities are per run; a fixed quantity has min = max. */
export interface Line {
  readonly role: Role;
  readonly item: Id;
  readonly min: number;
  readonly max: number;
  /** Probability, 1 for certain. */
  readonly chance: number;
  /** Runs a tool lasts; null for a tool that never wears out and for every other role. */
  readonly uses: number | null;
  /** Absent: it comes (or is taken) by itself. */
  readonly draw?: Draw;
}
export interface Recipe extends Named {
  readonly kind: "craft" | "salvage";
  readonly lines: readonly Line[];
  readonly ticks: number;
  readonly fee: number;
  readonly feeCurrency: Id | null;
  /** Level a character needs; null: none. */
  readonly level: number | null;
  /** Item that teaches it, which must be had once and is kept; null: known from the start. */
  readonly taughtBy: Id | null;
  readonly status: Status;
  readonly note: string;
}
/** Where things enter the world; one run costs its time and price and gives its lines (all of role output). */
export interface Source extends Named {
  readonly kind: "gathering" | "shop";
  readonly lines: readonly Line[];
  readonly ticks: number;
  readonly price: number;
  readonly currency: Id | null;
  readonly note: string;
}
export interface RecordOf {
  currency: Currency;
  rarity: Rarity;
  stat: Stat;
  tag: Tag;
  type: ItemType;
  item: Item;
  recipe: Recipe;
  source: Source;
}
export type AnyRecord = RecordOf[Kind];

/** Settings of a pantry; edited by the same changes as records. */
export interface Pantry {
  readonly id: Id;
  readonly key: string;
  readonly name: string;
  readonly ticksPerSecond: number;
  /** Value units an hour of play is worth; 0 leaves time out of the value. */
  readonly labourPerHour: number;
  /** A sell price below this share of the material cost is a finding. */
  readonly priceFloor: number;
  /** Salvage giving back more than this share of the item's cost is a finding. */
  readonly salvageCeiling: number;
}

/** How a field is written, checked and shown. */
export type Field =
  | {
      readonly as: "text";
      readonly max: number;
      readonly required?: true;
      readonly optional?: true;
      readonly lines?: true;
    }
  | { readonly as: "key" }
  | { readonly as: "colour" }
  | {
      readonly as: "number";
      readonly min: number;
      readonly max: number;
      readonly whole?: true;
      readonly optional?: true;
    }
  | { readonly as: "choice"; readonly of: readonly string[] }
  | { readonly as: "ref"; readonly to: Kind; readonly optional?: true }
  | { readonly as: "refs"; readonly to: Kind }
  | { readonly as: "stats" }
  | { readonly as: "lines"; readonly roles: readonly Role[] };

export const MOST = 1e9;
/** Most of what a player waits for, in ticks. */
export const MOST_TICKS = 1e12;
/** Most of a chance: 100 is 10000%. */
export const MOST_CHANCE = 100;
/** Most lines of one recipe or source, most entries of one list, and most types from one down to its last heir. */
export const MOST_LINES = 200;
export const MOST_LISTED = 200;
export const MOST_DEPTH = 32;
/** Most runs of one draw. */
export const MOST_TIMES = 1000;
/** Most edits of one change that comes over the network; a bundle may hold more. */
export const MOST_EDITS = 50_000;
/** Least quantity or chance above nothing. */
export const LEAST = 1e-9;

/** Lines with those of one draw together, where the first of them stands; every other line by itself. */
export function inDraws<L extends { readonly draw?: Draw }>(lines: readonly L[]): L[][] {
  const groups = new Map<number, L[]>();
  const all: L[][] = [];
  for (const line of lines) {
    const there = line.draw && groups.get(line.draw.group);
    if (there) there.push(line);
    else {
      const group = [line];
      all.push(group);
      if (line.draw) groups.set(line.draw.group, group);
    }
  }
  return all;
}

/** Weight of the entries of a draw that give nothing: what the written ones leave of the whole. */
export const weightOfNothing = (group: readonly { readonly draw?: Draw }[]): number =>
  toNumber(
    group.reduce((rest, l) => subtract(rest, fromNumber(l.draw?.weight ?? 0)), fromNumber(group[0].draw?.of ?? 0)),
  );

/** Weights of a draw go up to a million in steps of a millionth, so that their sum is exact. */
export const isWeight = (w: unknown): w is number =>
  typeof w === "number" && w >= 0 && w <= 1e6 && Number(w.toFixed(6)) === w;
const named = { key: { as: "key" }, name: { as: "text", max: 120, required: true } } as const;
const inheritable = {
  level: { as: "number", min: 0, max: 1000, whole: true, optional: true },
  icon: { as: "text", max: 80, optional: true },
  stack: { as: "number", min: 1, max: 1e6, whole: true, optional: true },
  mass: { as: "number", min: 0, max: MOST, optional: true },
  buy: { as: "number", min: 0, max: MOST, optional: true },
  sell: { as: "number", min: 0, max: MOST, optional: true },
  stats: { as: "stats" },
} as const;
const money = { as: "number", min: 0, max: MOST } as const;
const ticks = { as: "number", min: 0, max: MOST_TICKS, whole: true } as const;
const note = { as: "text", max: 2000, lines: true } as const;
const status = { as: "choice", of: STATUSES } as const;

type Fields<R> = { readonly [F in Exclude<keyof R, "id">]: Field };
export const FIELDS: { readonly [K in Kind]: Fields<RecordOf[K]> } = {
  currency: { ...named, symbol: { as: "text", max: 12 }, worth: { as: "number", min: 1e-6, max: MOST } },
  rarity: { ...named, rank: { as: "number", min: 1, max: 5, whole: true }, colour: { as: "colour" } },
  stat: {
    ...named,
    unit: { as: "text", max: 20 },
    form: { as: "choice", of: ["whole", "decimal", "percent"] },
    better: { as: "choice", of: ["higher", "lower", "neither"] },
    min: { as: "number", min: -MOST, max: MOST, optional: true },
    max: { as: "number", min: -MOST, max: MOST, optional: true },
  },
  tag: named,
  type: { ...named, parent: { as: "ref", to: "type", optional: true }, colour: { as: "colour" }, ...inheritable },
  item: {
    ...named,
    type: { as: "ref", to: "type", optional: true },
    rarity: { as: "ref", to: "rarity", optional: true },
    tags: { as: "refs", to: "tag" },
    ...inheritable,
    description: { as: "text", max: 4000, lines: true },
    status,
    note,
  },
  recipe: {
    ...named,
    kind: { as: "choice", of: ["craft", "salvage"] },
    lines: { as: "lines", roles: ROLES },
    ticks,
    fee: money,
    feeCurrency: { as: "ref", to: "currency", optional: true },
    level: { as: "number", min: 0, max: 1000, whole: true, optional: true },
    taughtBy: { as: "ref", to: "item", optional: true },
    status,
    note,
  },
  source: {
    ...named,
    kind: { as: "choice", of: ["gathering", "shop"] },
    lines: { as: "lines", roles: ["output"] },
    ticks,
    price: money,
    currency: { as: "ref", to: "currency", optional: true },
    note,
  },
};
export const PANTRY_FIELDS: Fields<Pantry> = {
  ...named,
  ticksPerSecond: { as: "number", min: 1, max: 1000, whole: true },
  labourPerHour: money,
  priceFloor: { as: "number", min: 0, max: 100 },
  salvageCeiling: { as: "number", min: 0, max: 100 },
};

const BLANK: { readonly [K in Kind]: Omit<RecordOf[K], "id" | "key" | "name"> } = (() => {
  const open = { level: null, icon: null, stack: null, mass: null, buy: null, sell: null, stats: {} };
  return {
    currency: { symbol: "", worth: 1 },
    rarity: { rank: 1, colour: "#7b8785" },
    stat: { unit: "", form: "whole", better: "higher", min: null, max: null },
    tag: {},
    type: { parent: null, colour: "#2c6e8f", ...open },
    item: { type: null, rarity: null, tags: [], ...open, description: "", status: "draft", note: "" },
    recipe: {
      kind: "craft",
      lines: [],
      ticks: 0,
      fee: 0,
      feeCurrency: null,
      level: null,
      taughtBy: null,
      status: "draft",
      note: "",
    },
    source: { kind: "gathering", lines: [], ticks: 0, price: 0, currency: null, note: "" },
  } as const;
})();

/** Every field of a kind at its resting value, but key and name. */
export const atRest = (kind: Kind): object => BLANK[kind];

/** A record with every field at its resting value; `given` overrides. */
export function blank<K extends Kind>(kind: K, given: Named & Partial<RecordOf[K]>): RecordOf[K] {
  return { ...BLANK[kind], ...given } as unknown as RecordOf[K];
}

/** Fills in what a record from an older log does not say yet. */
export const complete = <K extends Kind>(kind: K, record: RecordOf[K]): RecordOf[K] =>
  Object.keys(BLANK[kind]).every((field) => field in record) ? record : ({ ...BLANK[kind], ...record } as RecordOf[K]);

export const NEW_PANTRY: Omit<Pantry, "id" | "key" | "name"> = {
  ticksPerSecond: 20,
  labourPerHour: 0,
  priceFloor: 1,
  salvageCeiling: 1,
};

/** The word for a kind in sentences. */
export const kindWord = (kind: Kind | "pantry", many = false): string => {
  const plural: Partial<Record<Kind | "pantry", string>> = {
    currency: "currencies",
    rarity: "rarities",
    pantry: "pantries",
  };
  return many ? (plural[kind] ?? `${kind}s`) : kind;
};

export const line = (role: Role, item: Id, min = 1, max = min, chance = 1, uses: number | null = null): Line => ({
  role,
  item,
  min,
  max,
  chance,
  uses,
});
