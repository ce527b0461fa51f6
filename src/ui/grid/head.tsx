"use client";
/** The head of a column: sorts by it, says what can be done with it, and is drawn wider or narrower at its edge. */
import { ChevronDown, Filter } from "lucide-react";
import { type CSSProperties, type PointerEvent, type ReactNode, useRef } from "react";
import { cx } from "../kit/kit";
import { Beside } from "../kit/popup";
import { type Column, type Order, pressedHead } from "./columns";

interface Props<R> {
  readonly column: Column<R>;
  readonly index: number;
  /** Where it stays while the others scroll; null: it scrolls. */
  readonly left: number | null;
  readonly order: Order | undefined;
  /** Its place among several that rows are sorted by, from 1; 0: there are no several. */
  readonly place: number;
  readonly filtered: boolean;
  readonly onSort: (also: boolean) => void;
  readonly menu?: (column: Column<R>, close: () => void) => ReactNode;
  readonly open: boolean;
  readonly onOpen: (open: boolean) => void;
  readonly onWidth?: (column: string, width: number) => void;
  readonly onPlace?: (column: string, to: string) => void;
}

const DRAGGED = "application/x-salty-column";

export const LEAST_WIDTH = 44;
export const MOST_WIDTH = 640;
const within = (width: number): number => Math.round(Math.min(MOST_WIDTH, Math.max(LEAST_WIDTH, width)));

export function Head<R>({
  column: c,
  index,
  left,
  order,
  place,
  filtered,
  onSort,
  menu,
  open,
  onOpen,
  onWidth,
  onPlace,
}: Props<R>) {
  const anchor = useRef<HTMLSpanElement>(null);
  const drag = (e: PointerEvent<HTMLSpanElement>) => {
    const from = e.clientX;
    const edge = e.currentTarget;
    edge.setPointerCapture(e.pointerId);
    const move = (to: globalThis.PointerEvent) => onWidth?.(c.id, within(c.width + to.clientX - from));
    edge.addEventListener("pointermove", move);
    edge.addEventListener("pointerup", () => edge.removeEventListener("pointermove", move), { once: true });
    e.preventDefault();
  };
  return (
    // biome-ignore lint/a11y/useFocusableInteractive: focus stays on the whole; aria-activedescendant tells what is active
    // biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element
    <div
      role="columnheader"
      aria-colindex={index + 1}
      aria-sort={order ? (order.down ? "descending" : "ascending") : "none"}
      className={cx("group/head flex bg-salt", left !== null ? "sticky z-10" : "relative")}
      style={left === null ? undefined : { left }}
    >
      <button
        type="button"
        tabIndex={-1}
        draggable={onPlace !== undefined && index > 0}
        onDragStart={(e) => e.dataTransfer.setData(DRAGGED, c.id)}
        onDragOver={(e) => index > 0 && e.dataTransfer.types.includes(DRAGGED) && e.preventDefault()}
        onDrop={(e) => {
          const moved = e.dataTransfer.getData(DRAGGED);
          if (moved && moved !== c.id) onPlace?.(moved, c.id);
        }}
        onClick={(e) => onSort(e.shiftKey)}
        className={cx(
          "head flex h-7 min-w-0 flex-1 items-center gap-1 overflow-hidden px-2 whitespace-nowrap hover:text-ink",
          c.numeric && "justify-end",
          c.worked && "text-kelp!",
        )}
        title={`Sort by ${c.title}. Shift-click adds it to the sorting.`}
      >
        <span className="truncate">{c.title}</span>
        {order && (
          <span aria-hidden>
            {order.down ? "↓" : "↑"}
            {place > 0 && place}
          </span>
        )}
      </button>
      {menu && !open && (
        <button
          type="button"
          tabIndex={-1}
          aria-label={`${c.title}: column menu`}
          onClick={() => onOpen(true)}
          className={cx(
            "absolute top-0.5 right-0.5 grid size-6 place-items-center rounded-sm bg-salt",
            filtered ? "text-copper" : "text-third opacity-0 group-hover/head:opacity-100",
          )}
        >
          {filtered ? <Filter size={12} aria-hidden /> : <ChevronDown size={12} aria-hidden />}
        </button>
      )}
      {menu && open && (
        <>
          <span ref={anchor} className="absolute top-0 right-2 h-7" />
          <Beside
            anchor={anchor}
            align="start"
            label={`Column ${c.title}`}
            className="w-64"
            onClose={() => onOpen(false)}
          >
            {menu(c, () => onOpen(false))}
          </Beside>
        </>
      )}
      {onWidth && (
        <span
          aria-hidden
          onPointerDown={drag}
          className="absolute top-0 right-0 z-10 h-full w-1 cursor-col-resize hover:bg-line"
        />
      )}
    </div>
  );
}

interface HeadsProps<R> extends Pick<Props<R>, "menu" | "onWidth" | "onPlace"> {
  readonly columns: readonly Column<R>[];
  /** Where each begins [px]. */
  readonly lefts: readonly number[];
  readonly pinned: number;
  readonly style: CSSProperties;
  readonly orders: readonly Order[];
  readonly onOrders: (orders: readonly Order[]) => void;
  readonly filtered?: ReadonlySet<string>;
  /** The column whose menu is open; null: none is. */
  readonly menuOf: string | null;
  readonly onMenu: (column: string | null) => void;
}

/** All of them, in a row that stays in sight. */
export function Heads<R>(props: HeadsProps<R>) {
  const { columns, lefts, pinned, style, orders, onOrders, filtered, menu, menuOf, onMenu, onWidth, onPlace } = props;
  return (
    // biome-ignore lint/a11y/useFocusableInteractive: focus stays on the whole; aria-activedescendant tells what is active
    // biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element
    <div role="row" aria-rowindex={1} className="sticky top-0 z-20 grid border-b border-line bg-salt" style={style}>
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
          onOpen={(open) => onMenu(open ? c.id : null)}
          onWidth={onWidth}
          onPlace={onPlace}
        />
      ))}
    </div>
  );
}
