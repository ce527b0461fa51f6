"use client";
/** A pantry without items: what people start from, and the next steps. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { usePlaces } from "../frame/navigate";
import { NextSteps } from "../frame/next-steps";
import { Button } from "../kit/kit";
import { allPantries, copySetup } from "../pantry/api";
import { useStore } from "../pantry/provider";

export function EmptyPantry({ onNew, onImport }: { readonly onNew: () => void; readonly onImport: () => void }) {
  const store = useStore();
  const places = usePlaces();
  const [refused, setRefused] = useState<string | null>(null);
  const { data = [] } = useQuery({ queryKey: ["pantries"], queryFn: allPantries });
  const others = data.filter(({ key }) => key !== store.key);
  return (
    <div className="mx-auto flex max-w-2xl flex-col gap-5 px-6 py-8">
      <div>
        <h2 className="text-[17px]">No items yet</h2>
        <p className="text-second">
          Items are everything players find, make, use and sell. Start with what you have: recipes create the items they
          name, and a table brings its own.
        </p>
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <Button look="solid" onClick={onNew}>
          Add the first item
        </Button>
        <Button onClick={onImport}>Import a table</Button>
        <Button onClick={() => places.go("recipes", { paste: "1" })}>Paste recipe lines</Button>
        <Button onClick={() => places.go("setup", { kind: "pantry" })}>Import a bundle</Button>
        {others.length > 0 && (
          <select
            aria-label="Copy the setup of another pantry"
            className="field w-auto!"
            value=""
            onChange={(e) => void copySetup(e.target.value, store.key).then(setRefused)}
          >
            <option value="">Copy the setup of…</option>
            {others.map(({ key, name }) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </select>
        )}
      </div>
      {refused && (
        <p role="alert" className="text-beet">
          {refused}
        </p>
      )}
      <NextSteps />
    </div>
  );
}
