"use client";
/** Which columns the shelves show, how wide, which of them stay in sight, and what rows are sorted by. */
import { useMemo } from "react";
import type { Item } from "@/core/kinds/index";
import type { Column, Order } from "../grid/columns";
import { LEAST_WIDTH } from "../grid/head";
import { useKept } from "../pantry/provider";

/** What a person chose; a column is named as it is here, by id. */
export interface Arrangement {
  /** In the order in which they stand; null: as at first. */
  readonly shown: readonly string[] | null;
  readonly widths: { readonly [column: string]: number };
  /** Beside the first, which always stays in sight. */
  readonly pinned: readonly string[];
  readonly orders: readonly Order[];
}
export const AT_FIRST: Arrangement = { shown: null, widths: {}, pinned: [], orders: [{ column: "name", down: false }] };

export interface ShelfColumns {
  readonly visible: readonly Column<Item>[];
  /** How many stay in sight from the left. */
  readonly pinned: number;
  readonly arrangement: Arrangement;
  arrange(next: Partial<Arrangement>): void;
  show(id: string, shown: boolean): void;
  pin(id: string, pinned: boolean): void;
  /** To where another stands, which makes room. */
  place(id: string, to: string): void;
  /** One place to the left (−1) or right (+1). */
  move(id: string, by: -1 | 1): void;
}

/**
 * The columns that are shown, from left to right: the name, what stays in sight, the rest in its order.
 * @param shown  ids, in their order; those that no column has are left out
 */
export function visibleColumns(
  all: readonly Column<Item>[],
  shown: readonly string[],
  { pinned, widths }: Pick<Arrangement, "pinned" | "widths">,
): readonly Column<Item>[] {
  const columns = new Map(all.map((c) => [c.id, c]));
  const order = new Set(["name", ...pinned.filter((id) => shown.includes(id)), ...shown]);
  return [...order].flatMap((id) => {
    const column = columns.get(id);
    if (!column) return [];
    const width = Math.max(LEAST_WIDTH, widths[id] ?? column.width);
    return [{ ...column, width, sized: width !== column.width }];
  });
}

/** @param first  what is shown where no one chose */
export function useShelfColumns(all: readonly Column<Item>[], first: readonly string[]): ShelfColumns {
  const [kept, keep] = useKept<Arrangement>("salty-shelves", AT_FIRST);
  const shown = kept.shown ?? first;
  const visible = useMemo(() => visibleColumns(all, shown, kept), [all, shown, kept]);
  const arrange = (next: Partial<Arrangement>) => keep({ ...kept, ...next });
  const order = visible.map((c) => c.id);
  return {
    visible,
    pinned: 1 + kept.pinned.filter((id) => id !== "name" && order.includes(id)).length,
    arrangement: kept,
    arrange,
    show: (id, is) => arrange({ shown: is ? [...order, id] : order.filter((each) => each !== id) }),
    pin: (id, is) =>
      arrange({ shown: order, pinned: is ? [...kept.pinned, id] : kept.pinned.filter((each) => each !== id) }),
    place(id, to) {
      const at = order.indexOf(to);
      if (at < 1) return;
      const next = order.filter((each) => each !== id);
      next.splice(at, 0, id);
      arrange({ shown: next, pinned: next.filter((each) => kept.pinned.includes(each)) });
    },
    move(id, by) {
      const [from, to] = [order.indexOf(id), order.indexOf(id) + by];
      if (from < 1 || to < 1 || to >= order.length) return;
      const next = [...order];
      [next[from], next[to]] = [next[to], next[from]];
      const pins = next.filter((each) => kept.pinned.includes(each));
      arrange({ shown: next, pinned: pins });
    },
  };
}

/** "name:196 sell *stats.vigour": each column, with a star where it stays in sight, with its width where it was chosen. */
export function formatArrangement({ shown, widths, pinned }: Arrangement, keyed: (id: string) => string): string {
  return (shown ?? [])
    .map((id) => `${pinned.includes(id) ? "*" : ""}${keyed(id)}${widths[id] ? `:${widths[id]}` : ""}`)
    .join(" ");
}
export const formatOrders = (orders: readonly Order[], keyed: (id: string) => string): string =>
  orders.map(({ column, down }) => `${keyed(column)}${down ? " down" : ""}`).join(", ");

/** @param id  from a key to what a column is called here */
export function readArrangement(columns: string, order: string, id: (keyed: string) => string): Arrangement {
  const found = columns.split(/\s+/).flatMap((text) => {
    const [, star, keyed, width] = /^(\*?)([^*:\s]+)(?::(\d{1,4}))?$/.exec(text) ?? [];
    return keyed ? [{ id: id(keyed), pinned: star === "*", width: Number(width ?? 0) }] : [];
  });
  const orders = order.split(",").flatMap((text): Order[] => {
    const [keyed, way] = text.trim().split(/\s+/);
    return keyed ? [{ column: id(keyed), down: way === "down" }] : [];
  });
  return {
    shown: found.length ? found.map((c) => c.id) : null,
    widths: Object.fromEntries(found.flatMap((c) => (c.width ? [[c.id, c.width]] : []))),
    pinned: found.flatMap((c) => (c.pinned ? [c.id] : [])),
    orders: orders.length ? orders : AT_FIRST.orders,
  };
}
