import { describe, expect, it } from "vitest";
import { type Column, type Order, ordered, pressedHead, stretched } from "./columns";

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

describe("columns that fill the room there is", () => {
  const widths = (room: number, sized: readonly string[] = []) =>
    stretched(
      [
        { id: "name", width: 180 },
        { id: "type", width: 100 },
        { id: "cost", width: 60 },
      ].map((c) => ({ ...c, sized: sized.includes(c.id) })),
      room,
    ).map((c) => c.width);

  it("stay as they are where there is no room left", () => {
    expect(widths(300)).toEqual([180, 100, 60]);
    expect(widths(340)).toEqual([180, 100, 60]);
  });

  it("give half of it to names, up to 160, and never more than the room", () => {
    expect(widths(440)).toEqual([230, 131, 78]);
    expect(widths(2000)).toEqual([340, 160, 96]);
    for (let room = 300; room < 1200; room += 7)
      expect(widths(room).reduce((a, b) => a + b)).toBeLessThanOrEqual(Math.max(room, 340));
  });

  it("leave alone what someone sized", () => {
    expect(widths(440, ["name"])).toEqual([180, 160, 96]);
  });
});
