"use client";
/** What is shown in groups, each with its count and the sums and means of the columns; one is chosen to be seen alone. */
import { useMemo } from "react";
import { type Group, type GroupedBy, groupSums } from "@/core/catalogue/group-sums";
import type { Item } from "@/core/kinds/index";
import { capital, group as apart, sayQuantity } from "@/core/numbers/format";
import { usePlaces } from "../frame/navigate";
import type { Column } from "../grid/columns";
import { Button } from "../kit/kit";
import { Scrolled } from "../kit/dialog-frame";
import { useLive } from "../pantry/provider";

interface Props {
  readonly by: GroupedBy;
  readonly rows: readonly Item[];
  readonly columns: readonly Column<Item>[];
  /** Where nothing else filters by it. */
  readonly onOnly: (group: Group) => void;
}

export function Groups({ by, rows, columns, onOnly }: Props) {
  const { catalogue } = useLive();
  const places = usePlaces();
  const numeric = columns.filter((c) => c.numeric && c.id !== by && c.id !== "margin");
  const groups = useMemo(
    () =>
      groupSums(
        catalogue,
        rows,
        by,
        numeric.map((c) => (item: Item) => {
          const value = c.sort(item);
          return typeof value === "number" ? value : null;
        }),
      ),
    [catalogue, rows, by, numeric],
  );
  return (
    <Scrolled label={`Groups by ${by}`} className="max-h-64 min-h-0! flex-none! border-b border-line bg-salt px-3.5!">
      <table className="min-w-96">
        <thead>
          <tr>
            <th className="head py-1 text-left">{capital(by)}</th>
            <th className="head pl-6 text-right">Items</th>
            {numeric.map((c) => (
              <th key={c.id} className="head pl-6 text-right" title="Sum, and mean of items with a value">
                {c.title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {groups.map((g) => (
            <tr key={g.key ?? ""} className="border-t border-hair">
              <td>
                {g.key === null ? (
                  <span className="px-2.5 text-third">no value</span>
                ) : (
                  <Button look="quiet" className="h-6!" onClick={() => onOnly(g)}>
                    {g.name}
                  </Button>
                )}
              </td>
              <td className="pl-6 text-right font-semibold">{apart(String(g.count))}</td>
              {g.sums.map(({ sum, of }, k) => (
                <td key={numeric[k].id} className="pl-6 text-right">
                  {of === 0 ? (
                    <span className="text-third">–</span>
                  ) : (
                    <>
                      {sayQuantity(round(sum))}{" "}
                      <span className="text-[12px] text-second">⌀ {sayQuantity(round(sum / of))}</span>
                    </>
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      <Button look="quiet" onClick={() => places.ask({ by: null }, true)}>
        No groups
      </Button>
    </Scrolled>
  );
}
const round = (value: number): number => Math.round(value * 100) / 100;
