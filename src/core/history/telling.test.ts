import { describe, expect, it } from "vitest";
import { item, kitchen, must, newItem, recipe } from "../testing/kitchen";
import { type Edit, setField, type Value } from "../catalogue/edit";
import { newId } from "../schema/id";
import { withDefaults } from "../kinds/index";
import type { Line } from "../notation/line";
import { sayValue } from "../catalogue/say-value";
import { tellChange } from "./telling";

const base = must(
  kitchen("gather River eel in 80s\nbuy Salt for 1\nSmoke: 2 River eel + 1 Salt -> 1 Smoked eel 50% in 90s"),
  [
    { op: "add", kind: "type", record: withDefaults("type", { id: newId(), key: "fare", name: "Fare" }) },
    { op: "add", kind: "tag", record: withDefaults("tag", { id: newId(), key: "fish", name: "fish" }) },
  ],
);
const eel = item(base, "River eel");
const smoke = recipe(base, "Smoke");
const [fare] = base.records.type.values();
const [fish] = base.records.tag.values();
const set = (field: string, to: Value): Edit => setField(base, "item", eel.id, field, to);
const lines = (change: (line: Line, at: number) => Line): Edit =>
  setField(base, "recipe", smoke.id, "lines", smoke.lines.map(change) as unknown as Value);
const tell = (...edits: Edit[]) => tellChange(base, edits);

describe("a change in words", () => {
  it("tells one field with both values", () => {
    expect(tell(set("level", 4))).toBe("Level of River eel nothing → 4");
    expect(tell(set("type", fare.id))).toBe("Type of River eel nothing → Fare");
    expect(tell(set("tags", [fish.id]))).toBe("Tags of River eel nothing → fish");
    expect(tell(setField(base, "recipe", smoke.id, "ticks", 1200))).toBe("Time of Smoke 90s → 60s");
    expect(tell(setField(base, "pantry", base.pantry.id, "labourPerHour", 60))).toMatch(/of Test 0 → 60$/);
  });

  it("tells a renaming as one", () => expect(tell(set("name", "Silver eel"))).toBe("River eel renamed to Silver eel"));

  it("leaves long values out", () =>
    expect(tell(set("description", "Slippery. ".repeat(20)))).toBe("Description of River eel changed"));

  it("tells the one line of a recipe that moved", () => {
    expect(tell(lines((l, i) => (i === 0 ? { ...l, min: 3, max: 4 } : l)))).toBe("Smoke: River eel 2 → 3..4");
    expect(tell(lines((l) => (l.role === "output" ? { ...l, chance: 0.25 } : l)))).toBe("Smoke: Smoked eel 50% → 25%");
    expect(tell(lines((l) => ({ ...l, min: 9, max: 9 })))).toBe("Smoke: other ingredients or results");
    expect(tell(lines((l, i) => (i === 0 ? { ...l, item: item(base, "Salt").id, any: undefined } : l)))).toBe(
      "Smoke: other ingredients or results",
    );
  });

  it("tells additions and removals by name, and many edits by number", () => {
    const cork = newItem("Cork");
    expect(tell({ op: "add", kind: "item", record: cork })).toBe("Cork added");
    expect(tell({ op: "remove", kind: "item", record: cork }, set("level", 1))).toBe(
      "Cork removed; level of River eel nothing → 1",
    );
    expect(
      tell(
        { op: "add", kind: "item", record: cork },
        { op: "add", kind: "item", record: newItem("Tar") },
        set("level", 1),
      ),
    ).toBe("2 items added, 1 edit in items");
    expect(tell()).toBe("nothing changed");
  });

  it("says a recipe's lines as a line, and nothing as nothing", () => {
    expect(sayValue(base, "recipe", "lines", smoke.lines as unknown as Value)).toBe(
      "2 River eel + 1 Salt -> 1 Smoked eel 50%",
    );
    expect(sayValue(base, "item", "tags", [])).toBe("nothing");
    expect(sayValue(base, "item", "note", "")).toBe("nothing");
  });
});
