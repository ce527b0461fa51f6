"use client";
/** What was understood of a line, as jars: what goes in and comes out, a pattern as it lies, and the other ways. */
import { Fragment } from "react";
import { nameOf } from "@/core/catalogue/catalogue";
import { around } from "@/core/catalogue/surroundings";
import type { Bonus } from "@/core/notation/line";
import { drawnClauses } from "@/core/clauses/all";
import { LIES } from "@/core/notation/pattern";
import { grid } from "@/core/notation/places";
import type { ParsedEntry, ParsedLine, ParsedVariant } from "@/core/notation/parsed";
import { roleRule, WORDED } from "@/core/notation/roles";
import { count, list, sayPercent, sayRange } from "@/core/numbers/format";
import { NOTHING_SAID } from "@/core/clauses/all";
import { vesselOf } from "@/core/process/traits";
import type { Id } from "@/core/schema/id";
import { AnyJar, Jar } from "../kit/jars";
import { useCatalogue } from "../pantry/provider";

export function Drawn({ parsed }: { parsed: Omit<ParsedLine, "label" | "issues" | "ok"> }) {
  const catalogue = useCatalogue();
  const { kind, entries, variants } = parsed;
  const placed = entries.filter((e) => e.cells);
  const loose = entries.filter((e) => e.role === "ingredient" && !e.cells);
  const { mirrored } = parsed.grid;
  return (
    <div className="rounded-sm border-l-3 border-kelp bg-shade px-2.5 py-2">
      <div className="flex flex-wrap items-center gap-1.5">
        {kind !== "craft" && <span className="font-semibold">{kind}</span>}
        {kind === "pattern" && placed.length > 0 && <Pattern parsed={parsed} />}
        {kind === "combine" &&
          [...placed]
            .sort((a, b) => (a.cells ?? 0) - (b.cells ?? 0))
            .map((e, k) => (
              <Fragment key={e.cells}>
                {k > 0 && <span className="text-third">{mirrored ? "with" : "on"}</span>}
                <JarOrName entry={e} />
                {e.role === "tool" && <span className="text-second">kept</span>}
              </Fragment>
            ))}
        {loose.length > 0 && placed.length > 0 && <span className="text-third">+</span>}
        {loose.length > 0 || !placed.length ? <Side of={loose} /> : null}
        <span className="font-bold">→</span>
        <Outputs entries={entries} />
        <Back entries={entries} />
        {parsed.tables.map(({ table, times }) => (
          <span key={table} className="text-second">
            {times > 1 ? `${times} × ` : ""}from {nameOf(catalogue, "table", table)}
          </span>
        ))}
      </div>
      <Rest entries={entries} extras={drawnClauses(parsed, around(catalogue))} />
      {variants.map((variant, k) => (
        <Other key={k} variant={variant} />
      ))}
    </div>
  );
}

/** Another way: only what differs. */
function Other({ variant: { label, entries, said } }: { variant: ParsedVariant }) {
  const catalogue = useCatalogue();
  const taken = entries.filter((e) => e.role === "ingredient");
  const gives = entries.some((e) => e.role === "output");
  return (
    <div className="mt-1.5 border-t border-hair pt-1.5">
      <div className="flex flex-wrap items-center gap-1.5">
        <span className="font-semibold">{label ?? "or"}</span>
        {taken.length > 0 && <Side of={taken} />}
        {gives && <span className="font-bold">→</span>}
        {gives && <Outputs entries={entries} />}
        <Rest entries={entries} extras={drawnClauses({ ...NOTHING_SAID, ...said }, around(catalogue))} within />
      </div>
    </div>
  );
}

/** Stations, tools, and what clauses say. */
function Rest({ entries, extras, within }: { entries: readonly ParsedEntry[]; extras: string[]; within?: boolean }) {
  const worded = WORDED.filter(({ role }) => entries.some((e) => e.role === role && !e.cells));
  if (!worded.length && !extras.length) return null;
  return (
    <span className={`${within ? "" : "mt-1.5 "}flex flex-wrap items-center gap-1.5 text-second`}>
      {worded.map(({ role, word }) => (
        <Fragment key={role}>
          {word} <Side of={entries.filter((e) => e.role === role && !e.cells)} />
        </Fragment>
      ))}
      {extras.join(", ")}
    </span>
  );
}

const Outputs = ({ entries }: { entries: readonly ParsedEntry[] }) => (
  <Side of={entries.filter((e) => e.role === "output")} />
);

