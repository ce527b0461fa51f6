"use client";
/** A grid in which things lie: arrows walk, typing names what lies there, Delete clears; copied, pasted and dragged. */
import { useRef, useState } from "react";
import { resized } from "@/core/editing/arrange";
import { WIDEST } from "@/core/notation/places";
import { focusPlace } from "../kit/focus-place";
import { cx } from "../kit/kit";
import { NameInput } from "../kit/name-input";

interface Unread {
  readonly message: string;
}
const isUnread = (read: unknown): read is Unread => typeof read === "object" && read !== null && "message" in read;

export type PlacesOf<T> = readonly (readonly (T | null)[])[];
interface Props<T> {
  readonly label: string;
  readonly places: PlacesOf<T>;
  readonly onPlaces: (next: PlacesOf<T>) => void;
  /** What lies in a place, as it is typed; "" for nothing. */
  readonly say: (thing: T | null) => string;
  /** What a text stands for; null: nothing. What can't be read says why, and stays where it was typed. */
  readonly read: (text: string) => T | null | Unread;
  readonly names: readonly string[];
  /** Whether the grid grows where more is pasted than has room. */
  readonly grows?: boolean;
  /** What is wrong with a place, if anything is. */
  readonly amiss?: (row: number, column: number) => string | null;
}

const MOVES: { readonly [key: string]: readonly [number, number] } = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};
const NUMBERS = Array.from({ length: WIDEST }, (_, k) => k + 1);

export function PlaceGrid<T>({ label, places, onPlaces, say, read, names, grows = false, amiss }: Props<T>) {
  const [[row, column], setAt] = useState<readonly [number, number]>([0, 0]);
  const [typing, setTyping] = useState<string | null>(null);
  /** Why what was pasted could not be laid. */
  const [message, setMessage] = useState("");
  const dragged = useRef<readonly [number, number] | null>(null);
  const table = useRef<HTMLDivElement>(null);
  const [height, width] = [places.length, places[0].length];
  const at: readonly [number, number] = [Math.min(row, height - 1), Math.min(column, width - 1)];
  const go = (r: number, c: number) => {
    setAt([r, c]);
    setTyping(null);
    focusPlace(table, r, c, { preventScroll: true });
  };
  const put = (r: number, c: number, thing: T | null) =>
    onPlaces(places.map((line, k) => (k === r ? line.map((there, m) => (m === c ? thing : there)) : line)));
  const paste = (text: string) => {
    const block = text
      .replace(/\r?\n$/, "")
      .split(/\r?\n/)
      .map((line) => line.split("\t"));
    const most = grows ? WIDEST : 0;
    const right = Math.max(width, Math.min(most, at[1] + Math.max(...block.map((line) => line.length))));
    const low = Math.max(height, Math.min(most, at[0] + block.length));
    const next = resized(places, right, low).map((line) => [...line]);
    for (const [r, line] of block.entries())
      for (const [c, typed] of line.entries()) {
        if (at[0] + r >= next.length || at[1] + c >= right) continue;
        const thing = read(typed);
        if (isUnread(thing)) return setMessage(`Nothing was pasted. ${thing.message}`);
        next[at[0] + r][at[1] + c] = thing;
      }
    setMessage("");
    onPlaces(next);
  };
  const move = (from: readonly [number, number], to: readonly [number, number], copy: boolean) => {
    const [moved, there] = [places[from[0]][from[1]], places[to[0]][to[1]]];
    onPlaces(
      places.map((line, r) =>
        line.map((thing, c) => {
          if (r === to[0] && c === to[1]) return moved;
          return !copy && r === from[0] && c === from[1] ? there : thing;
        }),
      ),
    );
  };
  return (
    <>
      {/** biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element */}
      <div ref={table} role="grid" aria-label={label} className="w-fit border-r border-b border-line">
        {places.map((line, r) => (
          // biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element
          // biome-ignore lint/a11y/useFocusableInteractive: focus stays on its cells
          <div key={NUMBERS[r]} role="row" className="flex">
            {line.map((thing, c) => {
              const here = at[0] === r && at[1] === c;
              const wrong = amiss?.(r, c) ?? null;
              return (
                // biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element
                <div
                  role="gridcell"
                  key={NUMBERS[c]}
                  data-place={`${r} ${c}`}
                  aria-label={`Row ${r + 1}, column ${c + 1}: ${say(thing) || "nothing"}${wrong ? `. ${wrong}` : ""}`}
                  title={wrong ?? undefined}
                  aria-selected={here}
                  tabIndex={here ? 0 : -1}
                  draggable={thing !== null && typing === null}
                  className={cx(
                    "flex h-12 w-27 items-center justify-center border-t border-l border-line px-1 text-center text-[12px] leading-tight",
                    wrong ? "bg-copper-wash" : here ? "bg-pick" : "bg-salt",
                    here && "outline-2 -outline-offset-2 outline-kelp",
                  )}
                  onClick={() => go(r, c)}
                  onDoubleClick={() => setTyping(say(thing))}
                  onDragStart={() => {
                    dragged.current = [r, c];
                  }}
                  onDragOver={(e) => e.preventDefault()}
                  onDrop={(e) => {
                    e.preventDefault();
                    if (dragged.current) move(dragged.current, [r, c], e.ctrlKey || e.altKey);
                    dragged.current = null;
                    go(r, c);
                  }}
                  onCopy={(e) => {
                    if (typing !== null) return;
                    e.preventDefault();
                    e.clipboardData.setData("text/plain", say(thing) || "-");
                  }}
                  onCut={(e) => {
                    if (typing !== null) return;
                    e.preventDefault();
                    e.clipboardData.setData("text/plain", say(thing) || "-");
                    put(r, c, null);
                  }}
                  onPaste={(e) => {
                    if (typing !== null) return;
                    e.preventDefault();
                    paste(e.clipboardData.getData("text/plain"));
                  }}
                  onKeyDown={(e) => {
                    if (typing !== null) return;
                    const by = MOVES[e.key];
                    if (by)
                      go(Math.max(0, Math.min(height - 1, r + by[0])), Math.max(0, Math.min(width - 1, c + by[1])));
                    else if (e.key === "Delete" || e.key === "Backspace") put(r, c, null);
                    else if (e.key === "Enter" || e.key === "F2") setTyping(say(thing));
                    else if (e.key.length === 1 && !e.ctrlKey && !e.metaKey && !e.altKey) setTyping("");
                    else return;
                    // The first letter belongs to the name that is typed.
                    if (e.key.length !== 1) e.preventDefault();
                  }}
                >
                  {here && typing !== null ? (
                    <NameInput
                      label="Item in this place"
                      value={typing}
                      names={names}
                      clearAfter
                      onDone={(text) => {
                        const thing = read(text);
                        if (isUnread(thing)) return thing.message;
                        put(r, c, thing);
                        go(r, Math.min(width - 1, c + 1));
                        return null;
                      }}
                      onCancel={() => go(r, c)}
                    />
                  ) : (
                    <span className="line-clamp-2">{say(thing) || <span className="text-third">·</span>}</span>
                  )}
                </div>
              );
            })}
          </div>
        ))}
      </div>
      {message && (
        <p role="alert" className="text-[12px] text-beet">
          {message}
        </p>
      )}
    </>
  );
}
