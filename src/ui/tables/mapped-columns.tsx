"use client";
/** Which field each column of a table becomes. */
import { useMemo } from "react";
import type { Table } from "@/core/exchange/table/read-table";
import { NEW_FIELD, NEW_STAT, NOTHING, offered, type Target, targetsOf } from "@/core/exchange/table/targets";
import { HOLDERS } from "@/core/kinds/field";
import type { Kind } from "@/core/kinds/index";
import { cx } from "../kit/kit";
import { useLive } from "../pantry/provider";

interface Props {
  readonly kind: Kind;
  readonly table: Table;
  readonly targets: readonly Target[];
  readonly onTargets: (targets: readonly Target[]) => void;
}

export function MappedColumns({ kind, table, targets, onTargets }: Props) {
  const { catalogue } = useLive();
  const choices = useMemo(() => targetsOf(catalogue, kind), [catalogue, kind]);
  const holds = (HOLDERS as readonly Kind[]).includes(kind);
  return (
    <table className="w-full">
      <thead>
        <tr className="text-left">
          <th className="head py-1">Column</th>
          <th className="head">Cells</th>
          <th className="head w-56">Imported as</th>
        </tr>
      </thead>
      <tbody>
        {table.head.map((head, k) => (
          <tr key={k} className="border-t border-hair">
            <td className="py-0.5 font-semibold">{head || <span className="text-third">column {k + 1}</span>}</td>
            <td className="max-w-72 truncate text-second">
              {table.rows
                .map((row) => row[k]?.trim())
                .filter(Boolean)
                .slice(0, 3)
                .join(" · ")}
            </td>
            <td>
              <select
                aria-label={`Column ${head || k + 1} is imported as`}
                className={cx("field", targets[k] === NOTHING && "text-copper")}
                value={targets[k]}
                onChange={(e) => onTargets(targets.map((t, at) => (at === k ? e.target.value : t)))}
              >
                <option value={NOTHING}>nothing</option>
                {holds && <option value={offered(table, k)}>a {offered(table, k)}</option>}
                {holds && (
                  <option value={offered(table, k) === NEW_STAT ? NEW_FIELD : NEW_STAT}>
                    a {offered(table, k) === NEW_STAT ? NEW_FIELD : NEW_STAT}
                  </option>
                )}
                {choices.map((c) => (
                  <option key={c.target} value={c.target}>
                    {c.label}
                  </option>
                ))}
              </select>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
