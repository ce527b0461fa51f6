import { fireEvent, screen, within } from "@testing-library/react";
import { beforeEach, describe, expect, it } from "vitest";
import { setField } from "@/core/catalogue/edit";
import { byKey } from "@/core/catalogue/keys";
import type { Item } from "@/core/kinds/index";
import { readModelOf } from "@/core/testing/read-model";
import { demo } from "../testing/demo";
import { inPantry } from "../testing/in-pantry";
import { ChecksView } from "./view";

const open = async (query: string, catalogue = demo) => {
  window.history.replaceState(null, "", `/test/checks${query}`);
  return inPantry(catalogue, <ChecksView />);
};
const shown = () => screen.getByRole("region", { name: "Finding" });
const button = (name: string | RegExp) => within(shown()).getByRole("button", { name });
const option = (name: RegExp) => screen.getByRole("option", { name });

beforeEach(() => {
  window.history.replaceState(null, "", "/");
  localStorage.clear();
  sessionStorage.clear();
});

describe("a finding", () => {
  it("is accepted with a reason, leaves the open ones, and is reopened", async () => {
    const { user, server, unmount } = await open("?rule=dead-end");
    await user.click(button("Accept…"));
    const dialog = await screen.findByRole("dialog", { name: "Accept 1 finding" });
    await user.click(within(dialog).getByRole("button", { name: "Accept" }));
    expect(within(dialog).getByRole("alert").textContent).toBe("Enter a reason.");
    await user.type(within(dialog).getByRole("textbox", { name: "Reason" }), "It is only decoration.");
    await user.type(within(dialog).getByRole("combobox", { name: "Accepted by" }), "Wren");
    await user.click(within(dialog).getByRole("button", { name: "Accept" }));
    expect(await screen.findByText("No matching findings")).toBeTruthy();
    const [decision] = [...server.catalogue.records.decision.values()].filter((d) => d.rule === "dead-end");
    expect([decision.what, decision.reason, decision.person, decision.untilDay]).toEqual([
      "accepted",
      "It is only decoration.",
      "Wren",
      "",
    ]);
    await user.click(screen.getByRole("radio", { name: /^Accepted \d+/ }));
    expect(window.location.search).toContain("show=accepted");
    unmount();
    const again = await open(window.location.search, server.catalogue);
    expect(within(shown()).getByText("Accepted by Wren")).toBeTruthy();
    expect(within(shown()).queryByRole("button", { name: "Accept…" })).toBeNull();
    await again.user.click(button(/^Reopen/));
    expect([...again.server.catalogue.records.decision.values()].some((d) => d.rule === "dead-end")).toBe(false);
  });

  it("is accepted until a day, which must exist, or until it gets worse", async () => {
    const { user, server } = await open("?rule=price-below-cost");
    await user.click(button("Accept…"));
    const dialog = await screen.findByRole("dialog");
    await user.type(within(dialog).getByRole("textbox", { name: "Reason" }), "A loss leader.");
    await user.selectOptions(within(dialog).getByRole("combobox", { name: "Until" }), "day");
    await user.click(within(dialog).getByRole("button", { name: "Accept" }));
    expect(within(dialog).getByRole("alert").textContent).toMatch(/^Enter the last day/);
    await user.selectOptions(within(dialog).getByRole("combobox", { name: "Until" }), "worse");
    await user.click(within(dialog).getByRole("button", { name: "Accept" }));
    await screen.findByText("No matching findings");
    const [decision] = [...server.catalogue.records.decision.values()].filter((d) => d.rule === "price-below-cost");
    expect(decision.atMost).toBeGreaterThan(1);
    // A lower price is a worse loss: the finding is back and says why.
    const item = byKey(server.catalogue, "item", "net_float") as Item;
    server.commit([setField(server.catalogue, "item", item.id, "sell", 1)]);
    expect(await within(shown()).findByText(/worse than what was accepted/)).toBeTruthy();
  });

  it("is assigned to someone, who is then a group and a filter", async () => {
    const { user } = await open("?rule=dead-end");
    await user.click(button("Assign…"));
    const dialog = await screen.findByRole("dialog", { name: "Assign 1 finding" });
    await user.click(within(dialog).getByRole("button", { name: "Assign" }));
    expect(within(dialog).getByRole("alert").textContent).toBe("Enter a person.");
    await user.type(within(dialog).getByRole("combobox", { name: "Assigned to" }), "Ilse");
    await user.click(within(dialog).getByRole("button", { name: "Assign" }));
    expect(await within(shown()).findByText("Assigned to Ilse")).toBeTruthy();
    await user.selectOptions(screen.getByRole("combobox", { name: "Assigned to" }), "Ilse");
    expect(window.location.search).toContain("person=Ilse");
    await user.click(button(/^Clear/));
    expect(await screen.findByText("No matching findings")).toBeTruthy();
  });

  it("is shown where the address names it although it is accepted", async () => {
    const print = [...demo.records.decision.values()].find((d) => d.rule === "over-stack");
    await open("?show=accepted");
    expect(option(/By-product larger than a stack/)).toBeTruthy();
    expect(print).toBeDefined();
  });
});

