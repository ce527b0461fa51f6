import { screen, within } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";
import { setField } from "@/core/catalogue/edit";
import { item, kitchen } from "@/core/testing/kitchen";
import { inPantry } from "../testing/in-pantry";
import { EveryItem } from "./every-item";

const world = kitchen(
  "buy Salt for 4\nbuy Clay for 1\nbuild: 2 Salt + 2 Clay -> 1 Brick\nfire: 3 Clay -> 1 Tile fee 9 shells\n1 Glass -> 1 Lens",
);
const open = (query: string) => {
  window.history.replaceState(null, "", `/test/costs${query}`);
  return inPantry(world, <EveryItem />);
};

beforeEach(() => window.history.replaceState(null, "", "/"));

describe("the costs", () => {
  it("say where each comes from: its largest base material", async () => {
    await open("");
    const grid = screen.getByRole("grid", { name: "Costs" });
    expect(await within(grid).findByText("Salt 80%")).toBeTruthy();
    expect(within(grid).getByText("Clay 25%")).toBeTruthy();
    expect(within(grid).getAllByText("itself").length).toBe(2);
  });

  it("of two items stand next to each other, down to base materials", async () => {
    const { user } = await open("?of=brick");
    const section = await screen.findByRole("region", { name: "Compare costs" });
    const field = within(section).getByRole("combobox", { name: "Item to compare with" });
    await user.type(field, "Nothing{Enter}");
    expect(await within(section).findByText(/There is no item called “Nothing”/)).toBeTruthy();
    await user.clear(field);
    await user.type(field, "Tile{Enter}");
    expect(window.location.search).toContain("with=tile");
  });

  it("are compared as the address says, and an unobtainable item has none", async () => {
    const { unmount } = await open("?of=brick&with=tile");
    const rows = async () =>
      within(await within(await screen.findByRole("region", { name: "Compare costs" })).findByRole("table"))
        .getAllByRole("row")
        .map((r) => r.textContent);
    expect(await rows()).toEqual([
      "Base materialBrickTile",
      "time and fees of recipes–9.00",
      "Salt28.00–",
      "Clay22.0033.00",
      "in total10.0012.00",
    ]);
    unmount();
    await open("?of=brick&with=lens");
    expect(await screen.findByText("Lens is unobtainable, so it has no cost.")).toBeTruthy();
  });

  it("have a history: each change that moved one, in words, and their cost by level", async () => {
    const { server, user } = await open("?of=brick");
    await user.click(await screen.findByRole("button", { name: "Show what moved this cost" }));
    expect(await screen.findByText("No recent change moved it.")).toBeTruthy();
    const salt = [...server.catalogue.records.source.values()].find((s) =>
      s.lines.some((l) => l.item === item(world, "Salt").id),
    );
    server.commit([setField(server.catalogue, "source", salt?.id as never, "price", 5)]);
    const history = await screen.findByRole("region", { name: "History of the cost" });
    expect(await within(history).findByText("10.00 →")).toBeTruthy();
    expect(await within(history).findByText(/^Price of .* 4 → 5/)).toBeTruthy();
    expect(screen.queryByRole("region", { name: "Cost by level" })).toBeNull();
    const build = [...server.catalogue.records.recipe.values()].find((r) => r.name === "build");
    server.commit([setField(server.catalogue, "recipe", build?.id as never, "level", 3)]);
    expect(
      await within(await screen.findByRole("region", { name: "Cost by level" })).findByText("from level 3"),
    ).toBeTruthy();
  });
});
