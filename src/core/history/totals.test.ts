import { describe, expect, it } from "vitest";
import type { Moved } from "./log";
import { totalsOver } from "./totals";

const moved = (opened: number, closed: number): Moved => ({
  ...{ costs: 0, largest: null, times: 0, lost: 0, regained: 0, gainsOpened: 0, gainsClosed: 0 },
  opened,
  closed,
});

const told = (changes: Parameters<typeof totalsOver>[0], now: number) =>
  totalsOver(changes, now).map((t) => [t.revision, t.findings]);

describe("how many findings there were", () => {
  it("is counted back from now by what each change opened and closed", () => {
    const changes = [
      { revision: 9, moved: moved(0, 3) },
      { revision: 8, moved: moved(4, 1) },
    ];
    expect(told(changes, 10)).toEqual([
      [7, 10],
      [8, 13],
      [9, 10],
    ]);
  });

  it("begins at a change of which that is not known, and is never below none", () => {
    const imported = { revision: 1, moved: null };
    expect(told([{ revision: 3, moved: moved(1, 0) }, { revision: 2, moved: moved(5, 0) }, imported], 2)).toEqual([
      [1, 0],
      [2, 1],
      [3, 2],
    ]);
    expect(told([imported], 4)).toEqual([[1, 4]]);
    expect(told([], 4)).toEqual([]);
  });
});
