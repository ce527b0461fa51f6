"use client";
/** One row of a grid. Kept as it is while the cursor moves over others. */
import { memo, type ReactNode } from "react";
import { cx } from "../kit/kit";
import type { Column } from "./columns";

export const ROW_HEIGHT = 28;

export interface RowAction {
  readonly label: string;
  readonly icon: ReactNode;
}

interface RowProps {
  readonly id: string;
  readonly index: number;
  readonly start: number;
  readonly row: unknown;
  readonly columns: readonly Column<unknown>[];
  readonly template: string;
  /** Columns that stay in sight while the others scroll. */
  readonly pinned: number;
  readonly active: boolean;
  readonly moved: boolean;
  /** What cells show beside the row itself; only looked at for whether it is another. */
  readonly stamp: unknown;
  readonly mark: unknown;
  /** Column the cursor is on, −1: not in this row. */
  readonly cursor: number;
  /** Selected columns, −1: none. */
  readonly from: number;
  readonly to: number;
  /** Texts that are being written, one per column. */
  readonly waiting: string;
  /** Why what waits can't be read, one per column. */
  readonly faults: string;
  readonly editor: ReactNode;
  /** What can be done with a row: shown in its first cell where the pointer or the cursor is. */
  readonly action?: RowAction;
  readonly act: (row: number) => void;
  readonly press: (row: number, column: number, extend: boolean) => void;
  readonly open: (row: number, column: number) => void;
}

const leftOf = (columns: readonly Column<unknown>[], at: number): number =>
  columns.slice(0, at).reduce((sum, c) => sum + c.width, 0);

export const GridRow = memo(function GridRow({
  id,
  index,
  start,
  row,
  columns,
  template,
  pinned,
  active,
  moved,
  cursor,
  from,
  to,
  waiting,
  faults,
  editor,
  action,
  act,
  press,
  open,
}: RowProps) {
  const waits = waiting ? waiting.split("\t") : null;
  const wrong = faults ? faults.split("\t") : null;
  return (
    // biome-ignore lint/a11y/useFocusableInteractive: focus stays on the whole; aria-activedescendant tells what is active
    // biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element
    <div
      role="row"
      aria-rowindex={index + 2}
      aria-selected={active}
      className={cx(
        "group/row absolute left-0 grid w-full border-b border-hair",
        active ? "bg-pick" : "bg-salt",
        editor !== null && "z-10",
      )}
      style={{ gridTemplateColumns: template, height: ROW_HEIGHT, transform: `translateY(${start}px)` }}
    >
      {columns.map((c, i) => {
        const here = i === cursor;
        const picked = i >= from && i <= to;
        return (
          // biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element
          <div
            key={c.id}
            id={`${id}-${i}`}
            role="gridcell"
            aria-colindex={i + 1}
            aria-readonly={!c.edit}
            aria-invalid={wrong?.[i] ? true : undefined}
            aria-selected={here || picked}
            tabIndex={-1}
            onMouseDown={(e) => {
              if (editor && here) return;
              e.preventDefault();
              press(index, i, e.shiftKey);
            }}
            onDoubleClick={() => open(index, i)}
            style={i < pinned ? { left: leftOf(columns, i) } : undefined}
            className={cx(
              "relative flex items-center overflow-hidden px-2 whitespace-nowrap",
              c.numeric && "justify-end",
              i < pinned && cx("sticky z-10", active ? "bg-pick" : "bg-salt"),
              picked && "bg-[#1f7a8c22]!",
              here && "group-focus:outline-2 group-focus:-outline-offset-2 group-focus:outline-ink",
              here && editor !== null && "z-30 overflow-visible!",
              c.worked && moved && "moved",
            )}
          >
            {here && editor ? (
              editor
            ) : wrong?.[i] ? (
              <span title={wrong[i]} className="truncate text-beet underline decoration-wavy">
                {waits?.[i] || "–"}
              </span>
            ) : waits?.[i] ? (
              <span className="text-third">{waits[i]}</span>
            ) : (
              c.cell(row)
            )}
            {action && i === 0 && !(here && editor) && (
              <button
                type="button"
                // The sheet has it for the keyboard; here it would be one more stop in every row.
                tabIndex={-1}
                aria-label={action.label}
                title={action.label}
                className={cx(
                  "absolute right-0.5 hidden size-6 place-items-center rounded-sm bg-salt text-second group-hover/row:grid hover:text-ink",
                  active && "grid!",
                )}
                onMouseDown={(e) => {
                  e.stopPropagation();
                  e.preventDefault();
                }}
                onClick={() => act(index)}
              >
                {action.icon}
              </button>
            )}
          </div>
        );
      })}
    </div>
  );
});
