"use client";
/** The help panel: next steps, keys of the view, the languages with examples, words, and the docs. */
import Link from "next/link";
import { useState } from "react";
import { usePlaces } from "../frame/navigate";
import { NextSteps } from "../frame/next-steps";
import { Button, cx } from "../kit/kit";
import { SearchField } from "../kit/search-field";
import { DialogFrame, Scrolled } from "../kit/dialog-frame";
import { topicsFor } from "./topics";

const PAGES = [
  ["README", "User guide"],
  ["notation", "Recipe lines"],
  ["formulas", "Formulas, use lines and trials"],
  ["tables", "Importing and exporting tables"],
  ["bundle", "The bundle format"],
  ["words", "All words"],
] as const;

export function Help({ onClose }: { readonly onClose: () => void }) {
  const { view } = usePlaces();
  const [search, setSearch] = useState("");
  const topics = topicsFor(view, search);
  return (
    <DialogFrame
      title="Help"
      head={
        <SearchField
          label="Search the help"
          placeholder="Search keys, examples and words"
          className="mt-2"
          value={search}
          onChange={(e) => setSearch(e.target.value)}
        />
      }
      foot={
        <>
          <span className="text-second">Docs:</span>
          {PAGES.map(([page, title]) => (
            <Link key={page} className="underline" href={`/docs/${page}`} target="_blank">
              {title}
            </Link>
          ))}
          <Button className="ml-auto" onClick={onClose}>
            Close
          </Button>
        </>
      }
      onClose={onClose}
    >
      <Scrolled label="Help topics">
        {!search && <NextSteps onGo={onClose} />}
        {topics.length === 0 && <p className="text-second">Nothing found for “{search}”.</p>}
        {topics.map(({ title, docs, language, entries }) => (
          <section key={`${title} ${entries[0].what}`} aria-label={title} className="pt-3">
            <h3 className="head pb-1">
              {title}
              {docs && (
                <Link className="ml-2 font-normal underline" href={`/docs/${docs}`} target="_blank">
                  More
                </Link>
              )}
            </h3>
            <dl
              className={cx(
                "grid gap-x-4",
                language ? "grid-cols-[minmax(0,3fr)_minmax(0,2fr)]" : "grid-cols-[minmax(0,1fr)_minmax(0,2fr)]",
              )}
            >
              {entries.map(({ what, means }) => (
                <div key={what} className="col-span-2 grid grid-cols-subgrid border-b border-hair py-0.5">
                  <dt className="font-semibold">{what}</dt>
                  <dd className="text-second">{means}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </Scrolled>
    </DialogFrame>
  );
}
