"use client";
/** Which pantry to open, or a new one. */
import Link from "next/link";
import { type FormEvent, useState } from "react";
import { Button } from "../kit/kit";
import { copySetup, newPantry } from "../pantry/api";

interface Head {
  readonly key: string;
  readonly name: string;
  readonly revision: number;
}

export function PantryList({ pantries }: { pantries: readonly Head[] }) {
  const [name, setName] = useState("");
  const [like, setLike] = useState("");
  const [refused, setRefused] = useState("");
  const make = async (e: FormEvent) => {
    e.preventDefault();
    const made = await newPantry(name.trim());
    if (made.ok) {
      const says = like ? await copySetup(like, made.value.key) : null;
      if (says === null) window.location.assign(`/${made.value.key}/${like ? "setup" : "shelves"}`);
      else setRefused(`${name.trim()} was created, but without the setup: ${says}`);
    } else
      setRefused(made.problem.status ? made.problem.detail : "The server isn't responding. Try again in a moment.");
  };
  return (
    <main className="mx-auto flex h-full max-w-xl flex-col justify-center gap-5 p-6">
      <div>
        <h1 className="text-2xl">Salty Pantry</h1>
        <p className="text-second">Every pantry is an item database of its own, shared by everybody who opens it.</p>
      </div>
      <ul className="divide-y divide-hair rounded-sm border border-line bg-salt">
        {pantries.map((p) => (
          <li key={p.key}>
            <Link href={`/${p.key}/shelves`} className="flex items-center justify-between px-4 py-3 hover:bg-shade">
              <span className="font-semibold">{p.name}</span>
              <span className="text-second">revision {p.revision}</span>
            </Link>
          </li>
        ))}
        {pantries.length === 0 && (
          <li className="px-4 py-6 text-second">
            No pantry yet. Give the first one a name below, or import a bundle with “npx salty import FILE”.
          </li>
        )}
      </ul>
      <form onSubmit={make} className="flex gap-2">
        <input
          className="field"
          aria-label="Name of the new pantry"
          placeholder="Name of a new pantry"
          value={name}
          onChange={(e) => setName(e.target.value)}
          maxLength={120}
        />
        {pantries.length > 0 && (
          <select
            aria-label="What it begins with"
            className="field w-56!"
            value={like}
            onChange={(e) => setLike(e.target.value)}
          >
            <option value="">with nothing in it</option>
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
      </form>
      {refused && (
        <p role="alert" className="text-beet">
          {refused}
        </p>
      )}
    </main>
  );
}
