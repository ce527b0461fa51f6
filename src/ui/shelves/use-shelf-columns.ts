"use client";
/** Which columns the shelves show, how wide, which of them stay in sight, and what rows are sorted by. */
import {
  columnOrderingFeature,
  columnPinningFeature,
  columnSizingFeature,
  columnVisibilityFeature,
  rowSortingFeature,
  tableFeatures,
  useTable,
} from "@tanstack/react-table";
import { useMemo } from "react";
import type { Item } from "@/core/kinds/index";
import type { Column, Order } from "../grid/columns";
import { useKept } from "../pantry/provider";

const features = tableFeatures({
  columnOrderingFeature,
  columnPinningFeature,
  columnSizingFeature,
  columnVisibilityFeature,
  rowSortingFeature,
});
const NO_ROWS: Item[] = [];

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

/** @param first  what is shown where nobody chose */
export function useShelfColumns(all: readonly Column<Item>[], first: readonly string[]): ShelfColumns {
  const [kept, keep] = useKept<Arrangement>("salty-shelves", AT_FIRST);
  const shown = kept.shown ?? first;
  const defs = useMemo(
    () => all.map((c) => ({ id: c.id, header: c.title, size: c.width, accessorFn: (item: Item) => c.sort(item) })),
    [all],
  );
  const visibility = useMemo(
    () => Object.fromEntries(all.map(({ id }) => [id, id === "name" || shown.includes(id)])),
    [all, shown],
  );
  // Rows stand elsewhere: the grid is virtual, and follows changes row by row.
  const table = useTable({
    features,
    data: NO_ROWS,
    columns: defs,
    state: {
      columnOrder: ["name", ...shown.filter((id) => id !== "name")],
      columnVisibility: visibility,
      columnSizing: kept.widths,
      columnPinning: { start: ["name", ...kept.pinned.filter((id) => shown.includes(id))], end: [] },
      sorting: kept.orders.map(({ column, down }) => ({ id: column, desc: down })),
    },
  });
  const arrange = (next: Partial<Arrangement>) => keep({ ...kept, ...next });
  const standing = [...table.getStartVisibleLeafColumns(), ...table.getCenterVisibleLeafColumns()];
  const ids = standing.map((c) => `${c.id} ${c.getSize()}`).join("\t");
  const visible = useMemo(
    () =>
      ids.split("\t").flatMap((text) => {
        const cut = text.lastIndexOf(" ");
        const column = all.find((c) => c.id === text.slice(0, cut));
        const width = Number(text.slice(cut + 1));
        return column ? [{ ...column, width, sized: width !== column.width }] : [];
      }),
    [all, ids],
  );
  const order = visible.map((c) => c.id);
  return {
    visible,
    pinned: table.getStartVisibleLeafColumns().length,
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
