"use client";
/** The pantry as a file: taken out, and read back in after a look at what would change. */
import { Download, Upload } from "lucide-react";
import { useRef, useState } from "react";
import { count } from "@/core/numbers/format";
import { Button } from "../kit/kit";
import { useStore } from "../pantry/provider";

interface Preview {
  readonly added: number;
  readonly changed: number;
  readonly removed: number;
  readonly same: number;
  readonly settings: number;
  readonly notes: readonly { place: string; says: string }[];
}
interface Refusal {
  readonly title: string;
  readonly detail?: string;
  readonly problems?: readonly { place: string; says: string }[];
}

export function BundlePanel() {
  const store = useStore();
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<{ name: string; text: string } | null>(null);
  const [preview, setPreview] = useState<Preview | null>(null);
  const [refusal, setRefusal] = useState<Refusal | null>(null);
  const [replace, setReplace] = useState(false);
  const [done, setDone] = useState("");

  const send = async (text: string, name: string, dry: boolean, all: boolean) => {
    const answer = await fetch(
      `${store.path}/bundle?${dry ? "dry=1&" : ""}${all ? "replace=1&" : ""}name=${encodeURIComponent(name)}`,
      {
        method: "POST",
        body: text,
        headers: { "content-type": "application/json", "x-salty-author": encodeURIComponent(store.author) },
      },
    ).catch(() => null);
    const body = (await answer?.json().catch(() => null)) as (Preview & Refusal) | null;
    if (!answer?.ok || !body) {
      setRefusal(body ?? { title: "The server does not answer. Nothing was written." });
      setPreview(null);
      return;
    }
    setRefusal(null);
    if (dry) setPreview(body);
    else {
      setPreview(null);
      setFile(null);
      setDone(`${name} was imported. The log can take it back.`);
    }
  };
  return (
    <section aria-label="Bundle">
      <h2 className="pb-2 text-[15px]">Bundle</h2>
      <p className="max-w-prose text-second">
        The whole pantry as one JSON file, records sorted by key: for backups, for version control and for the game. An
        import shows what it would change before it writes anything.
      </p>
      <div className="flex items-center gap-2 py-3">
        <Button onClick={() => window.location.assign(`${store.path}/bundle`)}>
          <Download size={14} aria-hidden /> Export
        </Button>
        <Button onClick={() => input.current?.click()}>
          <Upload size={14} aria-hidden /> Import a bundle
        </Button>
        <input
          ref={input}
          type="file"
          aria-label="Bundle file"
          accept=".json,application/json"
          className="hidden"
          onChange={async (e) => {
            const chosen = e.target.files?.[0];
            e.target.value = "";
            if (!chosen) return;
            const text = await chosen.text();
            setDone("");
            setFile({ name: chosen.name, text });
            await send(text, chosen.name, true, replace);
          }}
        />
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={replace}
            onChange={(e) => {
              setReplace(e.target.checked);
              if (file) void send(file.text, file.name, true, e.target.checked);
            }}
          />
          remove what the bundle does not name
        </label>
      </div>
      {preview && file && (
        <div className="rounded-sm border border-kelp bg-kelp-wash p-3">
          <p>
            <b>{file.name}</b>: {count(preview.added, "record")} new, {preview.changed} changed, {preview.removed}{" "}
            removed, {preview.same} the same
            {preview.settings > 0 && `, ${count(preview.settings, "setting")} of the pantry changed`}.
          </p>
          <ul className="max-h-40 overflow-auto">
            {preview.notes.map((n) => (
              <li key={n.place + n.says}>
                {n.place}: {n.says}
              </li>
            ))}
          </ul>
          <div className="flex gap-2 pt-2">
            <Button
              look="solid"
              disabled={preview.added + preview.changed + preview.removed + preview.settings === 0}
              onClick={() => void send(file.text, file.name, false, replace)}
            >
              Write it
            </Button>
            <Button onClick={() => setPreview(null)}>Cancel</Button>
          </div>
        </div>
      )}
      {refusal && (
        <div role="alert" className="rounded-sm border border-beet bg-beet-wash p-3">
          <p className="font-semibold text-beet">{refusal.title}</p>
          <ul className="max-h-60 overflow-auto">
            {(refusal.problems ?? []).map((p) => (
              <li key={p.place + p.says}>
                <b>{p.place}</b>: {p.says}
              </li>
            ))}
          </ul>
          {!refusal.problems && <p>{refusal.detail}</p>}
        </div>
      )}
      <p aria-live="polite" className="text-kelp">
        {done}
      </p>
    </section>
  );
}
