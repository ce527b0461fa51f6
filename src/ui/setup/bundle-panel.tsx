"use client";
/** The pantry as a file: taken out, and read back in after a look at what would change. */
import { Download, Upload } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import type { Progress } from "@/core/exchange/progress";
import { count, group } from "@/core/numbers/format";
import { Button } from "../kit/kit";
import type { ImportPlan, Problem } from "../pantry/api";
import { useStore } from "../pantry/provider";

const DOES = { reading: "Reading", writing: "Writing" } as const;

export function BundlePanel() {
  const store = useStore();
  const input = useRef<HTMLInputElement>(null);
  const [file, setFile] = useState<{ name: string; text: string } | null>(null);
  const [preview, setPreview] = useState<ImportPlan | null>(null);
  const [refusal, setRefusal] = useState<Problem | null>(null);
  const [replace, setReplace] = useState(false);
  const [done, setDone] = useState("");
  const [busy, setBusy] = useState<Progress | "begun" | null>(null);
  const ending = useRef<AbortController | null>(null);
  useEffect(() => () => ending.current?.abort(), []);

  const send = async (chosen: { name: string; text: string }, dry: boolean, all: boolean) => {
    ending.current?.abort();
    const asked = new AbortController();
    ending.current = asked;
    setBusy("begun");
    setPreview(null);
    setRefusal(null);
    const got = await store.api.importBundle(
      chosen,
      { dry, replace: all, author: store.author },
      { progress: (p) => ending.current === asked && setBusy(p), signal: asked.signal },
    );
    // Another look was asked for in the meantime, or this one was called off.
    if (ending.current !== asked) return;
    ending.current = null;
    setBusy(null);
    if (!got.ok) setRefusal(got.problem);
    else if (dry) setPreview(got.value);
    else {
      setFile(null);
      setDone(`${chosen.name} was imported. You can undo it in the Log.`);
    }
  };
  const callOff = () => {
    ending.current?.abort();
    ending.current = null;
    setBusy(null);
    setDone("Cancelled. Nothing was saved.");
  };
  return (
    <section aria-label="Bundle">
      <h2 className="pb-2 text-[15px]">Bundle</h2>
      <p className="max-w-prose text-second">
        The whole pantry as one JSON file, including its own pictures, sorted by key: for backups, version control and
        the game. An import shows a preview before anything is saved.
      </p>
      <div className="flex items-center gap-2 py-3">
        <Button onClick={() => window.location.assign(store.api.bundleAddress)}>
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
            await send({ name: chosen.name, text }, true, replace);
          }}
        />
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={replace}
            onChange={(e) => {
              setReplace(e.target.checked);
              if (file) void send(file, true, e.target.checked);
            }}
          />
          remove records that are not in the bundle
        </label>
      </div>
      {busy && file && (
        <div className="flex flex-wrap items-center gap-3 rounded-sm border border-line bg-shade p-3">
          <progress
            aria-label={`Import of ${file.name}`}
            className="h-2 w-56 appearance-none overflow-hidden rounded-sm bg-hair [&::-moz-progress-bar]:bg-kelp [&::-webkit-progress-bar]:bg-hair [&::-webkit-progress-value]:bg-kelp"
            {...(busy === "begun" ? {} : { max: Math.max(1, busy.of), value: busy.done })}
          />
          <span className="min-w-64 tabular-nums">
            {busy === "begun"
              ? "Sending the file …"
              : `${DOES[busy.stage]} ${group(String(busy.done))} of ${count(busy.of, "record")} …`}
          </span>
          <Button onClick={callOff}>Cancel import</Button>
        </div>
      )}
      {preview && file && (
        <div className="rounded-sm border border-kelp bg-kelp-wash p-3">
          <p>
            <b>{file.name}</b>: {count(preview.added, "record")} new, {preview.changed} changed, {preview.removed}{" "}
            removed, {preview.same} the same
            {preview.settings > 0 && `, ${count(preview.settings, "setting")} of the pantry changed`}
            {preview.pictures > 0 && `, ${count(preview.pictures, "picture")}`}.
          </p>
          <ul className="max-h-40 overflow-auto">
            {preview.notes.map((n) => (
              <li key={n.path + n.message}>
                {n.path}: {n.message}
              </li>
            ))}
          </ul>
          <div className="flex gap-2 pt-2">
            <Button
              look="solid"
              disabled={preview.added + preview.changed + preview.removed + preview.settings + preview.pictures === 0}
              onClick={() => void send(file, false, replace)}
            >
              Import
            </Button>
            <Button onClick={() => setPreview(null)}>Cancel</Button>
          </div>
        </div>
      )}
      {refusal && (
        <div role="alert" className="rounded-sm border border-beet bg-beet-wash p-3">
          <p className="font-semibold text-beet">{refusal.title}</p>
          <ul className="max-h-60 overflow-auto">
            {refusal.issues.map((p) => (
              <li key={p.path + p.message}>
                <b>{p.path}</b>: {p.message}
              </li>
            ))}
          </ul>
          {refusal.issues.length === 0 && <p>{refusal.detail}</p>}
        </div>
      )}
      <p aria-live="polite" className="text-kelp">
        {done}
      </p>
    </section>
  );
}
