"use client";
/** All pantries: create or import one, find one, see how large each is and who changed it last. */
import { Upload } from "lucide-react";
import Link from "next/link";
import { type FormEvent, useRef, useState } from "react";
import { count } from "@/core/numbers/format";
import { normalise } from "@/core/schema/names";
import { Button, sayWhen } from "../kit/kit";
import { SearchField } from "../kit/search-field";
import { copySetup, importAsNew, newPantry } from "../pantry/api";

interface Summary {
  readonly key: string;
  readonly name: string;
  readonly revision: number;
  readonly items: number;
  readonly last: { readonly author: string; readonly at: string } | null;
  /** null: no one has opened it since the server started. */
  readonly findings: { readonly revision: number; readonly errors: number; readonly warnings: number } | null;
}

export function PantryList({ pantries }: { pantries: readonly Summary[] }) {
  const [name, setName] = useState("");
  const [like, setLike] = useState("");
  const [search, setSearch] = useState("");
  const [refused, setRefused] = useState("");
  const [busy, setBusy] = useState("");
  const file = useRef<HTMLInputElement>(null);
  const make = async (e: FormEvent) => {
    e.preventDefault();
    setBusy("Creating the pantry…");
    const made = await newPantry(name.trim());
    setBusy("");
    if (made.ok) {
      const message = like ? await copySetup(like, made.value.key) : null;
      if (message === null) window.location.assign(`/${made.value.key}/${like ? "setup" : "shelves"}`);
      else setRefused(`${name.trim()} was created, but without the setup: ${message}`);
    } else
      setRefused(made.problem.status ? made.problem.detail : "The server isn't responding. Try again in a moment.");
  };
  const bring = async (chosen: File) => {
    setRefused("");
    setBusy(`Importing ${chosen.name}…`);
    const outcome = await importAsNew({ name: chosen.name, text: await chosen.text() });
    setBusy("");
    if ("key" in outcome) window.location.assign(`/${outcome.key}/shelves`);
    else setRefused(outcome.message);
  };
  const shown = pantries.filter((p) => normalise(p.name).includes(normalise(search)));
  return (
    <main className="mx-auto flex h-full max-w-3xl flex-col gap-4 overflow-auto px-6 py-10">
      <div>
        <h1 className="text-2xl">Salty Pantry</h1>
        <p className="text-second">A pantry is an item database of its own, shared by everyone who opens it.</p>
      </div>
      <form onSubmit={make} className="flex flex-wrap gap-2" aria-label="New pantry">
        <input
          className="field min-w-48 flex-1"
          aria-label="Name of the new pantry"
          placeholder="Name of a new pantry"
          value={name}
          onChange={(e) => setName(e.target.value)}
          maxLength={120}
        />
        {pantries.length > 0 && (
          <select
            aria-label="Setup to start from"
            className="field w-56!"
            value={like}
            onChange={(e) => setLike(e.target.value)}
          >
            <option value="">start empty</option>
            {pantries.map((p) => (
              <option key={p.key} value={p.key}>
                with the setup of {p.name}
              </option>
            ))}
          </select>
        )}
        <Button look="solid" type="submit" disabled={!name.trim()}>
          New pantry
        </Button>
        <Button onClick={() => file.current?.click()}>
          <Upload size={14} aria-hidden /> Import a bundle
        </Button>
        <input
          ref={file}
          type="file"
          aria-label="Bundle file"
          accept=".json,application/json"
          className="hidden"
          onChange={(e) => {
            const chosen = e.target.files?.[0];
            e.target.value = "";
            if (chosen) void bring(chosen);
          }}
        />
      </form>
      {busy && <p role="status">{busy}</p>}
      {refused && (
        <p role="alert" className="text-beet">
          {refused}
        </p>
      )}
      {pantries.length > 5 && (
        <SearchField
          label="Search pantries"
          className="max-w-72"
          value={search}
          onChange={(e) => setSearch(e.target.value)}
        />
      )}
      <ul aria-label="Pantries" className="divide-y divide-hair rounded-sm border border-line bg-salt">
        {shown.map((p) => (
          <li key={p.key}>
            <Link href={`/${p.key}/shelves`} className="flex items-center gap-4 px-4 py-2.5 hover:bg-shade">
              <span className="min-w-0 flex-1 truncate font-semibold">{p.name}</span>
              <span className="num w-24 text-right">{count(p.items, "item")}</span>
              <Findings of={p} />
              <span className="w-64 truncate text-right text-second" suppressHydrationWarning>
                revision {p.revision}
                {p.last && `, ${p.last.author}, ${sayWhen(p.last.at)}`}
              </span>
            </Link>
          </li>
        ))}
        {shown.length === 0 && (
          <li className="px-4 py-6 text-second">
            {pantries.length
              ? `No pantry matches “${search}”.`
              : "No pantries yet. Create the first one above, or import a bundle."}
          </li>
        )}
      </ul>
    </main>
  );
}

/** Errors and warnings, as far as they are known. */
function Findings({ of: { findings, revision } }: { readonly of: Summary }) {
  if (!findings)
    return (
      <span className="num w-40 text-right text-third" title="Open the pantry to check it.">
        not checked yet
      </span>
    );
  const { errors, warnings } = findings;
  const of = findings.revision === revision ? undefined : `At revision ${findings.revision}`;
  return (
    <span className="num w-40 text-right" title={of}>
      <span className={errors ? "font-semibold text-beet" : "text-second"}>{count(errors, "error")}</span>,{" "}
      {count(warnings, "warning")}
    </span>
  );
}
