"use client";
/**
 * A spreadsheet-like grid after the ARIA grid pattern: arrows, Tab and Enter move, typing replaces, F2 edits, Shift
 * extends a range, Ctrl+C, Ctrl+X and Ctrl+V speak to spreadsheets, Ctrl+D fills down, with Shift as a series, Delete
 * clears. Only visible rows exist.
 */
import { type KeyboardEvent, useCallback, useId, useMemo, useRef, useState } from "react";
import { cx } from "../kit/kit";
import { CellEditor, type Leave } from "./cell-editor";
import { fills } from "./fills";
import { type Column, stretched } from "./columns";
import type { GridProps } from "./grid-props";
import { Heads } from "./head";
import { HeldBar } from "./held-bar";
import { actionOf } from "./keys";
import type { Spot } from "./place";
import { GridRow, ROW_HEIGHT } from "./row";
import { useClipboard } from "./use-clipboard";
import { useActiveRow, useCursor } from "./use-cursor";
import { useAstray, useBegin, useEditing } from "./use-editing";
import { useEntries } from "./use-entries";
import { intoSight, useRoom, useRows } from "./use-rows";

/** Delay before a row that keys moved to is reported [ms]. */
const DELAY = 140;
/** Where the cursor goes from a cell that was typed into. */
const LEAVES: { readonly [way in Leave]: Spot } = {
  down: { row: 1, column: 0 },
  up: { row: -1, column: 0 },
  right: { row: 0, column: 1 },
  left: { row: 0, column: -1 },
  stay: { row: 0, column: 0 },
};

