"use client";
/**
 * One line, one recipe: read while it is typed, with completion, a drawing of what was understood, and every remark.
 */
import { useMemo } from "react";
import { namesOf } from "@/core/catalogue/surroundings";
import type { ParsedLine, LineIssue } from "@/core/notation/parsed";
import { parseLine } from "@/core/notation/parser";
import { completionsOf, wordsOf } from "@/core/editing/recipes";
import { cx } from "../kit/kit";
import { CompletedText } from "../kit/completed-text";
import { useCatalogue } from "../pantry/provider";
import { Drawn } from "./drawn";

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
      offerAt={(typed, cursor) =>
        completionsOf(catalogue).at(typed, cursor, {
          tags: namesOf(catalogue, "tag").names(),
          stats: namesOf(catalogue, "stat").names(),
        })
      }
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

/** Texts that would fix a line, in the order in which they are numbered. */
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
                  {offer.by || "remove it"}
                </button>
              ))}
        </li>
      ))}
    </ul>
  );
}
