"use client";
/**
 * A spreadsheet-like grid after the ARIA grid pattern: arrows, Tab and Enter move, typing replaces, F2 edits, Shift
 * extends a range, Ctrl+C, Ctrl+X and Ctrl+V speak to spreadsheets, Ctrl+D fills down, with Shift as a series, Delete clears. Only visible rows exist.
 */
import { defaultRangeExtractor, useVirtualizer, type VirtualItem } from "@tanstack/react-virtual";
import {
  type ClipboardEvent,
  type KeyboardEvent,
  type ReactNode,
  useCallback,
  useEffect,
  useId,
  useMemo,
  useRef,
  useState,
  type RefObject,
  useLayoutEffect,
} from "react";
import { Button, cx } from "../kit/kit";
import { CellEditor } from "./cell-editor";
import { continued, formatBlock, parseBlock, placed } from "./clipboard";
import { type Column, type Order, pressedHead, stretched } from "./columns";
import { Head } from "./head";
import { AT_FIRST, type Place, placeAt, type Spot, whereIs } from "./place";
import { GridRow, ROW_HEIGHT } from "./row";
import type { Offer } from "../kit/refusal";

export interface CellEntry<R> {
  readonly row: R;
  readonly column: string;
  readonly text: string;
}

/** Why entries were not written, and which of them can't be. */
export interface Refusal {
  readonly says: string;
  readonly faults: readonly { readonly at: number; readonly says: string }[];
  /** What can be created so that it is accepted. */
  readonly offer?: Offer;
}

/** Entries that wait because some of them can't be read: nothing of them is written until somebody says what becomes of them. */
interface Held<R> {
  readonly entries: readonly CellEntry<R>[];
  /** By cell. */
  readonly faults: ReadonlyMap<string, string>;
}

/** The same each time, so that nobody is told of what they know. */
const NONE: readonly unknown[] = [];

/** A cell whose text is being changed. */
interface Editing {
  readonly place: Place;
  readonly text: string;
  /** What is there is changed, rather than replaced by what is typed. */
  readonly keep: boolean;
  /** A record that was made a moment ago: Enter stays with it. */
  readonly fresh?: boolean;
}

/** A cell to be typed into as soon as it is shown. */
export interface Begin {
  readonly key: string;
  readonly column: string;
}

interface Props<R> {
  readonly label: string;
  readonly rows: readonly R[];
  readonly columns: readonly Column<R>[];
  readonly keyOf: (row: R) => string;
  readonly activeKey?: string | null;
  readonly onActive?: (row: R) => void;
  readonly onOpen?: (row: R) => void;
  /** Writes what was typed; resolves to why, where it was refused. */
  readonly onWrite?: (entries: readonly CellEntry<R>[]) => Promise<Refusal | null>;
  readonly moved?: ReadonlySet<string>;
  /** What cells show beside the row itself; a row is drawn again where one of the two is another. */
  readonly stampOf?: (row: R) => readonly [unknown, unknown];
  readonly orders: readonly Order[];
  readonly onOrders: (orders: readonly Order[]) => void;
  /** How many columns stay in sight from the left; the first always does. */
  readonly pinned?: number;
  /** What can be done with a column, under its head. */
  readonly menu?: (column: Column<R>, close: () => void) => ReactNode;
  /** Columns that something is filtered by. */
  readonly filtered?: ReadonlySet<string>;
  readonly onWidth?: (column: string, width: number) => void;
  /** A head was dragged to where another stands. */
  readonly onPlace?: (column: string, to: string) => void;
  /** Ctrl+F looks here rather than in what the browser has drawn of the rows. */
  readonly onFind?: () => void;
  /** Tells the rows that are selected; none where only the cursor stands somewhere. */
  readonly onSelection?: (rows: readonly R[]) => void;
  /** Another one each time: begins to edit a cell, such as the name of a new record. */
  readonly begin?: Begin | null;
  readonly empty: ReactNode;
}

/** The width of an element [px]; 0 before it is drawn. */
function useRoom(of: RefObject<HTMLElement | null>): number {
  const [room, setRoom] = useState(0);
  useLayoutEffect(() => {
    const { current } = of;
    if (!current) return;
    const measure = () => setRoom(current.clientWidth);
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(current);
    return () => observer.disconnect();
  }, [of]);
  return room;
}

