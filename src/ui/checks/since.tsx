"use client";
/** The choice of an earlier revision, what differs from it, and how the number of findings went. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { byKey } from "@/core/catalogue/keys";
import { totalsOver } from "@/core/history/totals";
import type { FindingsSince } from "@/core/engine/read-model";
import { usePlaces } from "../frame/navigate";
import { useCatalogue, useLivePart, useStore } from "../pantry/provider";
import { lastVisit } from "../pantry/last-visit";

export interface Since {
  /** null: there is none to compare with. */
  readonly revision: number | null;
  readonly found: FindingsSince | null;
  readonly message: string | null;
}

const MOST_REVISION = 2 ** 31 - 1;
/** A revision in an address or a field; null: it is none. */
const revisionIn = (text: string): number | null =>
  /^\d{1,10}$/.test(text) && Number(text) <= MOST_REVISION ? Number(text) : null;

/** What is new and gone since the revision that the address names: a number, a saved point, or the last visit. */
export function useSince(wanted: boolean): Since {
  const store = useStore();
  const catalogue = useCatalogue();
  const revision = useBase();
  const behind = useLivePart(({ model }) => model.revision);
  const ahead = revision !== null && revision > catalogue.revision;
  const { data, error } = useQuery({
    queryKey: ["since", store.key, revision, behind],
    queryFn: () => store.api.findingsSince(revision ?? 0),
    enabled: wanted && revision !== null && !ahead,
    retry: false,
  });
  const message = ahead ? `Revision ${revision} doesn't exist yet. The last one is ${catalogue.revision}.` : null;
  return { revision, found: data ?? null, message: message ?? error?.message ?? null };
}

function useBase(): number | null {
  const store = useStore();
  const catalogue = useCatalogue();
  const asked = usePlaces().query.get("since") ?? "";
  if (asked === "") return lastVisit(store.key);
  return revisionIn(asked) ?? byKey(catalogue, "point", asked)?.revision ?? null;
}

export function SinceChoice() {
  const store = useStore();
  const catalogue = useCatalogue();
  const places = usePlaces();
  const asked = places.query.get("since") ?? "";
  const visit = lastVisit(store.key);
  const points = [...catalogue.records.point.values()].sort((a, b) => b.revision - a.revision);
  const isNumber = revisionIn(asked) !== null;
  const [typed, setTyped] = useState<string | null>(null);
  const typing = typed !== null || isNumber;
  return (
    <div className="flex items-center gap-2">
      <select
        aria-label="Compare with"
        className="field min-w-0 flex-1"
        value={typing ? "#" : asked}
        onChange={(e) => {
          if (e.target.value === "#") return setTyped(String(Math.max(0, catalogue.revision - 10)));
          setTyped(null);
          places.ask({ since: e.target.value || null, finding: null }, true);
        }}
      >
        <option value="">{visit === null ? "Last visit (none yet)" : `Last visit, revision ${visit}`}</option>
        {points.map((point) => (
          <option key={point.id} value={point.key}>
            {point.name}, revision {point.revision}
          </option>
        ))}
        <option value="#">A revision…</option>
      </select>
      {typing && (
        <input
          aria-label="Revision"
          inputMode="numeric"
          className="field w-20! text-right"
          value={typed ?? asked}
          onChange={(e) => {
            setTyped(e.target.value);
            if (revisionIn(e.target.value) !== null) places.ask({ since: e.target.value, finding: null }, true);
          }}
          onBlur={() => setTyped(null)}
        />
      )}
    </div>
  );
}

const SHOWN = 100;
const [WIDTH, HEIGHT] = [340, 34];

/** The number of open findings over the last changes, as a small line. */
export function TotalsLine() {
  const store = useStore();
  const now = useLivePart(({ judged }) => judged.open.length);
  const revision = useLivePart(({ model }) => model.revision);
  const { data } = useQuery({
    queryKey: ["totals", store.key, revision],
    queryFn: () => store.api.changes(SHOWN),
  });
  const totals = totalsOver(data ?? [], now);
  // One change is no history.
  if (totals.length < 3) return null;
  const [low, high] = [Math.min, Math.max].map((f) => f(...totals.map((t) => t.findings)));
  const x = (k: number) => (totals.length > 1 ? (k / (totals.length - 1)) * WIDTH : 0);
  const y = (n: number) => (low === high ? HEIGHT / 2 : HEIGHT - 2 - ((n - low) / (high - low)) * (HEIGHT - 4));
  const [first] = totals;
  const words = `Open findings since revision ${first.revision}: ${first.findings}, now ${now}, ${low === high ? "unchanged" : `between ${low} and ${high}`}.`;
  return (
    <figure className="pt-1.5">
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} className="h-[34px] w-full" role="img" aria-label={words}>
        <polyline
          fill="none"
          className="stroke-kelp"
          strokeWidth={1.5}
          points={totals.map((t, k) => `${x(k).toFixed(1)},${y(t.findings).toFixed(1)}`).join(" ")}
        />
      </svg>
      <figcaption className="text-[12px] text-second">{words}</figcaption>
    </figure>
  );
}