/** What ingredients are in, which comes back without being said: in the ink of what is inherited. */
function Back({ entries }: { entries: readonly ParsedEntry[] }) {
  const catalogue = useCatalogue();
  const back = new Map<Id, [number, number]>();
  for (const { role, item, min, max, whole } of entries) {
    const vessel = role === "ingredient" && item && !whole ? vesselOf(catalogue, item) : null;
    const [low, high] = (vessel && back.get(vessel)) || [0, 0];
    if (vessel) back.set(vessel, [low + min, high + max]);
  }
  const worn = entries.flatMap(({ role, item, uses }) => {
    const vessel = role === "tool" && uses !== null && item ? vesselOf(catalogue, item) : null;
    return vessel ? [{ vessel, uses }] : [];
  });
  return (
    <>
      {[...back].map(([vessel, [low, high]]) => (
        <span key={vessel} className="ink-inherited" title="Returned, as set on its item or type.">
          + {sayRange(low, high)} {nameOf(catalogue, "item", vessel)} back
        </span>
      ))}
      {worn.map(({ vessel, uses }) => (
        <span
          key={vessel}
          className="ink-inherited"
          title="Remains when the tool is worn out, as set on its item or type."
        >
          + 1 {nameOf(catalogue, "item", vessel)} back every {count(uses as number, "run")}
        </span>
      ))}
    </>
  );
}

/** A pattern as it lies. */
function Pattern({ parsed }: { parsed: Pick<ParsedLine, "entries" | "grid"> }) {
  const rows = grid(parsed.grid, parsed.entries);
  const lies = LIES.filter((each) => parsed.grid[each]);
  return (
    <span className="inline-flex flex-col gap-0.5">
      <table className="border-collapse bg-salt">
        <tbody>
          {rows.map((row, r) => (
            <tr key={r}>
              {row.map((entry, c) => (
                <td key={c} className="h-7 min-w-14 max-w-28 truncate border border-line px-1 text-center text-[12px]">
                  {entry ? (
                    <>
                      {entry.any === undefined ? entry.name : `any ${entry.name}`}
                      {entry.role === "tool" && <span className="text-second"> kept</span>}
                    </>
                  ) : (
                    <span className="text-third">·</span>
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {lies.length > 0 && <span className="text-[12px] text-second">also {list([...lies])}</span>}
    </span>
  );
}

function Side({ of }: { of: readonly ParsedEntry[] }) {
  if (!of.length) return <span className="text-second">nothing</span>;
  return of.map((e, i) => {
    const begins = e.draw && of[i - 1]?.draw?.group !== e.draw.group;
    const ends = e.draw && of[i + 1]?.draw?.group !== e.draw.group;
    const nothing = e.draw && ends ? nothingOf(of, e.draw.group) : 0;
    return (
      <span key={`${e.name}${i}`} className="inline-flex items-center gap-1">
        {i > 0 && <span className="text-third">{e.draw && of[i - 1].draw?.group === e.draw.group ? "or" : "+"}</span>}
        {e.draw && begins && <span className="text-second">{count(e.draw.times, "draw")} of</span>}
        <JarOrName entry={e} />
        {e.draw && <span className="text-second">{sayPercent(Number((e.draw.weight / e.draw.of).toFixed(4)))}</span>}
        {e.draw && nothing > 0 && (
          <span className="text-second">or nothing {sayPercent(Number((nothing / e.draw.of).toFixed(4)))}</span>
        )}
        {(e.chance !== 1 || e.bonus) && <span className="text-second">{sayPercent(e.chance)}</span>}
        {e.bonus && <Surer bonus={e.bonus} />}
        {e.whole && <span className="text-second">whole</span>}
        {e.uses !== null && <span className="text-second">lasts {e.uses}</span>}
      </span>
    );
  });
}

/** "+2% per Deftness" */
function Surer({ bonus: { share, stat } }: { bonus: Bonus }) {
  const catalogue = useCatalogue();
  return (
    <span className="text-second">
      {share < 0 ? "−" : "+"}
      {sayPercent(Math.abs(share))} per {nameOf(catalogue, "stat", stat)}
    </span>
  );
}

/** The weight of drawing nothing. */
const nothingOf = (entries: readonly ParsedEntry[], group: number): number => {
  const drawn = entries.flatMap((e) => (e.draw?.group === group ? [e.draw] : []));
  return Number((drawn[0].of - drawn.reduce((t, d) => t + d.weight, 0)).toFixed(6));
};

function JarOrName({ entry }: { entry: ParsedEntry }) {
  const amount =
    entry.cells || (roleRule(entry.role).one && entry.max === 1) ? undefined : sayRange(entry.min, entry.max);
  if (entry.any) return <AnyJar tag={entry.any} amount={amount} />;
  if (entry.item) return <Jar id={entry.item} amount={amount} />;
  return (
    <span className="inline-flex h-6 items-center gap-1.5 rounded-sm border border-t-2 border-dashed border-beet bg-beet-wash px-1.5 text-beet italic">
      {amount && <span className="font-semibold not-italic">{amount}</span>}
      {entry.any === undefined ? entry.name : `any ${entry.name}`}{" "}
      <span className="text-[12px] not-italic">{entry.any === undefined ? "new stub" : "new tag"}</span>
    </span>
  );
}
