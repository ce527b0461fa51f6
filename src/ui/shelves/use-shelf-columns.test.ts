import { expect, it } from "vitest";
import { AT_FIRST, type Arrangement, formatArrangement, formatOrders, readArrangement } from "./use-shelf-columns";

const same = (id: string) => id;

it("writes how the columns stand, and reads it back", () => {
  const arrangement: Arrangement = {
    shown: ["name", "stats.vigour", "sell"],
    widths: { name: 220, sell: 80 },
    pinned: ["stats.vigour"],
    orders: [
      { column: "sell", down: true },
      { column: "name", down: false },
    ],
  };
  const columns = formatArrangement(arrangement, same);
  expect(columns).toBe("name:220 *stats.vigour sell:80");
  expect(formatOrders(arrangement.orders, same)).toBe("sell down, name");
  expect(readArrangement(columns, "sell down, name", same)).toEqual(arrangement);
});

it("takes what it can read of anything, and stands as at first where that is nothing", () => {
  expect(readArrangement("", "", same)).toEqual(AT_FIRST);
  expect(readArrangement("** :3 name:99999 sell", ", ,", same)).toEqual({ ...AT_FIRST, shown: ["sell"] });
});
