import { describe, expect, it } from "vitest";
import { idOf, tried } from "../testing/tryout";
import { held, heldAt } from "./inheritance";

describe("what an item has where it says nothing itself", () => {
  const catalogue = tried({
    slot: { Hands: {}, Belt: {} },
    stat: { Grip: {} },
    type: {
      Tackle: { blocks: [idOf("Belt")], stack: 5, stats: { [idOf("Grip")]: 3 } },
      Oar: { parent: idOf("Tackle") },
    },
    item: {
      "Long oar": { type: idOf("Oar") },
      "Short oar": { type: idOf("Oar"), blocks: [idOf("Hands")], stack: 2 },
      Pebble: {},
    },
  });
  const item = (name: string) => {
    const found = catalogue.records.item.get(idOf(name));
    if (!found) throw new Error(name);
    return found;
  };
  const at = (name: string, path: string) => heldAt(catalogue, "item", item(name), path);

  it("comes from the nearest type that says something: an empty list says nothing", () => {
    const { here, above } = at("Long oar", "blocks");
    expect([here.value, here.from, here.type?.name]).toEqual([[idOf("Belt")], "inherited", "Tackle"]);
    expect(above).toEqual(here);
    expect(held(catalogue, item("Long oar"), "blocks").value).toEqual([idOf("Belt")]);
  });

  it("is its own where it says something, and what it would be otherwise is known", () => {
    const { here, above } = at("Short oar", "blocks");
    expect([here.value, here.from]).toEqual([[idOf("Hands")], "own"]);
    expect([above.value, above.type?.name]).toEqual([[idOf("Belt")], "Tackle"]);
    expect(at("Short oar", "stack").above.value).toBe(5);
  });

  it("is nothing where no one says anything, and parts inherit each by itself", () => {
    expect(at("Pebble", "blocks").here).toEqual({ value: null, from: "none" });
    expect(at("Pebble", "stack").here.from).toBe("none");
    expect(at("Long oar", `stats.${idOf("Grip")}`).here).toMatchObject({ value: 3, from: "inherited" });
    expect(at("Pebble", `stats.${idOf("Grip")}`).here.from).toBe("none");
  });
});
