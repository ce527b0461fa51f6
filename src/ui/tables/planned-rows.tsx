"use client";
/** What becomes of each row of a table: new, changed, rejected or as it was. */
import { Tabs } from "radix-ui";
import { useState } from "react";
import type { PlannedRow } from "@/core/exchange/table/plan-table";
import { Button, cx } from "../kit/kit";

const STATES = ["new", "changed", "refused", "same"] as const;
const WORDS = { new: "New", changed: "Changed", refused: "Rejected", same: "Unchanged" } as const;
const SHOWN = 200;

export function PlannedRows({
  head,
  rows: all,
}: {
  readonly head: readonly string[];
  readonly rows: readonly PlannedRow[];
}) {
  const [state, setState] = useState<PlannedRow["state"] | null>(null);
  const by = Object.fromEntries(STATES.map((s) => [s, all.filter((r) => r.state === s)]));
  const shown = state ?? STATES.find((s) => by[s].length > 0) ?? "new";
  const rows = by[shown];
  return (
    <Tabs.Root value={shown} onValueChange={(s) => setState(s as PlannedRow["state"])}>
      <Tabs.List aria-label="Rows" className="flex gap-1 pt-4 pb-1">
        {STATES.map((s) => (
          <Tabs.Trigger key={s} value={s} asChild>
            <Button className={cx("h-6!", shown === s && "border-ink!")}>
              {WORDS[s]} <span className="font-normal text-second">{by[s].length}</span>
            </Button>
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value={shown} tabIndex={-1}>
        {rows.length === 0 && <p className="py-2 text-second">None.</p>}
        <ol aria-label={`${WORDS[shown]} rows`}>
          {rows.slice(0, SHOWN).map((row) => (
            <li key={row.number} className="grid grid-cols-[44px_180px_1fr] gap-2 border-t border-hair py-1">
              <span className="text-right text-third">{row.number}</span>
              <span className="truncate font-semibold">{row.name}</span>
              <span className="flex flex-wrap gap-x-3">
                {row.cells.map((cell) => (
                  <span key={cell.column}>
                    <span className="text-second">{head[cell.column]} </span>
                    {cell.before && <s className="text-third">{cell.before}</s>} {cell.after || "–"}
                  </span>
                ))}
                {row.refused.map((cell) => (
                  <span key={cell.column + cell.message} className="basis-full text-beet">
                    {cell.column >= 0 && <b>{head[cell.column]}: </b>}
                    {cell.message}
                  </span>
                ))}
              </span>
            </li>
          ))}
        </ol>
        {rows.length > SHOWN && <p className="py-1 text-second">and {rows.length - SHOWN} more</p>}
      </Tabs.Content>
    </Tabs.Root>
  );
}
