import { expect, it } from "vitest";
import type { Item } from "@/core/kinds/index";
import type { Column } from "../grid/columns";
import {
  AT_FIRST,
  type Arrangement,
  formatArrangement,
  formatOrders,
  readArrangement,
  visibleColumns,
} from "./use-shelf-columns";

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

it("shows the name first, then what stays in sight, then the rest in its order", () => {
  const all = ["name", "type", "sell", "cost", "weight"].map((id) => ({ id, width: 100 }) as Column<Item>);
  const arranged = (shown: string[], pinned: string[] = [], widths = {}) =>
    visibleColumns(all, shown, { pinned, widths }).map((c) => `${c.id} ${c.width}${c.sized ? " chosen" : ""}`);
  expect(arranged(["sell", "type"])).toEqual(["name 100", "sell 100", "type 100"]);
  expect(arranged(["cost", "name", "type", "sell"], ["sell", "weight"], { sell: 60, name: 5, cost: 100 })).toEqual([
    "name 44 chosen",
    "sell 60 chosen",
    "cost 100",
    "type 100",
  ]);
  // A column that was removed, and one that no one shows.
  expect(arranged(["stats.gone", "type"], ["stats.gone"])).toEqual(["name 100", "type 100"]);
  expect(arranged([])).toEqual(["name 100"]);
});
