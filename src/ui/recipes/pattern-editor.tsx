"use client";
/** A pattern as a grid: arrows walk, typing names what stands there, Delete clears; copied, pasted and dragged. */
import { useRef, useState } from "react";
import { namesOf } from "@/core/catalogue/surroundings";
import { type Placed, type Places, placesIn, resized, withPlaces } from "@/core/editing/arrange";
import { LIES } from "@/core/notation/pattern";
import { WIDEST } from "@/core/notation/places";
import type { ParsedLine } from "@/core/notation/parsed";
import { list, sayQuantity } from "@/core/numbers/format";
import { focusPlace } from "../kit/focus-place";
import { cx } from "../kit/kit";
import { NameInput } from "../kit/name-input";
import { useCatalogue } from "../pantry/provider";

interface Props {
  readonly parsed: ParsedLine;
  readonly onPlaces: (of: Pick<ParsedLine, "grid" | "entries">) => void;
  /** What a typed name stands for. */
  readonly named: (typed: string) => Pick<Placed, "name" | "item" | "any">;
}

const SIZES = Array.from({ length: WIDEST }, (_, k) => k + 1);
const MOVES: { readonly [key: string]: readonly [number, number] } = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
};
const sayPlace = (of: Placed | null): string =>
  of ? `${of.any === undefined ? of.name : `any ${of.name}`}${of.role === "tool" ? " kept" : ""}` : "";