export function Grid<R>({
  label,
  rows,
  columns: given,
  keyOf,
  activeKey,
  onActive,
  onOpen,
  onWrite,
  moved,
  stampOf,
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
  empty,
}: Props<R>) {
  const prefix = useId();
  const scroller = useRef<HTMLDivElement>(null);
  const room = useRoom(scroller);
  const columns = useMemo(() => stretched(given, room), [given, room]);
  const [place, setPlace] = useState<Place>(AT_FIRST);
  const [anchor, setAnchor] = useState<Place | null>(null);
  const [editing, setEditing] = useState<Editing | null>(null);
  const typed = useRef("");
  const [refusal, setRefusal] = useState<string | null>(null);
  const [offer, setOffer] = useState<Offer | null>(null);
  const [menuOf, setMenuOf] = useState<string | null>(null);
  const [pending, setPending] = useState<ReadonlyMap<string, string>>(new Map());
  const [held, setHeld] = useState<Held<R> | null>(null);
  const template = columns.map((c) => `${c.width}px`).join(" ");
  const width = columns.reduce((t, c) => t + c.width, 0);
  const lefts = useMemo(() => columns.map((_, i) => columns.slice(0, i).reduce((t, c) => t + c.width, 0)), [columns]);
  const shown = { rows, columns, keyOf };
  // biome-ignore lint/correctness/useExhaustiveDependencies: a row has the same key whoever asks
  const at = useMemo(() => whereIs(shown, editing?.place ?? place), [rows, columns, place, editing]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: as above
  const other = useMemo(() => (anchor ? whereIs(shown, anchor) : at), [rows, columns, anchor, at]);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW_HEIGHT,
    overscan: 12,
    scrollPaddingEnd: 44,
    rangeExtractor: (range) => {
      const seen = defaultRangeExtractor(range);
      return editing && !at.lost && !seen.includes(at.row) ? [...seen, at.row] : seen;
    },
  });
  const column = columns[at.column];
  const row = rows[at.row] as R | undefined;

  /** The row that is typed into comes first: moving others around it must not take the focus from it. */
  const inOrder = (items: readonly VirtualItem[]): readonly VirtualItem[] =>
    editing ? [...items].sort((a, b) => Number(b.index === at.row) - Number(a.index === at.row)) : items;

  // A selection from outside (an address, another view) brings its row into sight.
  const wasActive = useRef<string | null | undefined>(undefined);
  // What we told ourselves comes back a moment later through the address; by then the cursor may be further on.
  const told = useRef<string[]>([]);
  const soon = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  useEffect(() => () => clearTimeout(soon.current), []);
  /** Tells which row the cursor is on: at once after a click, after a moment of rest when keys move it. */
  const activate = (r: R, rest = 0) => {
    clearTimeout(soon.current);
    soon.current = setTimeout(() => {
      told.current.push(keyOf(r));
      onActive?.(r);
    }, rest);
  };
  useEffect(() => {
    if (activeKey === wasActive.current) return;
    wasActive.current = activeKey;
    const echo = activeKey ? told.current.indexOf(activeKey) : -1;
    if (echo >= 0) {
      told.current.splice(0, echo + 1);
      return;
    }
    const index = activeKey ? rows.findIndex((r) => keyOf(r) === activeKey) : -1;
    // What is being typed stays where it was begun.
    if (index >= 0 && index !== at.row && !editing) {
      setPlace(placeAt({ rows, columns, keyOf }, { row: index, column: at.column }));
      virtual.scrollToIndex(index, { align: "center" });
    }
  }, [activeKey, rows, columns, keyOf, virtual, at, editing]);

  const move = (to: Spot, extend = false) => {
    const next = {
      row: Math.max(0, Math.min(rows.length - 1, to.row)),
      column: Math.max(0, Math.min(columns.length - 1, to.column)),
    };
    setAnchor(extend ? (anchor ?? placeAt(shown, at)) : null);
    setPlace(placeAt(shown, next));
    setRefusal(null);
    virtual.scrollToIndex(next.row);
    const box = scroller.current;
    if (box && next.column > 0) {
      const [left, right] = [lefts[next.column], lefts[next.column] + columns[next.column].width];
      const kept = pinned < columns.length ? lefts[pinned] : width;
      if (next.column >= pinned && left - kept < box.scrollLeft) box.scrollLeft = left - kept;
      else if (right > box.scrollLeft + box.clientWidth) box.scrollLeft = right - box.clientWidth;
    }
    const target = rows[next.row];
    if (target !== undefined && next.row !== at.row && !extend) activate(target, 140);
  };

  const editable = (r: R | undefined, c: Column<R>): boolean =>
    r !== undefined && !!onWrite && !!c.edit && (c.edit.may?.(r) ?? true);
  const range = () => ({
    top: Math.min(at.row, other.row),
    bottom: Math.max(at.row, other.row),
    left: Math.min(at.column, other.column),
    right: Math.max(at.column, other.column),
  });

  // Who acts on what is selected is told of it, once it is another.
  const chosen = anchor && other.row !== at.row ? `${range().top} ${range().bottom}` : "";
  // biome-ignore lint/correctness/useExhaustiveDependencies: told when other rows are selected, not when they change
  useEffect(() => {
    const box = range();
    onSelection?.(chosen ? rows.slice(box.top, box.bottom + 1) : (NONE as readonly R[]));
  }, [chosen, rows]);

  const write = async (entries: readonly CellEntry<R>[]) => {
    const wanted = entries.filter((e) => editable(e.row, columns.find((c) => c.id === e.column) as Column<R>));
    if (!wanted.length || !onWrite) return;
    const mine = wanted.map((e) => [cellOf(e), e.text] as const);
    setPending((all) => new Map([...all, ...mine]));
    const refused = await onWrite(wanted);
    setPending((all) => {
      const rest = new Map(all);
      for (const [key, text] of mine) if (rest.get(key) === text) rest.delete(key);
      return rest;
    });
    setOffer(refused?.offer ?? null);
    if (refused?.faults.length) {
      const faults = new Map(refused.faults.map(({ at, says }) => [cellOf(wanted[at]), says]));
      hold({ entries: wanted, faults });
      setRefusal(null);
    } else {
      settle(new Set(mine.map(([cell]) => cell)));
      setRefusal(refused?.says ?? null);
    }
  };
  const cellOf = (e: CellEntry<R>): string => `${keyOf(e.row)} ${e.column}`;
  /** What can't be read waits in its cells, together with what waited there already. */
  const hold = (more: Held<R>) =>
    setHeld((before) => {
      const cells = new Set(more.entries.map(cellOf));
      const rest = before?.entries.filter((e) => !cells.has(cellOf(e))) ?? [];
      const faults = new Map([...(before?.faults ?? [])].filter(([cell]) => !cells.has(cell)));
      return { entries: [...rest, ...more.entries], faults: new Map([...faults, ...more.faults]) };
    });
  /** Cells that were written wait no longer. */
  const settle = (cells: ReadonlySet<string>) =>
    setHeld((before) => {
      const entries = before?.entries.filter((e) => !cells.has(cellOf(e))) ?? [];
      if (!before || !entries.length) return null;
      return { entries, faults: new Map([...before.faults].filter(([cell]) => !cells.has(cell))) };
    });
  const heldTexts = held && new Map(held.entries.map((e) => [cellOf(e), e.text]));
  const waitingText = (cell: string): string | undefined => pending.get(cell) ?? heldTexts?.get(cell);
  const readable = held?.entries.filter((e) => !held.faults.has(cellOf(e))) ?? [];
  const toFault = () => {
    const cells = held ? [...held.faults.keys()] : [];
    const here = row === undefined ? -1 : cells.indexOf(`${keyOf(row)} ${column.id}`);
    const next = held?.entries.find((e) => cellOf(e) === cells[(here + 1) % cells.length]);
    if (!next) return;
    const spotted = { row: rows.indexOf(next.row), column: columns.findIndex((c) => c.id === next.column) };
    if (spotted.row >= 0 && spotted.column >= 0) move(spotted);
    scroller.current?.focus({ preventScroll: true });
  };
  /** What a cell says, counting what was typed and is still on its way. */
  const textOf = (r: R, c: Column<R>): string => waitingText(`${keyOf(r)} ${c.id}`) ?? c.text(r);

  const edit = (spot: Spot, text: string, keep: boolean, fresh = false) => {
    const there = placeAt(shown, spot);
    setPlace(there);
    setAnchor(null);
    setRefusal(null);
    typed.current = text;
    setEditing({ place: there, text, keep, fresh });
  };
  const begun = useRef(begin);
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each, as soon as its row is there
  useEffect(() => {
    if (!begin || begun.current === begin) return;
    const to = {
      row: rows.findIndex((r) => keyOf(r) === begin.key),
      column: columns.findIndex((c) => c.id === begin.column),
    };
    if (to.row < 0 || to.column < 0) return;
    begun.current = begin;
    virtual.scrollToIndex(to.row, { align: "center" });
    edit(to, textOf(rows[to.row], columns[to.column]), true, true);
  }, [begin, rows, columns]);

  /** What somebody types into a row that is taken away is not lost, and not written to another one. */
  const astray = editing !== null && at.lost;
  // biome-ignore lint/correctness/useExhaustiveDependencies: once it has gone astray
  useEffect(() => {
    if (!astray) return;
    setEditing(null);
    scroller.current?.focus({ preventScroll: true });
    if (typed.current !== editing?.text || !editing.keep)
      setRefusal(`“${typed.current}” was not saved, because its row is no longer shown.`);
  }, [astray]);

  const finish = (text: string, next: Spot | null) => {
    setEditing(null);
    scroller.current?.focus({ preventScroll: true });
    // A cell that was left as it was keeps what somebody else wrote into it meanwhile.
    const same = text === textOf(row as R, column) || (editing?.keep && text === editing.text.trim());
    if (!same) void write([{ row: row as R, column: column.id, text }]);
    if (next) move(next);
  };

  const press = (e: KeyboardEvent<HTMLDivElement>) => {
    if (editing || e.target !== e.currentTarget) return;
    const command = e.ctrlKey || e.metaKey;
    if (e.altKey && e.key === "ArrowDown" && menu) {
      e.preventDefault();
      setMenuOf(column.id);
      return;
    }
    const page = Math.max(1, Math.floor((scroller.current?.clientHeight ?? 300) / ROW_HEIGHT) - 2);
    const go: Record<string, Spot> = {
      ArrowDown: { row: at.row + (command ? rows.length : 1), column: at.column },
      ArrowUp: { row: command ? 0 : at.row - 1, column: at.column },
      ArrowRight: { row: at.row, column: command ? columns.length : at.column + 1 },
      ArrowLeft: { row: at.row, column: command ? 0 : at.column - 1 },
      PageDown: { row: at.row + page, column: at.column },
      PageUp: { row: at.row - page, column: at.column },
      Home: { row: command ? 0 : at.row, column: 0 },
      End: { row: command ? rows.length : at.row, column: columns.length },
    };
    if (go[e.key]) {
      e.preventDefault();
      move(go[e.key], e.shiftKey);
    } else if (e.key === "Tab" && !command) {
      const next = at.column + (e.shiftKey ? -1 : 1);
      if (next < 0 || next >= columns.length) return;
      e.preventDefault();
      move({ row: at.row, column: next });
    } else if (e.key === "Enter" || e.key === "F2") {
      e.preventDefault();
      if (editable(row, column) && row !== undefined) edit(at, textOf(row, column), true);
      else if (row !== undefined) onOpen?.(row);
    } else if (e.key === " " && row !== undefined && column.edit?.toggled && editable(row, column)) {
      e.preventDefault();
      void write([{ row, column: column.id, text: column.edit.toggled(row) }]);
    } else if (e.key === " " && row !== undefined) {
      e.preventDefault();
      onOpen?.(row);
    } else if (e.key === "Escape") {
      setAnchor(null);
      setRefusal(null);
    } else if ((e.key === "Delete" || e.key === "Backspace") && onWrite) {
      e.preventDefault();
      clear();
    } else if (command && e.key.toLowerCase() === "f" && onFind) {
      e.preventDefault();
      onFind();
    } else if (command && e.shiftKey && e.key.toLowerCase() === "d" && onWrite) {
      e.preventDefault();
      const box = range();
      const texts = (c: number) => rows.slice(box.top, box.bottom + 1).map((r) => textOf(r, columns[c]));
      const filled = Array.from({ length: box.right - box.left + 1 }, (_, k) => continued(texts(box.left + k)));
      void write(
        cells().map(([r, c]) => ({ row: rows[r], column: columns[c].id, text: filled[c - box.left][r - box.top] })),
      );
    } else if (command && e.key.toLowerCase() === "d" && onWrite) {
      e.preventDefault();
      const box = range();
      void write(
        cells()
          .filter(([r]) => r > box.top)
          .map(([r, c]) => ({ row: rows[r], column: columns[c].id, text: textOf(rows[box.top], columns[c]) })),
      );
    } else if (command && e.key.toLowerCase() === "a") {
      e.preventDefault();
      setAnchor(placeAt(shown, { row: 0, column: 0 }));
      setPlace(placeAt(shown, { row: rows.length - 1, column: columns.length - 1 }));
    } else if (!command && !e.altKey && e.key.length === 1 && editable(row, column)) {
      e.preventDefault();
      edit(at, e.key, false);
    }
  };

  const clear = () => void write(cells().map(([r, c]) => ({ row: rows[r], column: columns[c].id, text: "" })));
  const cells = (): [number, number][] => {
    const box = range();
    const list: [number, number][] = [];
    for (let r = box.top; r <= box.bottom; r++) for (let c = box.left; c <= box.right; c++) list.push([r, c]);
    return list;
  };

  const copy = (e: ClipboardEvent) => {
    if (editing) return;
    const box = range();
    const text = formatBlock(
      rows.slice(box.top, box.bottom + 1).map((r) => columns.slice(box.left, box.right + 1).map((c) => textOf(r, c))),
    );
    e.clipboardData.setData("text/plain", text);
    e.preventDefault();
  };

  const cut = (e: ClipboardEvent) => {
    copy(e);
    if (!editing) clear();
  };

  const paste = (e: ClipboardEvent) => {
    if (editing || !onWrite) return;
    e.preventDefault();
    const block = parseBlock(e.clipboardData.getData("text/plain"));
    const single = block.length === 1 && block[0].length === 1;
    const entries = [...placed(block, range())].flatMap(({ row: r, column: c, text }) =>
      rows[r] !== undefined && columns[c] ? [{ row: rows[r], column: columns[c].id, text: text.trim() }] : [],
    );
    const beyond = [...placed(block, range())].filter(({ row: r }) => r >= rows.length).length;
    const fixed = entries.filter((x) => !columns.find((c) => c.id === x.column)?.edit).length;
    void write(entries).then(() => {
      const left = [
        fixed && !single && `${fixed} pasted cells were skipped, because their columns can't be edited.`,
        beyond && `${beyond} pasted cells are below the last row. Use “Import” to create records from pasted cells.`,
      ].filter(Boolean);
      if (left.length) setRefusal(left.join(" "));
    });
  };

  // Rows are kept as they are while the cursor moves over others, so their handlers must stay the same functions.
  const latest = useRef({
    pressCell: (_: number, __: number, ___: boolean) => {},
    openCell: (_: number, __: number) => {},
  });
  latest.current = {
    pressCell: (r, c, extend) => {
      scroller.current?.focus({ preventScroll: true });
      move({ row: r, column: c }, extend);
      if (!extend) activate(rows[r]);
    },
    openCell: (r, c) =>
      editable(rows[r], columns[c])
        ? edit({ row: r, column: c }, textOf(rows[r], columns[c]), true)
        : onOpen?.(rows[r]),
  };
  const pressed = useCallback((r: number, c: number, extend: boolean) => latest.current.pressCell(r, c, extend), []);
  const opened = useCallback((r: number, c: number) => latest.current.openCell(r, c), []);

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
        aria-activedescendant={rows.length ? `${prefix}-${at.row}-${at.column}` : undefined}
        onKeyDown={press}
        // Leaving for elsewhere must not be overtaken by a selection that was still resting.
        onBlur={() => clearTimeout(soon.current)}
        onCopy={copy}
        onCut={cut}
        onPaste={paste}
        className={cx("group min-h-0 overflow-auto outline-none", rows.length > 0 && "flex-1")}
      >
        {/** biome-ignore lint/a11y/useFocusableInteractive: focus stays on the whole; aria-activedescendant tells what is active */}
        {/** biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element */}
        <div
          role="row"
          aria-rowindex={1}
          className="sticky top-0 z-20 grid border-b border-line bg-salt"
          style={{ gridTemplateColumns: template, width, minWidth: "100%" }}
        >
          {columns.map((c, i) => (
            <Head
              key={c.id}
              column={c}
              index={i}
              left={i < pinned ? lefts[i] : null}
              order={orders.find((o) => o.column === c.id)}
              place={orders.length > 1 ? orders.findIndex((o) => o.column === c.id) + 1 : 0}
              filtered={filtered?.has(c.id) ?? false}
              onSort={(also) => onOrders(pressedHead(orders, c.id, also))}
              menu={menu}
              open={menuOf === c.id}
              onOpen={(open) => {
                setMenuOf(open ? c.id : null);
                if (!open) scroller.current?.focus({ preventScroll: true });
              }}
              onWidth={onWidth}
              onPlace={onPlace}
            />
          ))}
        </div>
        <div
          role="presentation"
          style={{ height: virtual.getTotalSize(), width, minWidth: "100%", position: "relative" }}
        >
          {inOrder(virtual.getVirtualItems()).map((v) => {
            const r = rows[v.index];
            const key = keyOf(r);
            const box = anchor ? range() : null;
            const inBox = box && v.index >= box.top && v.index <= box.bottom ? box : null;
            const cursor = v.index === at.row ? at.column : -1;
            const stamps = stampOf?.(r);
            return (
              <GridRow
                key={key}
                id={`${prefix}-${v.index}`}
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
                cursor={cursor}
                from={inBox ? inBox.left : -1}
                to={inBox ? inBox.right : -1}
                waiting={pending.size || held ? columns.map((c) => waitingText(`${key} ${c.id}`) ?? "").join("\t") : ""}
                faults={held ? columns.map((c) => held.faults.get(`${key} ${c.id}`) ?? "").join("\t") : ""}
                press={pressed}
                open={opened}
                editor={
                  cursor >= 0 && editing && !at.lost ? (
                    <CellEditor
                      label={`${column.title}, row ${v.index + 1}`}
                      start={editing.text}
                      keep={editing.keep}
                      numeric={!!column.numeric}
                      names={column.edit?.names?.(r)}
                      colour={column.edit?.colour}
                      onText={(text) => {
                        typed.current = text;
                      }}
                      onCancel={() => {
                        setEditing(null);
                        scroller.current?.focus({ preventScroll: true });
                      }}
                      onDone={(text, way) =>
                        finish(
                          text,
                          way === "down" && !editing.fresh
                            ? { row: at.row + 1, column: at.column }
                            : way === "up"
                              ? { row: at.row - 1, column: at.column }
                              : way === "right"
                                ? { row: at.row, column: at.column + 1 }
                                : way === "left"
                                  ? { row: at.row, column: at.column - 1 }
                                  : null,
                        )
                      }
                    />
                  ) : null
                }
              />
            );
          })}
        </div>
      </div>
      {rows.length === 0 && <div className="flex-1 overflow-auto">{empty}</div>}
      {held && (
        <div role="alert" className="flex flex-wrap items-center gap-2 border-t border-beet bg-beet-wash px-3 py-1.5">
          <span className="min-w-0 flex-1 text-beet">
            {held.faults.size > 0 ? (
              <>
                {held.faults.size === 1 ? "1 cell" : `${held.faults.size} cells`} can't be read and{" "}
                {held.faults.size === 1 ? "stays" : "stay"} marked
                {row !== undefined && held.faults.get(`${keyOf(row)} ${column.id}`)
                  ? `. Here: ${held.faults.get(`${keyOf(row)} ${column.id}`)}`
                  : `: ${[...held.faults.values()][0]}`}
              </>
            ) : (
              "All invalid cells are corrected."
            )}
          </span>
          {offer && (
            <Button
              onClick={() =>
                void offer.run().then((says) => {
                  setOffer(null);
                  setHeld(says === null ? null : held);
                  setRefusal(says);
                })
              }
            >
              {offer.label}
            </Button>
          )}
          {held.faults.size > 0 && <Button onClick={toFault}>Next</Button>}
          {readable.length > 0 && (
            <Button look="solid" onClick={() => void write(readable)}>
              Save the other {readable.length}
            </Button>
          )}
          <Button onClick={() => setHeld(null)}>Discard</Button>
        </div>
      )}
      {refusal && (
        <p role="alert" className="border-t border-beet bg-beet-wash px-3 py-1.5 text-beet">
          {refusal}
        </p>
      )}
    </div>
  );
}
