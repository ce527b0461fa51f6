import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { type Catalogue, emptyCatalogue } from "../../catalogue/catalogue";
import type { Kind } from "../../kinds/index";
import { must, pantry } from "../../testing/kitchen";
import { planImport } from "../read";
import { formatMapping, targetsBy } from "./mappings";
import { planTable } from "./plan-table";
import { readTextTable, type Table, writeDelimited } from "./read-table";
import { guessTargets, NOTHING } from "./targets";
import { isWorkbook, readWorkbook, writeWorkbook } from "./workbook";
import { pathsOf, writeTable } from "./write-table";

const empty = emptyCatalogue(pantry());
const demo = must(empty, planImport(empty, readFileSync("src/demo/brackwater-reach.json", "utf8")).edits);
const KINDS: readonly Kind[] = [
  "item",
  "type",
  "rarity",
  "stat",
  "tag",
  "currency",
  "slot",
  "cooldown",
  "situation",
  "source",
];
const written = (kind: Kind) =>
  writeTable(demo, kind, demo.records[kind].values(), pathsOf(demo, kind), { inherited: false });
const readBack = (catalogue: Catalogue, kind: Kind, table: Table) =>
  planTable(catalogue, table, {
    kind,
    targets: guessTargets(catalogue, kind, table),
    decimal: ".",
    make: new Set(),
    clears: true,
  });

describe("a table of records", () => {
  it("is read back without loss, of every kind, as a text and as a workbook", async () => {
    for (const kind of KINDS) {
      const rows = written(kind);
      const text = readTextTable(new TextEncoder().encode(writeDelimited(rows))).table;
      const book = await readWorkbook(await writeWorkbook(rows, kind));
      for (const table of [text, book.table]) {
        if (!table) throw new Error(`${kind}: ${JSON.stringify(book.issues)}`);
        expect(guessTargets(demo, kind, table), kind).not.toContain(NOTHING);
        const plan = readBack(demo, kind, table);
        expect(
          plan.rows.filter((r) => r.state !== "same").map((r) => [r.name, r.refused, r.cells]),
          kind,
        ).toEqual([]);
        expect(plan.rows).toHaveLength(demo.records[kind].size);
      }
    }
  });

  it("makes the same pantry of an empty one that has what its names need", () => {
    const items = [...demo.records.item.values()];
    const bare = must(
      demo,
      items.slice(0, 3).flatMap((item) => [
        { op: "set" as const, kind: "item" as const, id: item.id, field: "sell", from: item.sell, to: 999 },
        { op: "set" as const, kind: "item" as const, id: item.id, field: "tags", from: item.tags, to: [] },
      ]),
    );
    const table = readTextTable(new TextEncoder().encode(writeDelimited(written("item")))).table as Table;
    const plan = readBack(bare, "item", table);
    const back = must(bare, plan.edits);
    for (const item of items) expect(back.records.item.get(item.id)).toEqual(item);
  });

  it("writes what is inherited only where that is asked for, and what is computed beside it", () => {
    const eel = [...demo.records.item.values()].find((i) => i.key === "smoked_eel");
    const columns = ["name", "stack", { title: "Cost", text: () => "2.13" }];
    const rows = (inherited: boolean) => writeTable(demo, "item", eel ? [eel] : [], columns, { inherited });
    expect(rows(false)).toEqual([
      ["Key", "Name", "Stack limit", "Cost"],
      ["smoked_eel", "Smoked eel", "", "2.13"],
    ]);
    expect(rows(true)[1][2]).toBe("10");
    expect(guessTargets(demo, "item", { head: rows(true)[0], rows: [], first: 2 }).at(-1)).toBe(NOTHING);
  });

  it("refuses what is no workbook, or too large a one, in words", async () => {
    const book = await writeWorkbook([["name"], ["Eel"]], "Sheet: [1]");
    expect(isWorkbook(book)).toBe(true);
    expect((await readWorkbook(book.slice(0, book.length - 30))).issues[0].message).toMatch(
      /^This workbook can't be read\. Save it as \.xlsx or CSV and import that\.$/,
    );
    const lying = book.slice();
    // The directory says that an entry unpacks to 4 GB.
    for (let k = lying.length - 46; k > 0; k--)
      if (lying[k] === 0x50 && lying[k + 1] === 0x4b && lying[k + 2] === 1 && lying[k + 3] === 2) {
        lying.fill(0xff, k + 24, k + 28);
        break;
      }
    expect((await readWorkbook(lying)).issues[0].message).toMatch(/too large/);
    const blank = await readWorkbook(await writeWorkbook([], "x"));
    expect(blank.issues[0].message).toMatch(
      /^The workbook is empty\. The first row of its first sheet must hold the column headings\.$/,
    );
  });
});

describe("a mapping", () => {
  it("is kept as lines and finds its columns again, in any order and case", () => {
    const kept = formatMapping(["Item", "Costs = sell", "", "Lid"], ["name", "sell", "key", NOTHING]);
    expect(kept).toBe("Item = name\nCosts = sell = sell\nLid = nothing");
    expect(targetsBy(kept, ["costs = SELL", "item", "other", ""])).toEqual(["sell", "name", NOTHING, NOTHING]);
  });
});
