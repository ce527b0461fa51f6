import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { withDefaults } from "@/core/kinds/index";
import { newId } from "@/core/schema/id";
import { kitchen, must } from "@/core/testing/kitchen";
import { inPantry } from "../testing/in-pantry";
import { NoCharacters } from "./no-characters";

const made = (kind: "slot" | "resource", name: string) => ({
  op: "add" as const,
  kind,
  record: withDefaults(kind, { id: newId(), key: name.toLowerCase(), name } as never),
});
const nobody = must(kitchen("gather Eel in 20s"), [
  made("slot", "Head"),
  made("slot", "Belt"),
  made("resource", "Vigour"),
]);

it("makes a usual character by one button, with all slots and resources there are", async () => {
  const { user, server } = await inPantry(nobody, <NoCharacters />);
  expect(server.catalogue.records.subject.size).toBe(0);
  await user.click(screen.getByRole("button", { name: "Create a test character" }));
  await waitFor(() => expect(server.catalogue.records.subject.size).toBe(1));
  const [character] = server.catalogue.records.subject.values();
  expect(character).toMatchObject({ name: "Test character", level: 1, bagSlots: null });
  expect(character.slots).toEqual([...nobody.records.slot.keys()]);
  expect(character.resources).toEqual([...nobody.records.resource.keys()]);
});
