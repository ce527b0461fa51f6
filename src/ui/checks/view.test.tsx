import { fireEvent, screen, within } from "@testing-library/react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { demo } from "../testing/demo";
import { inPantry } from "../testing/in-pantry";
import { ChecksView } from "./view";

const open = (query: string) => {
  window.history.replaceState(null, "", `/test/checks${query}`);
  return inPantry(demo, <ChecksView />);
};
const tree = () => screen.getByRole("tree", { name: "Findings" });
const groups = () => screen.getAllByRole("treeitem").filter((e) => e.getAttribute("aria-level") === "1");
const inside = () => screen.queryAllByRole("treeitem").filter((e) => e.getAttribute("aria-level") === "2");
const press = (key: string) => fireEvent.keyDown(tree(), { key });
const cursor = () => tree().getAttribute("aria-activedescendant");

beforeEach(() => window.history.replaceState(null, "", "/"));

describe("the list of findings", () => {
  it("is grouped by severity at first, and nothing folds", async () => {
    await open("");
    const list = screen.getByRole("listbox", { name: "Findings" });
    expect(within(list).getByText("Errors").textContent).toMatch(/^Errors \d+$/);
    expect(screen.queryByRole("tree")).toBeNull();
    expect(screen.queryByRole("button", { name: "Expand all" })).toBeNull();
  });

  it("folds groups, says how many errors and warnings are in each, and opens one by mouse", async () => {
    const { user } = await open("?group=rule");
    expect(groups().length).toBeGreaterThan(5);
    expect(inside()).toEqual([]);
    const gaining = screen.getByRole("treeitem", { name: "Gaining loop: 1 error" });
    expect(gaining.getAttribute("aria-expanded")).toBe("false");
    await user.click(gaining);
    expect(gaining.getAttribute("aria-expanded")).toBe("true");
    expect(inside().map((e) => e.textContent)).toEqual([expect.stringContaining("2 recipes give 2 Hemp yarn")]);
    await user.click(gaining);
    expect(inside()).toEqual([]);
  });

  it("is gone through by keys: right opens, left closes or goes to the group, enter turns", async () => {
    await open("?group=rule");
    press("ArrowDown");
    expect(cursor()).toBe("group-gaining-loop");
    press("ArrowLeft");
    expect(inside()).toEqual([]);
    press("ArrowRight");
    expect(inside().length).toBe(1);
    press("ArrowRight");
    expect(window.location.search).toContain("finding=");
    expect(window.location.search).toContain("group=rule");
    press("ArrowUp");
    press("Enter");
    expect(inside()).toEqual([]);
    press("ArrowDown");
    expect(cursor()).not.toBe("group-gaining-loop");
    expect(cursor()).toMatch(/^group-/);
  });

  it("opens and closes all groups at once", async () => {
    const { user } = await open("?group=type");
    await user.click(screen.getByRole("button", { name: "Expand all" }));
    expect(groups()[0].getAttribute("aria-expanded")).toBe("true");
    expect(inside().length).toBeGreaterThan(2);
    await user.click(screen.getByRole("button", { name: "Collapse all" }));
    expect(inside()).toEqual([]);
  });

  it("shows what matches the text of the address, in words, rule and names, or says that nothing does", async () => {
    const { unmount } = await open("?group=rule&text=SAILCLOTH");
    expect(screen.getByRole("treeitem", { name: /^Gaining loop/ })).toBeTruthy();
    expect(screen.queryByRole("treeitem", { name: /^Sold below cost/ })).toBeNull();
    unmount();
    await open("?text=zzz");
    expect(screen.getByText("No matching findings")).toBeTruthy();
    expect(screen.getByRole("button", { name: "Show all" })).toBeTruthy();
  });

  it("takes an unknown grouping for none", async () => {
    await open("?group=constructor");
    expect(screen.getByRole("listbox", { name: "Findings" })).toBeTruthy();
  });

  it("copies what is shown as cells, or says why it can't", async () => {
    const { user } = await open("?rule=gaining-loop");
    const written: string[] = [];
    const clipboard = { writeText: vi.fn(async (text: string) => void written.push(text)) };
    vi.stubGlobal("navigator", { ...window.navigator, clipboard });
    await user.click(screen.getByRole("button", { name: "Export" }));
    const panel = await screen.findByRole("dialog", { name: "Export findings" });
    fireEvent.click(within(panel).getByRole("button", { name: "Copy" }));
    await within(panel).findByText("Copied 1 finding.");
    expect(written[0].split("\n")[0].split("\t")).toHaveLength(9);
    expect(written[0]).toContain("error\tgaining-loop");
    clipboard.writeText.mockRejectedValueOnce(new Error("no"));
    fireEvent.click(within(panel).getByRole("button", { name: "Copy" }));
    await within(panel).findByText(/doesn't allow copying/);
  });
});
