"use client";
/**
 * One line, one recipe: read while it is typed, with completion, a drawing of what was understood, and every remark.
 */
import { Fragment, useMemo } from "react";
import { around, namesOf } from "@/core/catalogue/surroundings";
import { drawnClauses } from "@/core/notation/clauses";
import { roleRule, WORDED } from "@/core/notation/roles";
import type { ParsedEntry, ParsedLine, LineIssue } from "@/core/notation/parsed";
import { parseLine } from "@/core/notation/parser";
import { completionsOf, wordsOf } from "@/core/editing/recipes";
import { count, sayPercent, sayRange } from "@/core/numbers/format";
import { AnyJar, cx, Jar } from "../kit/kit";
import { CompletedText } from "../kit/completed-text";
import { useCatalogue } from "../pantry/provider";

interface Props {
  readonly label: string;
  readonly text: string;
  /** What the text says. */
  readonly parsed: ParsedLine;
  readonly onText: (text: string) => void;
  readonly onEnter?: () => void;
  readonly onEscape?: () => void;
  readonly autoFocus?: boolean;
}

export function useParsed(text: string): ParsedLine {
  const catalogue = useCatalogue();
  return useMemo(() => parseLine(text, wordsOf(catalogue)), [text, catalogue]);
}

export function LineEditor({ label, text, parsed, onText, onEnter, onEscape, autoFocus }: Props) {
  const catalogue = useCatalogue();
  return (
    <CompletedText
      label={label}
      text={text}
      onText={onText}
      offerAt={(typed, cursor) => completionsOf(catalogue).at(typed, cursor, namesOf(catalogue, "tag").names())}
      written={(name) => `${name} `}
      placeholder="2 River eel + 1 Coarse salt -> 2 Smoked eel at Smokehouse in 90s"
      autoFocus={autoFocus}
      className="py-1.5!"
      onEnter={onEnter}
      onEscape={onEscape}
    >
      {(replace) =>
        text.trim() !== "" && (
          <div className="mt-2">
            <Drawn parsed={parsed} />
            <Remarks parsed={parsed} text={text} onOffer={(r, by) => replace(r.from, r.to, by)} />
          </div>
        )
      }
    </CompletedText>
  );
}

/** What was understood, as jars. */
export function Drawn({
  parsed,
}: {
  parsed: Pick<ParsedLine, "entries" | "ticks" | "fee" | "feeCurrency" | "kind" | "level" | "taughtBy">;
}) {
  const catalogue = useCatalogue();
  const of = (role: ParsedEntry["role"]) => parsed.entries.filter((e) => e.role === role);
  const side = (role: ParsedEntry["role"]) =>
    of(role).map((e, i) => (
      <span key={`${e.name}${i}`} className="inline-flex items-center gap-1">
        {i > 0 && (
          <span className="text-third">{e.draw && of(role)[i - 1].draw?.group === e.draw.group ? "or" : "+"}</span>
        )}
        {e.draw && of(role)[i - 1]?.draw?.group !== e.draw.group && (
          <span className="text-second">{count(e.draw.times, "draw")} of</span>
        )}
        <JarOrName entry={e} />
        {e.draw && <span className="text-second">{sayPercent(Number((e.draw.weight / e.draw.of).toFixed(4)))}</span>}
        {e.draw && of(role)[i + 1]?.draw?.group !== e.draw.group && nothingOf(of(role), e.draw.group) > 0 && (
          <span className="text-second">
            or nothing {sayPercent(Number((nothingOf(of(role), e.draw.group) / e.draw.of).toFixed(4)))}
          </span>
        )}
        {e.chance !== 1 && <span className="text-second">{sayPercent(e.chance)}</span>}
        {e.uses !== null && <span className="text-second">lasts {e.uses}</span>}
      </span>
    ));
  const extras = drawnClauses(parsed, around(catalogue));
  const worded = WORDED.filter(({ role }) => of(role).length);
  return (
    <div className="rounded-sm border-l-3 border-kelp bg-shade px-2.5 py-2">
      <div className="flex flex-wrap items-center gap-1.5">
        {parsed.kind === "salvage" && <span className="font-semibold">salvage</span>}
        {of("ingredient").length ? side("ingredient") : <span className="text-second">nothing</span>}
        <span className="font-bold">→</span>
        {of("output").length ? side("output") : <span className="text-second">nothing</span>}
      </div>
      {(worded.length > 0 || extras.length > 0) && (
        <div className="mt-1.5 flex flex-wrap items-center gap-1.5 text-second">
          {worded.map(({ role, word }) => (
            <Fragment key={role}>
              {word} {side(role)}
            </Fragment>
          ))}
          {extras.join(", ")}
        </div>
      )}
    </div>
  );
}

/** The weight of drawing nothing. */
const nothingOf = (entries: readonly ParsedEntry[], group: number): number => {
  const drawn = entries.flatMap((e) => (e.draw?.group === group ? [e.draw] : []));
  return Number((drawn[0].of - drawn.reduce((t, d) => t + d.weight, 0)).toFixed(6));
};

function JarOrName({ entry }: { entry: ParsedEntry }) {
  const amount = roleRule(entry.role).one && entry.max === 1 ? undefined : sayRange(entry.min, entry.max);
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

/** Texts that would mend a line, in the order in which they are numbered. */
export const offersOf = (parsed: ParsedLine): { readonly at: LineIssue; readonly by: string }[] =>
  parsed.issues.flatMap((at) => at.suggestions.map((by) => ({ at, by })));

export function Remarks({
  parsed,
  text,
  onOffer,
  numbered,
}: {
  parsed: ParsedLine;
  text: string;
  onOffer?: (remark: LineIssue, by: string) => void;
  /** Each offer has a digit, which takes it. */
  numbered?: boolean;
}) {
  if (!parsed.issues.length) return null;
  const tone = { error: "text-beet", warning: "text-copper", note: "text-second" };
  const offers = offersOf(parsed);
  return (
    <ul aria-live="polite" className="mt-1.5 space-y-1">
      {parsed.issues.map((r) => (
        <li key={`${r.from}${r.message}`} className={cx("flex flex-wrap items-center gap-1.5", tone[r.severity])}>
          <span className="font-semibold">
            {r.to > r.from && !r.message.startsWith(`“${text.slice(r.from, r.to)}”`)
              ? `at ${r.from + 1}, “${text.slice(r.from, Math.min(r.to, r.from + 24))}”:`
              : `at ${r.from + 1}:`}
          </span>
          <span>{r.message}</span>
          {onOffer &&
            offers
              .filter(({ at }) => at === r)
              .map((offer) => (
                <button
                  key={offer.by}
                  type="button"
                  tabIndex={numbered ? -1 : undefined}
                  onClick={() => onOffer(r, offer.by)}
                  className="rounded-sm border border-line bg-salt px-1.5 text-ink hover:border-third"
                >
                  {numbered && offers.indexOf(offer) < 9 && (
                    <kbd className="mr-1 text-second">{offers.indexOf(offer) + 1}</kbd>
                  )}
                  {offer.by || "take it out"}
                </button>
              ))}
        </li>
      ))}
    </ul>
  );
}
