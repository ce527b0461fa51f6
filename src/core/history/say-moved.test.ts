import { describe, expect, it } from "vitest";
import { setField } from "../catalogue/edit";
import type { Id } from "../schema/id";
import { item, kitchen, must, recipe } from "../testing/kitchen";
import { type Moved, NOTHING_MOVED } from "./log";
import { readModelOf, rippleOf } from "../testing/read-model";
import { sayMoved } from "./say-moved";

const name = () => "Salt";
const say = (part: Partial<Moved>) => sayMoved({ ...NOTHING_MOVED, ...part }, name).join(", ");

describe("what a change moved, in words", () => {
  it("says so when nothing else did", () => expect(say({})).toBe("nothing else changed"));

  it("counts in the singular and the plural", () => {
    expect(say({ gainsOpened: 1, lost: 1 })).toBe("1 loop opened, 1 item now unobtainable");
    expect(say({ gainsClosed: 2, regained: 3 })).toBe("2 loops closed, 3 items obtainable again");
    expect(say({ opened: 1, closed: 2 })).toBe("1 new finding, 2 findings resolved");
  });

  it("names the cost that moved most, with its direction", () => {
    expect(say({ costs: 4, largest: { id: "x" as Id, from: 2, to: 3 } })).toBe("4 costs changed, largest Salt +50%");
    expect(say({ costs: 1, largest: { id: "x" as Id, from: 4, to: 3.9 } })).toBe("1 cost changed, largest Salt −2.5%");
    expect(say({ costs: 1, largest: { id: "x" as Id, from: 4, to: null } })).toBe("1 cost changed");
  });

  it("speaks of times only where no cost moved", () => {
    expect(say({ times: 2 })).toBe("2 times changed");
    expect(say({ times: 2, costs: 1 })).toBe("1 cost changed");
  });

  it("fits what a real change did", () => {
    const before = kitchen(
      "buy Salt for 2\nbuy Eel for 3\nSmoke: 2 Eel + 1 Salt -> 1 Smoked eel\nDry: 1 Smoked eel -> 1 Dried eel\nsalvage Dried eel -> 1 Eel",
    );
    const source = [...before.records.source.values()].find((s) => s.lines[0].item === item(before, "Salt").id);
    const dearer = must(before, [setField(before, "source", source?.id as Id, "price", 4)]);
    const nameOf = (id: Id) => dearer.records.item.get(id)?.name ?? "";
    expect(sayMoved(rippleOf(readModelOf(before), readModelOf(dearer)).moved, nameOf)).toEqual([
      "3 costs changed, largest Salt +100%",
    ]);
    const gone = must(before, [setField(before, "recipe", recipe(before, "Smoke").id, "status", "retired")]);
    const told = sayMoved(rippleOf(readModelOf(before), readModelOf(gone)).moved, nameOf);
    expect(told[0]).toBe("2 items now unobtainable");
    expect(told.at(-1)).toMatch(/new findings?$/);
  });
});
