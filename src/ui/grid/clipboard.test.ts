import { describe, expect, it } from "vitest";
import { seeded } from "@/core/numbers/seeded";
import { type CellBlock, continued, formatBlock, parseBlock, placed } from "./clipboard";

describe("a block in the clipboard", () => {
  it.each([
    [
      "tabs between cells, lines between rows",
      "a\tb\nc\td\n",
      [
        ["a", "b"],
        ["c", "d"],
      ],
    ],
    ["line ends of every kind", "a\r\nb\rc", [["a"], ["b"], ["c"]]],
    ["a quoted cell with tabs, lines and quotes in it", '"a\tb\nc ""d"""\te', [['a\tb\nc "d"', "e"]]],
    [
      "empty cells",
      "\t\n\tx",
      [
        ["", ""],
        ["", "x"],
      ],
    ],
    ["an empty quoted cell", '""\tx', [["", "x"]]],
    [
      "a quote that is none",
      '"5 nails\tx\n6" nail\t"y" z',
      [
        ['"5 nails', "x"],
        ['6" nail', '"y" z'],
      ],
    ],
    ["nothing", "", [[""]]],
  ])("is read with %s", (_, text, cells) => {
    expect(parseBlock(text)).toEqual(cells);
  });

  it("comes back as it went out, whatever stands in its cells", () => {
    const random = seeded(5);
    const cell = () =>
      Array.from({ length: Math.floor(random() * 6) }, () => 'ab"\t\n '[Math.floor(random() * 6)]).join("");
    for (let n = 0; n < 2000; n++) {
      const width = 1 + Math.floor(random() * 4);
      const rows = Array.from({ length: 1 + Math.floor(random() * 4) }, () => Array.from({ length: width }, cell));
      // A last line that is empty can't be told from the end of the one before it.
      if (rows[rows.length - 1].every((c) => c === "") && width === 1) rows[rows.length - 1] = ["x"];
      expect(parseBlock(formatBlock(rows))).toEqual(rows);
    }
  });
});

describe("a block is placed", () => {
  const box = (top: number, left: number, bottom = top, right = left): CellBlock => ({ top, left, bottom, right });
  const at = (block: string[][], selected: CellBlock) =>
    [...placed(block, selected)].map(({ row, column, text }) => `${row}.${column} ${text}`);

  it("from the corner of the selection on, beyond it", () => {
    expect(
      at(
        [
          ["a", "b"],
          ["c", "d"],
        ],
        box(3, 1),
      ),
    ).toEqual(["3.1 a", "3.2 b", "4.1 c", "4.2 d"]);
    expect(at([["a", "b"], ["c"]], box(0, 0, 2, 0))).toEqual(["0.0 a", "0.1 b", "1.0 c"]);
  });
  it("into every cell of the selection where it is one value, and so often as it fits in", () => {
    expect(at([["a"]], box(0, 0, 1, 1))).toEqual(["0.0 a", "0.1 a", "1.0 a", "1.1 a"]);
    expect(at([["a", "b"]], box(0, 0, 2, 1))).toEqual(["0.0 a", "0.1 b", "1.0 a", "1.1 b", "2.0 a", "2.1 b"]);
  });
});

describe("a series that is filled", () => {
  it("goes on as its first cells begin", () => {
    expect(continued(["10", "15", "", ""])).toEqual(["10", "15", "20", "25"]);
    expect(continued(["3", "", ""])).toEqual(["3", "4", "5"]);
    expect(continued(["0.5", "0.75", ""])).toEqual(["0.50", "0.75", "1.00"]);
    expect(continued(["Crate 1", "Crate 3", ""])).toEqual(["Crate 1", "Crate 3", "Crate 5"]);
    expect(continued(["30s", "", ""])).toEqual(["30s", "31s", "32s"]);
    expect(continued(["Tar", "x", ""])).toEqual(["Tar", "Tar", "Tar"]);
    expect(continued([])).toEqual([]);
  });
});
