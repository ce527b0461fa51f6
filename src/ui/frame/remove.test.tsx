import { screen, waitFor, within } from "@testing-library/react";
import { describe, expect, it, vi } from "vitest";
import type { AnyRecord, Kind } from "@/core/kinds/index";
import { recordsOf } from "@/core/catalogue/catalogue";
import { demo } from "../testing/demo";
import { inPantry } from "../testing/in-pantry";
import { RemoveButton } from "./remove";

const shown = async (kind: Kind, name: string) => {
  const record = [...recordsOf(demo, kind).values()].find((r) => r.name === name) as AnyRecord;
  const onGone = vi.fn();
  const page = await inPantry(
    demo,
    <RemoveButton kind={kind} record={record} onGone={onGone}>
      Remove
    </RemoveButton>,
  );
  const button = () => screen.getByRole("button", { name: `Remove ${name}` });
  const there = () => recordsOf(page.server.catalogue, kind).has(record.id);
  return { ...page, record, onGone, button, there };
};

describe("removing a record", () => {
  it("that nothing uses is done at once", async () => {
    const { user, button, there, onGone } = await shown("type", "Ballast");
    expect(there()).toBe(true);
    await user.click(button());
    await waitFor(() => expect(there()).toBe(false));
    expect(screen.queryByRole("alertdialog")).toBe(null);
    expect(onGone).toHaveBeenCalledOnce();
  });

  it("that is used asks first, takes the focus, and gives it back when it is called off", async () => {
    const { user, button, there, server } = await shown("rarity", "Sound");
    await user.click(button());
    const dialog = await screen.findByRole("alertdialog", { name: "Remove Sound" });
    expect(dialog.contains(document.activeElement)).toBe(true);
    expect(within(dialog).getByRole("list", { name: "Used by" }).children.length).toBeGreaterThan(5);
    for (let k = 0; k < 90; k++) await user.tab();
    expect(dialog.contains(document.activeElement)).toBe(true);
    await user.keyboard("{Escape}");
    expect(screen.queryByRole("alertdialog")).toBe(null);
    expect(there()).toBe(true);
    expect(server.requests).toEqual([]);
  });

  it("puts another in its place, and says where a name is none", async () => {
    const { user, button, there, server, record } = await shown("rarity", "Sound");
    await user.click(button());
    const input = screen.getByRole("combobox", { name: "Replacement for Sound" });
    await user.type(input, "Fabled{Enter}");
    expect(screen.getByRole("alert").textContent).toBe("There is no other rarity called “Fabled”.");
    expect((screen.getByRole("button", { name: "Replace and remove" }) as HTMLButtonElement).disabled).toBe(true);
    await user.clear(input);
    await user.type(input, "Prized{Enter}");
    await user.click(screen.getByRole("button", { name: "Replace with Prized and remove" }));
    await waitFor(() => expect(there()).toBe(false));
    expect([...server.catalogue.records.item.values()].some((i) => i.rarity === record.id)).toBe(false);
    expect(server.requests).toHaveLength(1);
  });
});
