"use client";
/** A pattern as a grid, with its size and the ways in which it can be. */
import { namesOf } from "@/core/catalogue/surroundings";
import { type Placed, type Places, placesIn, resized, withPlaces } from "@/core/editing/arrange";
import { LIES } from "@/core/notation/pattern";
import { WIDEST } from "@/core/notation/places";
import type { ParsedLine } from "@/core/notation/parsed";
import { list, sayQuantity } from "@/core/numbers/format";
import { useCatalogue } from "../pantry/provider";
import { PlaceGrid } from "./place-grid";

interface Props {
  readonly parsed: ParsedLine;
  readonly onPlaces: (of: Pick<ParsedLine, "grid" | "entries">) => void;
  /** What a typed name stands for. */
  readonly named: (typed: string) => Pick<Placed, "name" | "item" | "any">;
}

const SIZES = Array.from({ length: WIDEST }, (_, k) => k + 1);
const sayPlace = (of: Placed | null): string =>
  of ? `${of.any === undefined ? of.name : `any ${of.name}`}${of.role === "tool" ? " kept" : ""}` : "";

export function PatternEditor({ parsed, onPlaces, named }: Props) {
  const catalogue = useCatalogue();
  const read = placesIn(parsed);
  const places: Places = read.length ? read : resized<Placed>([], 2, 2);
  const [height, width] = [places.length, places[0].length];
  const names = [
    ...namesOf(catalogue, "item").names(),
    ...[...namesOf(catalogue, "tag").names()].map((tag) => `any ${tag}`),
  ];
  const write = (next: Places) => onPlaces(withPlaces(parsed, next));
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
        <span className="text-second">can be</span>
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
      <PlaceGrid
        label="Places of the pattern"
        places={places}
        onPlaces={write}
        say={sayPlace}
        read={thingOf}
        names={names}
        grows
      />
      <p className="text-[12px] text-second">
        {taken.length
          ? `Takes ${list(taken.map((e) => `${sayQuantity(e.min)} ${e.any === undefined ? e.name : `any ${e.name}`}`))}.`
          : "The pattern is empty."}{" "}
        Type a name, “any” and a tag, or a name followed by “kept”.
      </p>
    </section>
  );
}