export function PatternEditor({ parsed, onPlaces, named }: Props) {
  const catalogue = useCatalogue();
  const [[row, column], setAt] = useState<readonly [number, number]>([0, 0]);
  const [typing, setTyping] = useState<string | null>(null);
  const dragged = useRef<readonly [number, number] | null>(null);
  const table = useRef<HTMLDivElement>(null);
  const read = placesIn(parsed);
  const places = read.length ? read : resized([], 2, 2);
  const [height, width] = [places.length, places[0].length];
  const at: readonly [number, number] = [Math.min(row, height - 1), Math.min(column, width - 1)];
  const names = [
    ...namesOf(catalogue, "item").names(),
    ...[...namesOf(catalogue, "tag").names()].map((tag) => `any ${tag}`),
  ];
  const write = (next: Places) => onPlaces(withPlaces(parsed, next));
  const go = (r: number, c: number) => {
    setAt([r, c]);
    setTyping(null);
    focusPlace(table, r, c, { preventScroll: true });
  };
  const put = (r: number, c: number, thing: Placed | null) =>
    write(places.map((line, k) => (k === r ? line.map((there, m) => (m === c ? thing : there)) : line)));
  /** "Knife kept", "any fish", "-": as in a line. */
  const thingOf = (typed: string): Placed | null => {
    const text = typed.trim();
    if (!text || /^[-–—_.]+$/.test(text)) return null;
    const kept = /\s+kept$/i.test(text);
    return {
      ...named(text.replace(/\s+kept$/i, "")),
      role: kept ? "tool" : "ingredient",
      uses: null,
      span: { from: 0, to: 0 },
    };
  };
  const paste = (text: string) => {
    const block = text
      .replace(/\r?\n$/, "")
      .split(/\r?\n/)
      .map((line) => line.split("\t"));
    const right = Math.min(WIDEST, Math.max(width, at[1] + Math.max(...block.map((line) => line.length))));
    const next = resized(places, right, Math.min(WIDEST, Math.max(height, at[0] + block.length))).map((line) => [
      ...line,
    ]);
    for (const [r, line] of block.entries())
      for (const [c, typed] of line.entries())
        if (at[0] + r < next.length && at[1] + c < right) next[at[0] + r][at[1] + c] = thingOf(typed);
    write(next);
  };
  const move = (from: readonly [number, number], to: readonly [number, number], copy: boolean) => {
    const [moved, there] = [places[from[0]][from[1]], places[to[0]][to[1]]];
    write(
      places.map((line, r) =>
        line.map((thing, c) => {
          if (r === to[0] && c === to[1]) return moved;
          return !copy && r === from[0] && c === from[1] ? there : thing;
        }),
      ),
    );
  };
  const size = (label: string, value: number, set: (n: number) => void) => (
    <label className="flex items-center gap-1.5">
      <span className="text-second">{label}</span>
      <select className="field w-auto!" value={value} onChange={(e) => set(Number(e.target.value))}>
        {SIZES.map((n) => (
          <option key={n}>{n}</option>
        ))}
      </select>
    </label>
  );
  const taken = parsed.entries.filter((e) => e.cells);
  return (
    <section aria-label="Pattern" className="space-y-2">
      <div className="flex flex-wrap items-center gap-3">
        <h3 className="head">Pattern</h3>
        {size("wide", width, (n) => write(resized(places, n, height)))}
        {size("high", height, (n) => write(resized(places, width, n)))}
        <span className="text-second">may lie</span>
        {LIES.map((lie) => (
          <label key={lie} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={parsed.grid[lie]}
              onChange={(e) => onPlaces({ grid: { ...parsed.grid, [lie]: e.target.checked }, entries: parsed.entries })}
            />
            {lie}
          </label>
        ))}
      </div>
      {/** biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element */}
      <div ref={table} role="grid" aria-label="Places of the pattern" className="w-fit border-r border-b border-line">
        {places.map((line, r) => (
          // biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element
          // biome-ignore lint/a11y/useFocusableInteractive: focus stays on its cells
          <div key={SIZES[r]} role="row" className="flex">
            {line.map((thing, c) => {
              const here = at[0] === r && at[1] === c;
              return (
                // biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element
                <div
                  role="gridcell"
                  key={SIZES[c]}
                  data-place={`${r} ${c}`}
                  aria-label={`Row ${r + 1}, column ${c + 1}: ${sayPlace(thing) || "nothing"}`}
                  aria-selected={here}
                  tabIndex={here ? 0 : -1}
                  draggable={thing !== null && typing === null}
                  className={cx(
                    "flex h-12 w-27 items-center justify-center border-t border-l border-line bg-salt px-1 text-center text-[12px] leading-tight",
                    here && "bg-pick outline-2 -outline-offset-2 outline-kelp",
                  )}
                  onClick={() => go(r, c)}
                  onDoubleClick={() => setTyping(sayPlace(thing))}
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
                    e.clipboardData.setData("text/plain", sayPlace(thing) || "-");
                  }}
                  onCut={(e) => {
                    if (typing !== null) return;
                    e.preventDefault();
                    e.clipboardData.setData("text/plain", sayPlace(thing) || "-");
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
                    else if (e.key === "Enter" || e.key === "F2") setTyping(sayPlace(thing));
                    else if (e.key.length === 1 && !e.ctrlKey && !e.metaKey && !e.altKey) setTyping("");
                    else return;
                    // The first letter belongs to the name that is typed.
                    if (e.key.length !== 1) e.preventDefault();
                  }}
                >
                  {here && typing !== null ? (
                    <NameInput
                      label="What stands here"
                      value={typing}
                      names={names}
                      clearAfter
                      onDone={(text) => {
                        put(r, c, thingOf(text));
                        go(r, Math.min(width - 1, c + 1));
                      }}
                      onCancel={() => go(r, c)}
                    />
                  ) : (
                    <span className="line-clamp-2">{sayPlace(thing) || <span className="text-third">·</span>}</span>
                  )}
                </div>
              );
            })}
          </div>
        ))}
      </div>
      <p className="text-[12px] text-second">
        {taken.length
          ? `Takes ${list(taken.map((e) => `${sayQuantity(e.min)} ${e.any === undefined ? e.name : `any ${e.name}`}`))}.`
          : "Nothing stands in it yet."}{" "}
        Type a name, any and a tag, or a name with kept behind it.
      </p>
    </section>
  );
}
