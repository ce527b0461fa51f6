"use client";
/** The end of a pantry: a bundle of it is offered first, and its name typed to confirm. */
import { Download, Trash2 } from "lucide-react";
import { type FormEvent, useState } from "react";
import { count } from "@/core/numbers/format";
import { Button } from "../kit/kit";
import { useLive, useStore } from "../pantry/provider";

export function DeletePanel() {
  const store = useStore();
  const { catalogue } = useLive();
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  const [refused, setRefused] = useState("");
  const [busy, setBusy] = useState(false);
  const { name } = catalogue.pantry;
  const right = typed.trim() === name.trim();
  const end = async (e: FormEvent) => {
    e.preventDefault();
    if (!right || busy) return;
    setBusy(true);
    const answer = await store.deletePantry(typed);
    setBusy(false);
    if (answer.ok) window.location.assign("/?all");
    else setRefused(answer.message);
  };
  return (
    <section aria-label="Delete this pantry" className="mt-8">
      <h2 className="pb-2 text-[15px]">Delete this pantry</h2>
      <p className="max-w-prose text-second">
        Permanently deletes this pantry, its records and its history for everyone. This can't be undone. A bundle can
        restore the records, but not the history.
      </p>
      {!open ? (
        <div className="py-3">
          <Button onClick={() => setOpen(true)}>
            <Trash2 size={14} aria-hidden /> Delete {name} …
          </Button>
        </div>
      ) : (
        <form onSubmit={end} className="mt-3 max-w-prose rounded-sm border border-beet bg-beet-wash p-3">
          <p>
            {count(catalogue.records.item.size, "item")}, {count(catalogue.records.recipe.size, "recipe")} and{" "}
            {count(catalogue.revision, "change")} will be deleted. Export a bundle first:
          </p>
          <div className="py-2">
            <Button onClick={() => window.location.assign(store.api.bundleAddress)}>
              <Download size={14} aria-hidden /> Export {name}
            </Button>
          </div>
          <label className="block pb-1" htmlFor="delete-name">
            Then type its name, <b>{name}</b>, to confirm:
          </label>
          <input
            id="delete-name"
            className="field"
            autoComplete="off"
            // biome-ignore lint/a11y/noAutofocus: it appears because someone asked to type here
            autoFocus
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            onKeyDown={(e) => e.key === "Escape" && setOpen(false)}
          />
          {refused && (
            <p role="alert" className="pt-1 text-beet">
              {refused}
            </p>
          )}
          <div className="flex gap-2 pt-3">
            <Button type="submit" look="solid" disabled={!right || busy} className="bg-beet! border-beet!">
              <Trash2 size={14} aria-hidden /> Delete permanently
            </Button>
            <Button onClick={() => setOpen(false)}>Cancel</Button>
          </div>
        </form>
      )}
    </section>
  );
}
