import { describe, expect, it } from "vitest";
import type { Catalogue } from "../catalogue/catalogue";
import { newId } from "../schema/id";
import { withDefaults } from "../kinds/index";
import { item, kitchen, must } from "../testing/kitchen";
import { readEntries, readEntry } from "./entry";

const base = must(kitchen("gather River eel in 80s\nbuy Salt for 1"), [
  { op: "add", kind: "type", record: withDefaults("type", { id: newId(), key: "kept_fare", name: "Kept fare" }) },
  { op: "add", kind: "item", record: withDefaults("item", { id: newId(), key: "new_item", name: "New item" }) },
]);
const eel = item(base, "River eel");
const write = (field: string, text: string, c: Catalogue = base) => readEntry(c, "item", eel.id, field, text);
const first = (read: ReturnType<typeof write>) => ("edits" in read ? read.edits[0] : read.message);

describe("what is typed into a cell", () => {
  it("becomes one edit, with the value it replaces", () => {
    expect(first(write("sell", "2.5"))).toMatchObject({ op: "set", field: "sell", from: null, to: 2.5 });
    expect(first(write("level", ""))).toMatchObject({ to: null });
    expect(first(write("type", "KEPT fare"))).toMatchObject({ field: "type", to: [...base.records.type.keys()][0] });
    expect(first(write("status", "Draft"))).toMatchObject({ to: "draft" });
    expect(first(write("status", "dra"))).toBe(
      "“dra” isn't an option. Choose stub, draft, ready or retired. Did you mean draft?",
    );
  });

  it("is refused with a reason and the nearest name", () => {
    expect(write("sell", "much")).toMatchObject({
      message: expect.stringContaining("“much” isn't a number. Enter digits with a point for decimals, such as 2.5."),
    });
    expect(write("type", "kept fair")).toMatchObject({
      message: "There is no type called “kept fair”. Did you mean Kept fare?",
    });
    expect(write("status", "gone")).toMatchObject({
      message: expect.stringContaining("“gone” isn't an option. Choose stub, draft, ready or retired."),
    });
    expect(write("name", " ")).toMatchObject({ message: "A name can't be empty." });
  });

  it("makes tags that are new, once", () => {
    const read = write("tags", "fish, #cold; fish");
    if (!("edits" in read)) throw new Error(read.message);
    expect(read.edits.map((e) => e.op)).toEqual(["add", "add", "set"]);
    const after = must(base, read.edits);
    expect(after.records.item.get(eel.id)?.tags).toHaveLength(2);
  });

  it("reads times in ticks, and what a source gives as a line", () => {
    const [source] = [...base.records.source.values()];
    expect(first(readEntry(base, "source", source.id, "ticks", "1m30s"))).toMatchObject({ to: 1800 });
    expect(readEntry(base, "source", source.id, "ticks", "soon")).toMatchObject({
      message: expect.stringContaining(
        "“soon” isn't a duration. Use 90s, 1m30s or 1800t, in whole ticks (20 per second).",
      ),
    });
    expect(first(readEntry(base, "source", source.id, "lines", "2..3 River eel + 1 Salt 10%"))).toMatchObject({
      to: [{ min: 2, max: 3 }, { chance: 0.1 }],
    });
    expect(readEntry(base, "source", source.id, "lines", "2 River eel at Weir")).toMatchObject({
      message: expect.stringContaining("Enter only what the source gives, such as 2..3 River eel + 1 Gull egg 10%."),
    });
  });

  it("lets a placeholder key follow the name, and leaves a real key alone", () => {
    const made = item(base, "New item");
    const read = readEntry(base, "item", made.id, "name", "Heron feather");
    expect("edits" in read && read.edits.map((e) => (e.op === "set" ? [e.field, e.to] : []))).toEqual([
      ["name", "Heron feather"],
      ["key", "heron_feather"],
    ]);
    expect(
      "edits" in write("name", "Old eel") && (write("name", "Old eel") as { edits: unknown[] }).edits,
    ).toHaveLength(1);
  });

  it("refuses a whole paste for one bad cell, and says which", () => {
    const salt = item(base, "Salt");
    expect(
      readEntries(base, [
        { kind: "item", id: eel.id, field: "sell", text: "1" },
        { kind: "item", id: salt.id, field: "sell", text: "x" },
      ]),
    ).toMatchObject({
      message: expect.stringMatching(
        /^Salt: “x” isn't a number\. Enter digits with a point for decimals, such as 2\.5\. Nothing was saved\.$/,
      ),
    });
  });

  it("tells every one of many that can't be read, by its place, those beyond their range too", () => {
    const salt = item(base, "Salt");
    const entry = (field: string, text: string, id = eel.id) => ({ kind: "item" as const, id, field, text });
    expect(
      readEntries(base, [entry("sell", "1"), entry("stack", "0"), entry("sell", "x", salt.id), entry("level", "2.5")]),
    ).toMatchObject({
      faults: [
        { at: 1, message: expect.stringContaining("0 is outside the range 1 to") },
        { at: 2, message: expect.stringContaining("“x” isn't a number") },
        { at: 3, message: "2.5 isn't a whole number." },
      ],
    });
  });

  it("takes no colour that can't be told from the page, and offers the nearest that can", () => {
    const kept = [...base.records.type.values()][0];
    const typed = (text: string) => readEntry(base, "type", kept.id, "colour", text);
    expect(typed("#fbfcfa")).toMatchObject({
      message: expect.stringMatching(
        /^#fbfcfa has too little contrast in one of the themes \(1\.00\)\. #cdcecc is the nearest colour with enough\.$/,
      ),
    });
    expect(typed("#11252b")).toHaveProperty("message");
    expect(typed("#2c6e8f")).toHaveProperty("edits");
  });

  it("makes one record of a name that is new in several", () => {
    const salt = item(base, "Salt");
    const read = readEntries(
      base,
      [eel.id, salt.id].map((id) => ({ kind: "item" as const, id, field: "tags", text: "festival" })),
    );
    if ("message" in read) throw new Error(read.message);
    const next = must(base, read.edits);
    expect(next.records.tag.size).toBe(1);
    expect(item(next, "Salt").tags).toEqual(item(next, "River eel").tags);
  });
});

