import { screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import { recordsOf } from "@/core/catalogue/catalogue";
import type { ChanceTable } from "@/core/kinds/index";
import { demo } from "../testing/demo";
import { inPantry } from "../testing/in-pantry";
import { RecordSheet } from "./record-sheet";

const table = [...recordsOf(demo, "table").values()].find((t) => t.name === "Parcel finds") as ChanceTable;

const shown = async () => {
  const onClose = vi.fn();
  const page = await inPantry(demo, <RecordSheet kind="table" id={table.id} onClose={onClose} />);
  const now = () => recordsOf(page.server.catalogue, "table").get(table.id) as ChanceTable;
  const entries = () => now().draws[0].entries;
  return { ...page, entries, onClose };
};
const list = () => screen.getByRole("group", { name: "Entries" });

describe("the form of a list", () => {
  it("moves, removes and adds entries, each written as soon as all of it is right", async () => {
    const { user, entries } = await shown();
    const before = entries();
    expect(before.length).toBeGreaterThan(1);
    await user.click(within(list()).getAllByRole("button", { name: /^Move .* 1 down$/ })[0]);
    await waitFor(() => expect(entries()[0]).toEqual(before[1]));
    await user.click(within(list()).getAllByRole("button", { name: /^Remove .* 1$/ })[0]);
    await waitFor(() => expect(entries()).toHaveLength(before.length - 1));
    await user.click(within(list()).getByText(/^Add /));
    await waitFor(() => expect(entries()).toHaveLength(before.length));
    // An item that is not named yet is kept here, with what is missing.
    await user.selectOptions(within(list()).getAllByRole("combobox").at(-1) as HTMLElement, "item");
    expect(screen.getByRole("alert").textContent).toContain("Not saved yet.");
    expect(entries().at(-1)?.what).toEqual({ is: "nothing" });
    await user.click(within(screen.getByRole("alert")).getByRole("button", { name: "Discard" }));
    expect(screen.queryByRole("alert")).toBe(null);
  });

  it("keeps a number that can't be read in its input, with the reason, and writes the next one", async () => {
    const { user, entries } = await shown();
    const before = entries()[0].weight;
    const input = within(list()).getAllByRole("textbox", { name: "Weight" })[0] as HTMLInputElement;
    await user.clear(input);
    await user.type(input, "heavy{Enter}");
    expect(input.value).toBe("heavy");
    expect(input.getAttribute("aria-invalid")).toBe("true");
    expect(entries()[0].weight).toBe(before);
    await user.clear(input);
    await user.type(input, "7{Enter}");
    await waitFor(() => expect(entries()[0].weight).toBe(7));
    expect(input.getAttribute("aria-invalid")).toBe("false");
  });

  it("folds fields without a value into one line, and finds one by typing", async () => {
    const { user, onClose } = await shown();
    const folded = screen.queryByRole("button", { name: /empty fields?$/ });
    if (folded) {
      expect(folded.getAttribute("aria-expanded")).toBe("false");
      await user.click(folded);
      expect(folded.getAttribute("aria-expanded")).toBe("true");
    }
    await user.click(screen.getByRole("button", { name: "Close the sheet" }));
    expect(onClose).toHaveBeenCalledOnce();
  });
});
