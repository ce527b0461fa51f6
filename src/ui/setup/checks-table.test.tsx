import { screen, within } from "@testing-library/react";
import { describe, expect, it } from "vitest";
import { RULE_IDS, ruleKey } from "@/core/checklist";
import { demo } from "../testing/demo";
import { inPantry } from "../testing/in-pantry";
import { ChecksTable } from "./checks-table";

const row = (title: string) => screen.getByRole("row", { name: new RegExp(`^${title}`) });
const severity = (title: string) => screen.getByRole("combobox", { name: `Severity of ${title}` }) as HTMLSelectElement;

describe("the checks in Setup", () => {
  it("are all there with their findings, and one is found by its name", async () => {
    const { user } = await inPantry(demo, <ChecksTable />);
    expect(screen.getAllByRole("row")).toHaveLength(RULE_IDS.length + 1);
    expect(within(row("Unobtainable item")).getByRole("button", { name: /^10 findings/ })).toBeTruthy();
    await user.type(screen.getByRole("searchbox", { name: "Search checks" }), "icon");
    expect(screen.getAllByRole("row")).toHaveLength(2);
    await user.type(screen.getByRole("searchbox", { name: "Search checks" }), "zzz");
    expect(screen.getByText("No matching checks")).toBeTruthy();
  });

  it("become more or less serious, are off without findings, and go back to their default", async () => {
    const { user, server } = await inPantry(demo, <ChecksTable />);
    const set = () => [...server.catalogue.records.severity.values()].find((r) => r.key === ruleKey("dead-end"));
    expect(severity("Dead end").value).toBe("warning");
    await user.selectOptions(severity("Dead end"), "error");
    expect(set()?.severity).toBe("error");
    await user.selectOptions(severity("Dead end"), "off");
    expect(set()?.severity).toBe("off");
    // It isn't run, and says how many findings it would have.
    expect(await within(row("Dead end")).findByText("would be 1")).toBeTruthy();
    await user.selectOptions(severity("Dead end"), "warning");
    expect(set()).toBeUndefined();
    expect(await within(row("Dead end")).findByRole("button", { name: /^1 findings/ })).toBeTruthy();
  });

  it("have their thresholds beside them, which refuse what is no number", async () => {
    const { user, server } = await inPantry(demo, <ChecksTable />);
    await user.click(within(row("Sold below cost")).getByRole("button", { name: /^Lowest sell price/ }));
    const field = within(row("Sold below cost")).getByRole("textbox", { name: /^Lowest sell price/ });
    await user.clear(field);
    await user.type(field, "many{Enter}");
    expect(server.catalogue.pantry.priceFloor).toBe(demo.pantry.priceFloor);
    await user.clear(field);
    await user.type(field, "0.5{Enter}");
    expect(server.catalogue.pantry.priceFloor).toBe(0.5);
  });
});
