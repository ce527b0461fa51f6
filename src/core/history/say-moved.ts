/** What a change moved, in words: for the tideline and the log. */
import type { Id } from "../schema/id";
import { count, sayMove } from "../numbers/format";
import type { Moved } from "./log";

const INF = Number.POSITIVE_INFINITY;

/** In a few phrases, the weightiest first. */
export function sayMoved(moved: Moved, nameFor: (id: Id) => string, nothing = "nothing else changed"): string[] {
  const parts: string[] = [];
  if (moved.gainsOpened) parts.push(`${count(moved.gainsOpened, "loop")} opened`);
  if (moved.gainsClosed) parts.push(`${count(moved.gainsClosed, "loop")} closed`);
  if (moved.lost) parts.push(`${count(moved.lost, "item")} now unobtainable`);
  if (moved.regained) parts.push(`${count(moved.regained, "item")} obtainable again`);
  if (moved.costs) {
    const l = moved.largest;
    parts.push(
      `${count(moved.costs, "cost")} changed${l && l.from !== null && l.to !== null ? `, largest ${nameFor(l.id)} ${sayMove(l.from ?? INF, l.to ?? INF)}` : ""}`,
    );
  } else if (moved.times) parts.push(`${count(moved.times, "time")} changed`);
  if (moved.opened) parts.push(`${count(moved.opened, "new finding")}`);
  if (moved.closed) parts.push(`${count(moved.closed, "finding")} resolved`);
  return parts.length ? parts : [nothing];
}
