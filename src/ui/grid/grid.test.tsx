import { act, fireEvent, render, screen, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { useState } from "react";
import { describe, expect, it, vi } from "vitest";
import type { Column, Order } from "./columns";
import { Grid } from "./grid";
import type { Begin } from "./use-editing";
import type { CellEntry, Refusal } from "./use-entries";

interface Row {
  readonly id: string;
  readonly name: string;
  readonly price: string;
  readonly salted: string;
}

const column = (id: "name" | "price" | "salted", more: Partial<Column<Row>> = {}): Column<Row> => ({
  id,
  title: id,
  width: 160,
  cell: (r) => r[id],
  text: (r) => r[id],
  sort: (r) => r[id],
  edit: {},
  ...more,
});
const COLUMNS = [
  column("name"),
  column("price", { numeric: true }),
  column("salted", { edit: { toggled: (r) => (r.salted === "yes" ? "no" : "yes") } }),
];
const GOODS = ["Eel", "Kelp", "Peat", "Salt"].map((name, n) => ({
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
function shown({ rows: first = GOODS, columns = COLUMNS, refuse = () => null }: Shown = {}) {
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
function here(grid: HTMLElement): string {
  const id = grid.getAttribute("aria-activedescendant") as string;
  return document.getElementById(id)?.textContent ?? "";
}
const picked = (grid: HTMLElement): string[] =>
  within(grid)
    .getAllByRole("gridcell")
    .filter((cell) => cell.getAttribute("aria-selected") === "true")
    .map((cell) => cell.textContent ?? "");

describe("the cursor of a grid", () => {
  it("moves by arrows, Tab, Home, End and Ctrl, and stops at the edges", async () => {
    const { grid, user } = shown();
    grid.focus();
    expect(here(grid)).toBe("Eel");
    await user.keyboard("{ArrowDown}{ArrowRight}");
    expect(here(grid)).toBe("2");
    await user.keyboard("{Control>}{ArrowDown}{/Control}");
    expect(here(grid)).toBe("4");
    await user.keyboard("{ArrowDown}{Home}");
    expect(here(grid)).toBe("Salt");
    await user.keyboard("{End}");
    expect(here(grid)).toBe("no");
    await user.keyboard("{Control>}{Home}{/Control}{ArrowUp}{ArrowLeft}");
    expect(here(grid)).toBe("Eel");
    await user.keyboard("{Tab}{Tab}");
    expect(here(grid)).toBe("no");
    await user.keyboard("{Shift>}{Tab}{/Shift}");
    expect(here(grid)).toBe("1");
  });

  it("leaves the grid by Tab at its last column", async () => {
    const { grid, user } = shown();
    render(<button type="button">After</button>);
    grid.focus();
    await user.keyboard("{End}{Tab}");
    expect(document.activeElement).not.toBe(grid);
  });

  it("stays on its record when others come and go", async () => {
    const { grid, user, change } = shown();
    grid.focus();
    await user.keyboard("{ArrowDown}{ArrowDown}");
    expect(here(grid)).toBe("Peat");
    change([{ id: "cork", name: "Cork", price: "9", salted: "no" }, ...GOODS]);
    expect(here(grid)).toBe("Peat");
    change(GOODS.slice(2));
    expect(here(grid)).toBe("Peat");
  });

  it("shows what is there instead of rows where there are none", () => {
    shown({ rows: [] });
    expect(screen.getByText("Nothing here yet.")).toBeTruthy();
  });
});

describe("selecting", () => {
  it("extends by Shift, takes all by Ctrl+A, tells the rows, and Escape ends it", async () => {
    const { grid, user, told } = shown();
    grid.focus();
    await user.keyboard("{Shift>}{ArrowDown}{ArrowRight}{/Shift}");
    expect(picked(grid)).toEqual(["Eel", "1", "Kelp", "2"]);
    expect(told.selected).toEqual(["Eel", "Kelp"]);
    await user.keyboard("{Control>}a{/Control}");
    expect(told.selected).toEqual(["Eel", "Kelp", "Peat", "Salt"]);
    await user.keyboard("{Escape}");
    expect(told.selected).toEqual([]);
  });

  it("by Shift and a click reaches from the cursor to what is clicked", () => {
    const { grid, told } = shown();
    fireEvent.mouseDown(within(grid).getByText("Kelp"));
    fireEvent.mouseDown(within(grid).getByText("Salt"), { shiftKey: true });
    expect(told.selected).toEqual(["Kelp", "Peat", "Salt"]);
    expect(document.activeElement).toBe(grid);
  });
});

describe("typing", () => {
  it("replaces what is there, and Enter goes on below", async () => {
    const { grid, user, written } = shown();
    grid.focus();
    await user.keyboard("{ArrowRight}7{Enter}8{Tab}");
    expect(written).toEqual(["Eel.price=7", "Kelp.price=8"]);
    expect(here(grid)).toBe("no");
    expect(document.activeElement).toBe(grid);
  });

  it("F2 edits what is there, Escape gives it back, and what is left as it was is not written", async () => {
    const { grid, user, written } = shown();
    grid.focus();
    await user.keyboard("{F2}");
    const input = screen.getByRole("textbox", { name: "name, row 1" }) as HTMLInputElement;
    expect(input.value).toBe("Eel");
    await user.keyboard("Elver{Escape}");
    expect(here(grid)).toBe("Eel");
    await user.keyboard("{F2}{Enter}");
    expect(written).toEqual([]);
    expect(here(grid)).toBe("Kelp");
  });

  it("into a row that is taken away is not lost and goes into no other row", async () => {
    const { grid, user, written, change } = shown();
    grid.focus();
    await user.keyboard("Elver");
    change(GOODS.slice(1));
    expect(screen.getByRole("alert").textContent).toBe("“Elver” was not saved, because its row is no longer shown.");
    expect(written).toEqual([]);
    expect(document.activeElement).toBe(grid);
  });

  it("follows its record when another comes before it", async () => {
    const { grid, user, written, change } = shown();
    grid.focus();
    await user.keyboard("{ArrowDown}Kel");
    change([{ id: "cork", name: "Cork", price: "9", salted: "no" }, ...GOODS]);
    await user.keyboard("pie{Enter}");
    expect(written).toEqual(["Kelp.name=Kelpie"]);
  });

  it("begins in the name of a new record, and Enter makes no other and stays with it", async () => {
    const { grid, user, written, change } = shown();
    change([...GOODS, { id: "new", name: "New item", price: "", salted: "no" }], { key: "new", column: "name" });
    expect((document.activeElement as HTMLInputElement).value).toBe("New item");
    await user.keyboard("Tar{Enter}");
    expect(written).toEqual(["New item.name=Tar"]);
    expect(here(grid)).toBe("Tar");
  });

  it("Space turns a yes into a no, and opens the record elsewhere", async () => {
    const { grid, user, written, opened } = shown();
    grid.focus();
    await user.keyboard(" {End} ");
    expect(opened).toEqual(["Eel"]);
    expect(written).toEqual(["Eel.salted=yes"]);
  });

  it("Delete clears what is selected", async () => {
    const { grid, user, written } = shown();
    grid.focus();
    await user.keyboard("{ArrowRight}{Shift>}{ArrowDown}{/Shift}{Delete}");
    expect(written).toEqual(["Eel.price=", "Kelp.price="]);
  });

  it("Ctrl+D fills down, with Shift as a series", async () => {
    const { grid, user, written } = shown();
    grid.focus();
    await user.keyboard("{ArrowRight}{Shift>}{ArrowDown}{ArrowDown}{/Shift}{Control>}d{/Control}");
    expect(written).toEqual(["Kelp.price=1", "Peat.price=1"]);
    written.length = 0;
    await user.keyboard("{Escape}{Control>}{Home}{/Control}{ArrowRight}{ArrowDown}3{Enter}{ArrowUp}{ArrowUp}");
    written.length = 0;
    await user.keyboard("{Shift>}{Control>}{ArrowDown}{/Control}{Control>}D{/Control}{/Shift}");
    expect(written).toEqual(["Eel.price=1", "Kelp.price=3", "Peat.price=5", "Salt.price=7"]);
  });
});

describe("what can be done with a row", () => {
  it("stands in its first cell, and neither moves the cursor nor opens the row", async () => {
    const { grid, user, told } = shown();
    grid.focus();
    await user.click(within(grid).getAllByRole("button", { name: "Duplicate", hidden: true })[2]);
    expect(told.acted).toEqual(["Peat"]);
    expect(told.opened).toEqual([]);
    expect(here(grid)).toBe("Eel");
  });
});

describe("the clipboard", () => {
  const clipboard = (text = "") => {
    const data = { text };
    return {
      data,
      clipboardData: {
        getData: () => data.text,
        setData: (_: string, value: string) => {
          data.text = value;
        },
      },
    };
  };

  it("copies what is selected as a block, and pastes one beside it", async () => {
    const { grid, user, written } = shown();
    grid.focus();
    await user.keyboard("{Shift>}{ArrowDown}{ArrowRight}{/Shift}");
    const block = clipboard();
    fireEvent.copy(grid, block);
    expect(block.data.text).toBe("Eel\t1\nKelp\t2");
    await user.keyboard("{Escape}{Control>}{Home}{/Control}{ArrowDown}{ArrowDown}");
    await act(async () => void fireEvent.paste(grid, clipboard("Tar\t5\nCork\t6")));
    expect(written).toEqual(["Peat.name=Tar", "Peat.price=5", "Salt.name=Cork", "Salt.price=6"]);
  });

  it("says what of a block found no place", async () => {
    const fixed = [COLUMNS[0], column("price", { edit: undefined })];
    const { grid, user } = shown({ columns: fixed });
    grid.focus();
    await user.keyboard("{Control>}{ArrowDown}{/Control}");
    await act(async () => void fireEvent.paste(grid, clipboard("Tar\t5\nCork\t6")));
    expect(screen.getByRole("alert").textContent).toBe(
      "1 pasted cell was skipped, because the column can't be edited. 2 pasted cells are below the last row. Use “Import” to create records from pasted cells.",
    );
  });
});

describe("what can't be read", () => {
  const refuse = (entries: readonly CellEntry<Row>[]): Refusal | null => {
    const faults = entries.flatMap((e, at) =>
      e.column === "price" && !/^\d*$/.test(e.text) ? [{ at, message: `“${e.text}” isn't a number.` }] : [],
    );
    return faults.length ? { message: faults[0].message, faults } : null;
  };

  it("stays marked in its cell, is found by Next, and nothing of its block is written until it is said", async () => {
    const { grid, user, written } = shown({ refuse });
    grid.focus();
    await user.keyboard("{ArrowRight}");
    await act(
      async () =>
        void fireEvent.paste(grid, { clipboardData: { getData: () => "5\nplenty\n7" } as unknown as DataTransfer }),
    );
    expect(written).toEqual([]);
    const alert = screen.getByRole("alert");
    expect(alert.textContent).toContain("1 cell can't be read and stays marked: “plenty” isn't a number.");
    expect(within(grid).getByText("plenty").getAttribute("title")).toBe("“plenty” isn't a number.");
    await user.click(within(alert).getByRole("button", { name: "Next" }));
    expect(here(grid)).toBe("plenty");
    await user.keyboard("6{Enter}");
    expect(written).toEqual(["Kelp.price=6"]);
    await user.click(screen.getByRole("button", { name: "Save the other 2" }));
    expect(written).toEqual(["Kelp.price=6", "Eel.price=5", "Peat.price=7"]);
    expect(screen.queryByRole("alert")).toBe(null);
  });

  it("is discarded by its button, and the cell shows what it had", async () => {
    const { grid, user, written } = shown({ refuse });
    grid.focus();
    await user.keyboard("{ArrowRight}plenty{Enter}");
    expect(within(grid).getByText("plenty")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Discard" }));
    expect(within(grid).queryByText("plenty")).toBe(null);
    expect(within(grid).getByText("1")).toBeTruthy();
    expect(written).toEqual([]);
  });

  it("a refusal without a cell is a sentence below, and goes with the next key", async () => {
    const { grid, user } = shown({ refuse: () => ({ message: "The pantry is read-only for a moment.", faults: [] }) });
    grid.focus();
    await user.keyboard("Elver{Enter}");
    expect(screen.getByRole("alert").textContent).toBe("The pantry is read-only for a moment.");
    await user.keyboard("{ArrowDown}");
    expect(screen.queryByRole("alert")).toBe(null);
  });
});

describe("heads", () => {
  it("sort by a press, the other way by a second, and by a further column with Shift", async () => {
    const { grid, user } = shown();
    const head = (name: string) => within(grid).getByRole("columnheader", { name: new RegExp(`^${name}`) });
    const press = (name: string) => user.click(within(head(name)).getAllByRole("button")[0]);
    await press("price");
    expect(head("price").getAttribute("aria-sort")).toBe("ascending");
    await press("price");
    expect(head("price").getAttribute("aria-sort")).toBe("descending");
    await user.keyboard("{Shift>}");
    await press("name");
    await user.keyboard("{/Shift}");
    expect(head("price").getAttribute("aria-sort")).toBe("descending");
    expect(head("name").getAttribute("aria-sort")).toBe("ascending");
  });
});
