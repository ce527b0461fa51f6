/** Lines of a recipe or source, and draws among them. */
import { fromNumber, subtract, toNumber } from "../numbers/fraction";
import type { Id } from "../schema/id";
import { MOST_WEIGHT } from "../schema/limits";
import type { Surroundings } from "../schema/field";
import type { ClauseValues, VariantValues } from "../clauses/all";
import type { Role } from "./roles";

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

/** A share of 1 that each point of a stat of the maker adds to a chance, or takes off it. */
export interface Bonus {
  readonly share: number;
  readonly stat: Id;
}

/** What an entry names: an item, or any item with a tag. */
export type LineTarget =
  | { readonly item: Id; readonly any?: undefined }
  | { readonly item?: undefined; readonly any: Id };

/** "River eel", "any fish". */
export const sayNamed = ({ item, any }: LineTarget, around: Pick<Surroundings, "nameOf">): string =>
  any === undefined ? around.nameOf("item", item) : `any ${around.nameOf("tag", any)}`;

/** One entry of a recipe or source. Quantities are per run; a fixed quantity has min = max. */
export type Line = LineTarget & Amounts;

/** How much of it comes or is taken, and how surely. */
export interface Amounts {
  readonly role: Role;
  readonly min: number;
  readonly max: number;
  /** Probability, 1 for certain. */
  readonly chance: number;
  /** Runs a tool lasts; null for a tool that never wears out and for every other role. */
  readonly uses: number | null;
  /** Absent: it comes (or is taken) by itself. */
  readonly draw?: Draw;
  /** How much surer (or less sure) it comes with each point of a stat of whoever makes it. */
  readonly bonus?: Bonus;
  /** What it is in is taken with it, and does not come back. */
  readonly whole?: boolean;
  /** Its places in a pattern, or in what is combined: a bit for each (places.ts). */
  readonly cells?: number;
}

/** An entry of what is known to be an item. */
export type ItemLine = Amounts & { readonly item: Id; readonly any?: undefined };

/** What comes out, which is always an item. */
export const outputsOf = (lines: readonly Line[]): readonly ItemLine[] =>
  lines.filter((l): l is ItemLine => l.role === "output" && l.any === undefined);

/** Most that a line gives or takes in one run. */
export const mostOf = ({ max, draw }: Amounts): number => max * (draw?.times ?? 1);

export const line = (role: Role, item: Id, min = 1, max = min, chance = 1, uses: number | null = null): ItemLine => ({
  role,
  item,
  min,
  max,
  chance,
  uses,
});

/** Lines with those of one draw together, where the first of them stands; every other line by itself. */
export function inDraws<L extends { readonly draw?: Draw }>(lines: readonly L[]): L[][] {
  const groups = new Map<number, L[]>();
  const all: L[][] = [];
  for (const each of lines) {
    const there = each.draw && groups.get(each.draw.group);
    if (there) there.push(each);
    else {
      const group = [each];
      all.push(group);
      if (each.draw) groups.set(each.draw.group, group);
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
  typeof w === "number" && w >= 0 && w <= MOST_WEIGHT && Number(w.toFixed(6)) === w;

/** What a recipe line says of a recipe. */
export interface RecipeParts extends ClauseValues {
  readonly name: string;
  readonly kind: RecipeKind;
  readonly lines: readonly Line[];
  readonly tables: readonly FromTable[];
  readonly grid: Grid;
  readonly variants: readonly Variant[];
}

/** A table, and how often one run draws from it. */
export interface FromTable {
  readonly table: Id;
  readonly times: number;
}

export const RECIPE_KINDS = ["craft", "salvage", "combine", "pattern"] as const;
export type RecipeKind = (typeof RECIPE_KINDS)[number];

/** The grid of a pattern, and in which other ways it may lie. Of two things that are combined: mirrored, order is free. */
export interface Grid {
  readonly width: number;
  readonly height: number;
  readonly shifted: boolean;
  readonly mirrored: boolean;
  readonly turned: boolean;
}

/** Another way of a recipe: only what differs. A role that stands among its lines stands for all of that role. */
export interface Variant extends VariantValues {
  readonly name: string;
  readonly lines: readonly Line[];
}
