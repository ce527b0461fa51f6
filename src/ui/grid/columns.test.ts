import { describe, expect, it } from "vitest";
import { type Column, type Order, ordered, pressedHead } from "./columns";

interface Row {
  readonly id: string;
  readonly name: string;
  readonly level: number | null;
}
const rows: Row[] = [
  { id: "rope", name: "Rope", level: 3 },
  { id: "cork", name: "Cork", level: null },
  { id: "tar", name: "Tar", level: 10 },
  { id: "salt", name: "Salt", level: 3 },
  { id: "anchor", name: "Anchor", level: null },
];
const column = (id: string, sort: Column<Row>["sort"]): Column<Row> => ({
  id,
  title: id,
  width: 1,
  cell: () => null,
  text: () => "",
  sort,
});
const columns = [column("name", (r) => r.name), column("level", (r) => r.level)];
const names = (...orders: Order[]) => ordered(rows, columns, orders).map((r) => r.name);

describe("rows in order", () => {
  it("go by the column, ties by name", () => {
    expect(names({ column: "name", down: false })).toEqual(["Anchor", "Cork", "Rope", "Salt", "Tar"]);
    expect(names({ column: "level", down: false })).toEqual(["Rope", "Salt", "Tar", "Anchor", "Cork"]);
  });
  it("keep those without a value last, up or down", () => {
    expect(names({ column: "level", down: true })).toEqual(["Tar", "Rope", "Salt", "Anchor", "Cork"]);
  });
  it("go by one column after the other", () => {
    expect(names({ column: "level", down: false }, { column: "name", down: true })).toEqual([
      "Salt",
      "Rope",
      "Tar",
      "Cork",
      "Anchor",
    ]);
    const level = { column: "level", down: false };
    expect(pressedHead([level], "level", false)).toEqual([{ column: "level", down: true }]);
    expect(pressedHead([level], "name", true)).toEqual([level, { column: "name", down: false }]);
    expect(pressedHead([level, { column: "name", down: false }], "level", true)[0].down).toBe(true);
    expect(pressedHead([level], "name", false)).toEqual([{ column: "name", down: false }]);
  });
  it("compare numbers as numbers, fall back on the first column, and leave the list alone", () => {
    expect(names({ column: "gone", down: true })[0]).toBe("Tar");
    expect(rows[0].name).toBe("Rope");
  });
});