describe("a group of findings", () => {
  const openGroup = async (name: RegExp) => {
    const page = await open("?group=type");
    await page.user.click(screen.getByRole("treeitem", { name }));
    return page;
  };

  it("is fixed as one change, without what is unchecked", async () => {
    const { user, server } = await openGroup(/^Recipes:/);
    const before = server.catalogue.revision;
    await user.click(button(/^Fix \d+…$/));
    const dialog = await screen.findByRole("dialog", { name: /^Fix \d+ findings$/ });
    expect(within(dialog).getByText(/must be fixed by hand/)).toBeTruthy();
    await user.click(within(dialog).getByRole("checkbox", { name: "Change it to 1 Sea ginger" }));
    await user.click(within(dialog).getByRole("button", { name: "Preview impact" }));
    expect(await within(dialog).findByText(/gains? gone|findings? (gone|resolved|fewer)|cost/)).toBeTruthy();
    await user.click(within(dialog).getByRole("button", { name: /^Apply \d+ fixes$/ }));
    expect(server.catalogue.revision).toBe(before + 1);
    const rules = readModelOf(server.catalogue).findings.map((f) => f.rule);
    expect([rules.includes("gaining-loop"), rules.includes("salvage-drifted")]).toEqual([false, true]);
  });

  it("is accepted at once, a decision for each", async () => {
    const { user, server } = await openGroup(/^Recipes:/);
    const before = server.catalogue.records.decision.size;
    await user.click(button(/^Accept \d+…$/));
    const dialog = await screen.findByRole("dialog");
    await user.type(within(dialog).getByRole("textbox", { name: "Reason" }), "All on purpose.");
    await user.click(within(dialog).getByRole("button", { name: "Accept" }));
    expect(screen.queryByRole("treeitem", { name: /^Recipes:/ })).toBeNull();
    expect(server.catalogue.records.decision.size).toBeGreaterThan(before + 5);
  });
});

describe("what is new and gone", () => {
  it("needs something to compare with: a revision that exists", async () => {
    const { user, unmount } = await open("?show=changes");
    expect(await screen.findByText("Nothing to compare with yet")).toBeTruthy();
    await user.selectOptions(screen.getByRole("combobox", { name: "Compare with" }), "#");
    fireEvent.change(screen.getByRole("textbox", { name: "Revision" }), { target: { value: "9999" } });
    expect(window.location.search).toContain("since=9999");
    unmount();
    await open(window.location.search);
    expect(await screen.findByText(/Revision 9999 doesn't exist yet/)).toBeTruthy();
  });

  it("is told since a revision, with what is gone as it was", async () => {
    const { user, server } = await open(`?show=changes&since=${demo.revision}`);
    expect(await screen.findByText("Nothing changed")).toBeTruthy();
    const stone = byKey(server.catalogue, "item", "slack_water_stone") as Item;
    const rope = byKey(server.catalogue, "item", "rope") as Item;
    server.commit([setField(server.catalogue, "item", stone.id, "sell", 4)]);
    server.commit([setField(server.catalogue, "item", rope.id, "description", "")]);
    expect((await screen.findByText("New")).textContent).toBe("New 1");
    expect(screen.getByText("Gone").textContent).toBe("Gone 1");
    await user.click(option(/Dead end/));
    // The address has it; the next change draws the view again.
    server.commit([setField(server.catalogue, "item", rope.id, "note", "Again.")]);
    expect(await within(shown()).findByText(/is gone since revision/)).toBeTruthy();
    expect(within(shown()).queryByRole("button", { name: "Accept…" })).toBeNull();
  });

  it("is told since the last visit, and a reload belongs to the same visit", async () => {
    localStorage.setItem("salty-seen-test", String(demo.revision));
    const { server, unmount } = await open("?show=changes");
    expect(await screen.findByText("Nothing changed")).toBeTruthy();
    expect(screen.getByRole("option", { name: `Last visit, revision ${demo.revision}` })).toBeTruthy();
    const rope = byKey(server.catalogue, "item", "rope") as Item;
    server.commit([setField(server.catalogue, "item", rope.id, "description", "")]);
    expect((await screen.findByText("New")).textContent).toBe("New 1");
    unmount();
    localStorage.setItem("salty-seen-test", String(demo.revision + 1));
    await inPantry(server.catalogue, <ChecksView />);
    expect(screen.getByRole("option", { name: `Last visit, revision ${demo.revision}` })).toBeTruthy();
  });
});
