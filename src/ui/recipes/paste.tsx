"use client";
/** Many lines at once: a verdict for each before anything is written; the good ones can go in while the others wait. */
import { type KeyboardEvent, useMemo, useRef, useState } from "react";
import { around } from "@/core/catalogue/surroundings";
import { addRecipes, wordsOf } from "@/core/editing/recipes";
import { formatParsed } from "@/core/notation/format";
import type { LineIssue } from "@/core/notation/parsed";
import { readLines } from "@/core/notation/text";
import { count } from "@/core/numbers/format";
import { Button, cx } from "../kit/kit";
import { DialogFrame } from "../kit/dialog-frame";
import { useCatalogue, useStore } from "../pantry/provider";
import { offersOf, Remarks } from "./line-editor";

export function PasteLines({ onClose }: { onClose: () => void }) {
  const catalogue = useCatalogue();
  const store = useStore();
  const [text, setText] = useState("");
  const [written, setWritten] = useState("");
  const lines = useMemo(() => readLines(text, wordsOf(catalogue)), [text, catalogue]);
  const good = lines.filter((l) => l.parsed.ok);
  const bad = lines.filter((l) => !l.parsed.ok);
  const stubs = new Set(
    good.flatMap((l) =>
      l.parsed.entries
        .filter((e) => !e.item && e.any === undefined)
        .map((e) => e.name.toLowerCase().replace(/\s+/g, "")),
    ),
  );
  const list = useRef<HTMLOListElement>(null);
  /** One text of one line is replaced; the others stay as they are typed. */
  const fix = ({ number }: { readonly number: number }, { from, to }: LineIssue, by: string) =>
    setText((all) =>
      all
        .split("\n")
        .map((line, k) => (k === number - 1 ? line.slice(0, from) + by + line.slice(to) : line))
        .join("\n"),
    );
  const step = (from: Element, by: 1 | -1) => {
    const rows = [...(list.current?.children ?? [])] as HTMLElement[];
    rows[rows.indexOf(from as HTMLElement) + by]?.focus();
  };
  const pressed = (e: KeyboardEvent<HTMLLIElement>, line: (typeof lines)[number]) => {
    const offer = /^[1-9]$/.test(e.key) ? offersOf(line.parsed)[Number(e.key) - 1] : undefined;
    if (offer) fix(line, offer.at, offer.by);
    else if (e.key === "ArrowDown") step(e.currentTarget, 1);
    else if (e.key === "ArrowUp") step(e.currentTarget, -1);
    else return;
    e.preventDefault();
  };
  const write = async () => {
    const answer = await store.submit(
      addRecipes(
        catalogue,
        good.map((l) => l.parsed),
      ),
      `Pasted ${count(good.length, "recipe line")}`,
    );
    if (!answer.ok) return;
    setWritten(`${count(good.length, "recipe")} written.`);
    if (!bad.length) onClose();
    else setText(bad.map((l) => l.text).join("\n"));
  };
  return (
    <DialogFrame
      width="wide"
      title="Paste recipe lines"
      description={
        <>
          One recipe per line. Each line is checked here, and nothing is saved until you choose Save. On a problem,
          press a digit to accept a suggestion and arrows to move. Lines that begin with {"//"} are skipped.
        </>
      }
      onClose={onClose}
      foot={
        <>
          <Button look="solid" disabled={!good.length} onClick={() => void write()}>
            Save {count(good.length, "recipe")}
            {stubs.size ? ` and ${count(stubs.size, "stub")}` : ""}
          </Button>
          <Button onClick={onClose}>Close</Button>
          {bad.length > 0 && (
            <span className="text-beet">{count(bad.length, "line has", "lines have")} errors and stay here.</span>
          )}
          <span aria-live="polite" className="text-kelp">
            {written}
          </span>
        </>
      }
    >
      <div className="flex min-h-0 flex-1 flex-col gap-3 p-5">
        <textarea
          aria-label="Recipe lines"
          className="field min-h-36 font-medium"
          value={text}
          onChange={(e) => setText(e.target.value)}
          placeholder={"Lay rope: 3 Hemp yarn -> 1 Rope at Ropewalk in 40s\nsalvage Rope -> 2 Oakum"}
        />
        <ol
          ref={list}
          aria-label="Results"
          className="min-h-0 flex-1 divide-y divide-hair overflow-auto rounded-sm border border-line"
        >
          {lines.length === 0 && <li className="px-3 py-4 text-second">Results appear here, line by line.</li>}
          {lines.map((l) => (
            <li
              key={l.number}
              // biome-ignore lint/a11y/noNoninteractiveTabindex: the keys of a verdict work where it has the focus
              tabIndex={0}
              aria-label={`Line ${l.number}`}
              onKeyDown={(e) => pressed(e, l)}
              className="grid grid-cols-[34px_66px_1fr] gap-2 px-3 py-1.5 -outline-offset-2"
            >
              <span className="text-right text-third">{l.number}</span>
              <span
                className={cx(
                  "font-semibold",
                  l.parsed.ok ? (l.parsed.issues.length ? "text-copper" : "text-kelp") : "text-beet",
                )}
              >
                {l.parsed.ok ? (l.parsed.issues.length ? "look" : "good") : "fault"}
              </span>
              <span className="min-w-0">
                <span className="block truncate">{l.text}</span>
                {l.parsed.ok && l.parsed.issues.length > 0 && (
                  <span className="block truncate text-second">
                    saved as {formatParsed(around(catalogue), l.parsed)}
                  </span>
                )}
                <Remarks parsed={l.parsed} text={l.text} numbered onOffer={(at, by) => fix(l, at, by)} />
              </span>
            </li>
          ))}
        </ol>
      </div>
    </DialogFrame>
  );
}