export function Grid<R>(props: GridProps<R>) {
  const { label, rows, columns: given, keyOf, activeKey, onActive, onOpen, onWrite, moved, stampOf } = props;
  const {
    orders,
    onOrders,
    pinned = 1,
    menu,
    filtered,
    onWidth,
    onPlace,
    onFind,
    onSelection,
    begin,
    action,
    onAction,
    empty,
  } = props;
  const id = useId();
  const scroller = useRef<HTMLDivElement>(null);
  const room = useRoom(scroller);
  const columns = useMemo(() => stretched(given, room), [given, room]);
  const [menuOf, setMenuOf] = useState<string | null>(null);
  const widths = columns.map((c) => c.width);
  const lefts = useMemo(() => columns.map((_, i) => columns.slice(0, i).reduce((t, c) => t + c.width, 0)), [columns]);
  const size = { width: widths.reduce((t, w) => t + w, 0), minWidth: "100%" };
  const template = widths.map((w) => `${w}px`).join(" ");
  const shown = { rows, columns, keyOf };

  const cell = useEditing<R>();
  const { editing } = cell;
  const cursor = useCursor({ ...shown, typing: editing?.place ?? null, onSelection });
  const { at, block } = cursor;
  const entries = useEntries({ columns, keyOf, onWrite });
  const { write, textOf, editable, held, refusal, setRefusal } = entries;
  const inSight = useRows(rows.length, scroller, editing && !at.lost ? at.row : -1);
  const column = columns[at.column];
  const row = rows[at.row] as R | undefined;
  const focus = () => scroller.current?.focus({ preventScroll: true });

  const { report, cancel } = useActiveRow({
    ...shown,
    activeKey,
    onActive,
    // What is being typed stays where it was begun.
    onElsewhere: (index) => {
      if (index === at.row || editing) return;
      cursor.put({ row: index, column: at.column });
      inSight.toRow(index, "center");
    },
  });
  const move = (to: Spot, extend = false) => {
    const next = cursor.within(to);
    cursor.put(next, extend);
    setRefusal(null);
    inSight.toRow(next.row);
    if (scroller.current) intoSight(scroller.current, lefts, widths, pinned, next.column);
    const target = rows[next.row];
    if (target !== undefined && next.row !== at.row && !extend) report(target, DELAY);
  };
  const edit = (spot: Spot, text: string, how: { keep: boolean; fresh?: boolean }) => {
    cursor.put(spot);
    setRefusal(null);
    cell.start(shown, spot, text, how);
  };
  const editAt = (spot: Spot, fresh = false) =>
    edit(spot, textOf(rows[spot.row], columns[spot.column]), { keep: true, fresh });
  useBegin(begin, shown, (spot) => {
    inSight.toRow(spot.row, "center");
    editAt(spot, true);
  });
  useAstray(cell, at.lost, (message) => {
    focus();
    if (message) setRefusal(message);
  });
  const finish = (text: string, way: Leave) => {
    cell.end();
    focus();
    // A cell that was left as it was keeps what someone else wrote into it meanwhile.
    const same = text === textOf(row as R, column) || (editing?.keep && text === editing.text.trim());
    if (!same) void write([{ row: row as R, column: column.id, text }]);
    const by = LEAVES[way];
    if (way !== "stay" && !(way === "down" && editing?.fresh))
      move({ row: at.row + by.row, column: at.column + by.column });
  };

  const { clear, fill, fillOn } = fills({ rows, columns, cursor, entries });
  const clipboard = useClipboard({ rows, columns, block, entries, typing: !!editing, writable: !!onWrite, clear });

  const press = (e: KeyboardEvent<HTMLDivElement>) => {
    if (editing || e.target !== e.currentTarget) return;
    const page = Math.max(1, Math.floor((scroller.current?.clientHeight ?? 300) / ROW_HEIGHT) - 2);
    const action = actionOf(e, at, { rows: rows.length, columns: columns.length, page });
    if (action?.does === "find" && onFind) {
      e.preventDefault();
      onFind();
    }
    const may = editable(row, column);
    if (!action || row === undefined || action.does === "find" || (action.does === "type" && !may)) return;
    e.preventDefault();
    if (action.does === "move") move(action.to, action.extend);
    else if (action.does === "type") edit(at, action.text, { keep: false });
    else if (action.does === "menu") setMenuOf(menu ? column.id : null);
    else if (action.does === "edit" && may) editAt(at);
    else if (action.does === "space" && may && column.edit?.toggled)
      void write([{ row, column: column.id, text: column.edit.toggled(row) }]);
    else if (action.does === "edit" || action.does === "space") onOpen?.(row);
    else if (action.does === "escape") {
      cursor.narrow();
      setRefusal(null);
    } else if (action.does === "clear") clear();
    else if (action.does === "fill") fill();
    else if (action.does === "continue") fillOn();
    else cursor.selectAll();
  };
  /** To the next cell that can't be read. */
  const toFault = () => {
    if (!held) return;
    const cells = [...held.faults.keys()];
    const next = held.entries.find((e) => entries.cellOf(e) === cells[(cells.indexOf(here ?? "") + 1) % cells.length]);
    const to = next && { row: rows.indexOf(next.row), column: columns.findIndex((c) => c.id === next.column) };
    if (!to) return;
    if (to.row >= 0 && to.column >= 0) move(to);
    focus();
  };
  const here = row === undefined ? null : `${keyOf(row)} ${column.id}`;

  // Rows are kept as they are while the cursor moves over others, so their handlers must stay the same functions.
  const latest = useRef({ press: (_: Spot, __: boolean) => {}, open: (_: Spot) => {}, act: (_: number) => {} });
  latest.current = {
    act: (r) => onAction?.(rows[r]),
    press: (spot, extend) => {
      focus();
      move(spot, extend);
      if (!extend) report(rows[spot.row]);
    },
    open: (spot) => (editable(rows[spot.row], columns[spot.column]) ? editAt(spot) : onOpen?.(rows[spot.row])),
  };
  const pressed = useCallback(
    (r: number, c: number, extend: boolean) => latest.current.press({ row: r, column: c }, extend),
    [],
  );
  const acted = useCallback((r: number) => latest.current.act(r), []);
  const opened = useCallback((r: number, c: number) => latest.current.open({ row: r, column: c }), []);

  return (
    <div className="relative flex min-h-0 min-w-0 flex-1 flex-col bg-fog">
      {/** biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element */}
      <div
        ref={scroller}
        role="grid"
        tabIndex={0}
        aria-label={label}
        aria-rowcount={rows.length + 1}
        aria-colcount={columns.length}
        aria-multiselectable
        aria-activedescendant={rows.length ? `${id}-${at.row}-${at.column}` : undefined}
        onKeyDown={press}
        onBlur={cancel}
        {...clipboard}
        className={cx("group min-h-0 overflow-auto outline-none", rows.length > 0 && "flex-1")}
      >
        <Heads
          columns={columns}
          lefts={lefts}
          pinned={pinned}
          style={{ gridTemplateColumns: template, ...size }}
          orders={orders}
          onOrders={onOrders}
          filtered={filtered}
          menu={menu}
          menuOf={menuOf}
          onMenu={(of) => {
            setMenuOf(of);
            if (of === null) focus();
          }}
          onWidth={onWidth}
          onPlace={onPlace}
        />
        <div role="presentation" style={{ height: inSight.height, position: "relative", ...size }}>
          {inSight.items.map((v) => {
            const r = rows[v.index];
            const key = keyOf(r);
            const inBlock = cursor.extended && v.index >= block.top && v.index <= block.bottom;
            const cursorAt = v.index === at.row ? at.column : -1;
            const stamps = stampOf?.(r);
            return (
              <GridRow
                key={key}
                id={`${id}-${v.index}`}
                index={v.index}
                start={v.start}
                row={r}
                columns={columns as readonly Column<unknown>[]}
                template={template}
                pinned={pinned}
                active={key === activeKey}
                moved={!!moved?.has(key)}
                stamp={stamps?.[0]}
                mark={stamps?.[1]}
                cursor={cursorAt}
                from={inBlock ? block.left : -1}
                to={inBlock ? block.right : -1}
                {...entries.waitingIn(key)}
                action={action}
                act={acted}
                press={pressed}
                open={opened}
                editor={
                  cursorAt >= 0 && editing && !at.lost ? (
                    <CellEditor
                      label={`${column.title}, row ${v.index + 1}`}
                      start={editing.text}
                      keep={editing.keep}
                      numeric={!!column.numeric}
                      names={column.edit?.names?.(r)}
                      colour={column.edit?.colour}
                      onText={(text) => {
                        cell.typed.current = text;
                      }}
                      onCancel={() => {
                        cell.end();
                        focus();
                      }}
                      onDone={finish}
                    />
                  ) : null
                }
              />
            );
          })}
        </div>
      </div>
      {rows.length === 0 && <div className="flex-1 overflow-auto">{empty}</div>}
      <HeldBar entries={entries} here={here} onNext={toFault} />
      {refusal && (
        <p role="alert" className="border-t border-beet bg-beet-wash px-3 py-1.5 text-beet">
          {refusal}
        </p>
      )}
    </div>
  );
}
