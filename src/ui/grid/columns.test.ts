import { describe, expect, it } from "vitest";
import { type Column, ordered } from "./columns";

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
const names = (order: { column: string; down: boolean }) => ordered(rows, columns, order).map((r) => r.name);

describe("rows in order", () => {
  it("go by the column, ties by name", () => {
    expect(names({ column: "name", down: false })).toEqual(["Anchor", "Cork", "Rope", "Salt", "Tar"]);
    expect(names({ column: "level", down: false })).toEqual(["Rope", "Salt", "Tar", "Anchor", "Cork"]);
  });
  it("keep those without a value last, up or down", () => {
    expect(names({ column: "level", down: true })).toEqual(["Tar", "Rope", "Salt", "Anchor", "Cork"]);
  });
  it("compare numbers as numbers, fall back on the first column, and leave the list alone", () => {
    expect(names({ column: "gone", down: true })[0]).toBe("Tar");
    expect(rows[0].name).toBe("Rope");
  });
});
