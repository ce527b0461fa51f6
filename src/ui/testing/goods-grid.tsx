/** A grid over a few goods for tests, which saves what is typed and records what it reports. */
import { act, render, screen, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { useState } from "react";
import { vi } from "vitest";
import type { Column, Order } from "../grid/columns";
import { Grid } from "../grid/grid";
import type { Begin } from "../grid/use-editing";
import type { CellEntry, Refusal } from "../grid/use-entries";

export interface Row {
  readonly id: string;
  readonly name: string;
  readonly price: string;
  readonly salted: string;
}

export const column = (id: "name" | "price" | "salted", more: Partial<Column<Row>> = {}): Column<Row> => ({
  id,
  title: id,
  width: 160,
  cell: (r) => r[id],
  text: (r) => r[id],
  sort: (r) => r[id],
  edit: {},
  ...more,
});
export const COLUMNS = [
  column("name"),
  column("price", { numeric: true }),
  column("salted", { edit: { toggled: (r) => (r.salted === "yes" ? "no" : "yes") } }),
];
export const GOODS = ["Eel", "Kelp", "Peat", "Salt"].map((name, n) => ({
  id: name.toLowerCase(),
  name,
  price: String(n + 1),
  salted: "no",
}));

interface Shown {
  readonly rows?: readonly Row[];
  readonly columns?: readonly Column<Row>[];
  readonly refuse?: (entries: readonly CellEntry<Row>[]) => Refusal | null;
}

/** A grid over goods that are written as they are typed, and what it told. */
export function shown({ rows: first = GOODS, columns = COLUMNS, refuse = () => null }: Shown = {}) {
  const told = {
    written: [] as string[],
    opened: [] as string[],
    acted: [] as string[],
    selected: [] as string[],
    active: vi.fn<(row: Row) => void>(),
  };
  let change: (rows: readonly Row[], begin?: Begin) => void = () => {};
  function Goods() {
    const [rows, setRows] = useState(first);
    const [orders, setOrders] = useState<readonly Order[]>([]);
    const [begin, setBegin] = useState<Begin | null>(null);
    change = (next, at) => {
      setRows(next);
      if (at) setBegin(at);
    };
    return (
      <Grid
        label="Goods"
        rows={rows}
        columns={columns}
        keyOf={(r) => r.id}
        orders={orders}
        onOrders={setOrders}
        onActive={told.active}
        onOpen={(r) => told.opened.push(r.name)}
        onSelection={(list) => {
          told.selected = list.map((r) => r.name);
        }}
        onWrite={async (entries) => {
          const refused = refuse(entries);
          if (refused) return refused;
          told.written.push(...entries.map((e) => `${e.row.name}.${e.column}=${e.text}`));
          setRows((all) =>
            all.map((r) => {
              const mine = entries.filter((e) => e.row.id === r.id);
              return mine.length ? { ...r, ...Object.fromEntries(mine.map((e) => [e.column, e.text])) } : r;
            }),
          );
          return null;
        }}
        begin={begin}
        action={{ label: "Duplicate", icon: <svg /> }}
        onAction={(r) => told.acted.push(r.name)}
        empty={<p>Nothing here yet.</p>}
      />
    );
  }
  render(<Goods />);
  const grid = screen.getByRole("grid", { name: "Goods" });
  const user = userEvent.setup();
  return { ...told, told, grid, user, change: (rows: readonly Row[], begin?: Begin) => act(() => change(rows, begin)) };
}

/** The text of the cell the cursor is on. */
export function here(grid: HTMLElement): string {
  const id = grid.getAttribute("aria-activedescendant") as string;
  return document.getElementById(id)?.textContent ?? "";
}
export const picked = (grid: HTMLElement): string[] =>
  within(grid)
    .getAllByRole("gridcell")
    .filter((cell) => cell.getAttribute("aria-selected") === "true")
    .map((cell) => cell.textContent ?? "");
