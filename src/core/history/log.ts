/** A change as the log keeps it, with what it moved. */
import type { Edit } from "../catalogue/edit";
import type { Id } from "../schema/id";

/** How much moved in the readings, and what most. */
export interface Moved {
  readonly costs: number;
  readonly largest: { readonly id: Id; readonly from: number | null; readonly to: number | null } | null;
  readonly times: number;
  readonly lost: number;
  readonly regained: number;
  readonly opened: number;
  readonly closed: number;
  readonly gainsOpened: number;
  readonly gainsClosed: number;
}

export const NOTHING_MOVED: Moved = {
  costs: 0,
  largest: null,
  times: 0,
  lost: 0,
  regained: 0,
  opened: 0,
  closed: 0,
  gainsOpened: 0,
  gainsClosed: 0,
};

/** A committed change as the log keeps it. */
export interface LoggedChange {
  readonly revision: number;
  readonly author: string;
  /** ISO 8601. */
  readonly at: string;
  readonly note: string;
  /** The revision it takes back. */
  readonly undoes: number | null;
  /** Empty in lists when there are very many. */
  readonly edits: readonly Edit[];
  /** Number of edits. */
  readonly size: number;
  /** null: not followed. */
  readonly moved: Moved | null;
}
