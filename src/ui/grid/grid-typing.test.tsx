import { act, fireEvent, screen, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { column, COLUMNS, GOODS, here, type Row, shown } from "../testing/goods-grid";
import type { CellEntry, Refusal } from "./use-entries";

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
