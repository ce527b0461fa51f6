/** What a grid is given. */
import type { ReactNode } from "react";
import type { Column, Order } from "./columns";
import type { RowAction } from "./row";
import type { Begin } from "./use-editing";
import type { CellEntry, Refusal } from "./use-entries";

export interface GridProps<R> {
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
  /** What can be done with a row, in its first cell. */
  readonly action?: RowAction;
  readonly onAction?: (row: R) => void;
  readonly empty: ReactNode;
}