describe("names that do not exist yet", () => {
  it("are refused, and created with what was typed where someone asks for it", () => {
    expect(write("type", "Fresh fare")).toMatchObject({
      message: expect.stringContaining("no type called “Fresh fare”"),
    });
    const read = readEntry(base, "item", eel.id, "type", "Fresh fare", true);
    if ("message" in read) throw new Error(read.message);
    const next = must(base, read.edits);
    const type = next.records.type.get(item(next, "River eel").type as never);
    expect([type?.name, type?.key]).toEqual(["Fresh fare", "fresh_fare"]);
    const slots = readEntry(base, "item", eel.id, "blocks", "Head, Left hand", true);
    expect("edits" in slots && slots.edits.filter((e) => e.op === "add").length).toBe(2);
  });

  it("are not created for kinds that need more than a name", () => {
    expect(readEntry(base, "item", eel.id, "level", "soon", true)).toMatchObject({ message: expect.any(String) });
  });

  it("make a draft of a stub as soon as someone says what it is, once", () => {
    const stub = must(base, [{ op: "set", kind: "item", id: eel.id, field: "status", from: eel.status, to: "stub" }]);
    const edits = (field: string, text: string) => {
      const read = readEntry(stub, "item", eel.id, field, text);
      return "edits" in read ? read.edits.map((e) => e.op === "set" && e.field) : read.message;
    };
    expect(edits("type", "Kept fare")).toEqual(["type", "status"]);
    expect(edits("note", "Ask Wren")).toEqual(["note"]);
    const both = readEntries(stub, [
      { kind: "item", id: eel.id, field: "sell", text: "2" },
      { kind: "item", id: eel.id, field: "level", text: "3" },
    ]);
    expect("edits" in both && both.edits.filter((e) => e.op === "set" && e.field === "status").length).toBe(1);
  });
});
