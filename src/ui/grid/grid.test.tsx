import { fireEvent, render, screen, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { GOODS, here, picked, shown } from "../testing/goods-grid";

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
