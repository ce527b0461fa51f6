import { describe, expect, it } from "vitest";
import { AT_FIRST, placeAt, type Shown, whereIs } from "./place";

const shown = (rows: string[], columns = ["name", "type", "cost"]): Shown<string> => ({
  rows,
  columns: columns.map((id) => ({ id })),
  keyOf: (row) => row,
});

describe("the place of a grid's cursor", () => {
  const place = placeAt(shown(["cork", "eel", "tar"]), { row: 1, column: 2 });

  it("stays on its row and column while others come, go and change their order", () => {
    for (const [now, row, column] of [
      [shown(["cork", "eel", "tar"]), 1, 2],
      [shown(["brass", "cork", "eel", "tar"]), 2, 2],
      [shown(["eel", "tar"]), 0, 2],
      [shown(["tar", "eel", "cork"], ["name", "cost"]), 1, 1],
    ] as const)
      expect(whereIs(now, place)).toEqual({ row, column, lost: false });
  });

  it("is lost with its row or its column, and then the nearest one counts", () => {
    expect(whereIs(shown(["cork", "tar"]), place)).toEqual({ row: 1, column: 2, lost: true });
    expect(whereIs(shown(["cork"]), place)).toEqual({ row: 0, column: 2, lost: true });
    expect(whereIs(shown(["eel"], ["name"]), place)).toEqual({ row: 0, column: 0, lost: true });
    expect(whereIs(shown([]), place)).toEqual({ row: 0, column: 2, lost: true });
  });

  it("is the first one until someone has been somewhere", () => {
    expect(whereIs(shown(["cork", "eel"]), AT_FIRST)).toEqual({ row: 0, column: 0, lost: false });
    expect(whereIs(shown([]), AT_FIRST)).toEqual({ row: 0, column: 0, lost: false });
    expect(placeAt(shown([]), { row: 0, column: 0 })).toEqual({ row: 0, column: 0, of: null, under: "name" });
  });
});
