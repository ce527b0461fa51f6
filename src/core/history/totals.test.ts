import { describe, expect, it } from "vitest";
import type { Moved } from "./log";
import { totalsOver } from "./totals";

const moved = (opened: number, closed: number): Moved => ({
  ...{ costs: 0, largest: null, times: 0, lost: 0, regained: 0, gainsOpened: 0, gainsClosed: 0 },
  opened,
  closed,
});

describe("how many findings there were", () => {
  it("is counted back from now by what each change opened and closed", () => {
    const changes = [
      { revision: 9, moved: moved(0, 3) },
      { revision: 8, moved: moved(4, 1) },
    ];
    expect(totalsOver(changes, 10)).toEqual({
      totals: [
        { revision: 7, findings: 10 },
        { revision: 8, findings: 13 },
        { revision: 9, findings: 10 },
      ],
      unknown: 0,
    });
  });

  it("says of how many changes that is not known, and is never below none", () => {
    const changes = [
      { revision: 3, moved: null },
      { revision: 2, moved: moved(5, 0) },
    ];
    expect(totalsOver(changes, 2)).toEqual({
      totals: [
        { revision: 1, findings: 0 },
        { revision: 2, findings: 2 },
        { revision: 3, findings: 2 },
      ],
      unknown: 1,
    });
    expect(totalsOver([], 4)).toEqual({ totals: [], unknown: 0 });
  });
});
