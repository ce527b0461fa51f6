"use client";
/** Which items are on the shelves: by type, rarity, tag, status and findings. */
import { X } from "lucide-react";
import type { Kind } from "@/core/kinds/index";
import { STATUSES } from "@/core/kinds/shared";
import type { Id } from "@/core/schema/id";
import { usePlaces } from "../frame/navigate";
import { Button, cx } from "../kit/kit";
import { useLive } from "../pantry/provider";

export function ShelfFilters({ filtered, onClear }: { readonly filtered: boolean; readonly onClear: () => void }) {
  const places = usePlaces();
  return (
    <>
      <Filter kind="type" label="Type" />
      <Filter kind="rarity" label="Rarity" />
      <Filter kind="tag" label="Tag" />
      <select
        aria-label="Status"
        className="field w-[72px]! px-1!"
        value={places.query.get("status") ?? ""}
        onChange={(e) => places.ask({ status: e.target.value || null }, true)}
      >
        <option value="">Status</option>
        {STATUSES.map((s) => (
          <option key={s}>{s}</option>
        ))}
      </select>
      <Button
        aria-pressed={!!places.query.get("found")}
        className={cx(places.query.get("found") && "border-ink!")}
        onClick={() => places.ask({ found: places.query.get("found") ? null : "1" }, true)}
      >
        Findings
      </Button>
      {filtered && (
        <Button look="quiet" onClick={onClear}>
          <X size={14} aria-hidden /> Clear
        </Button>
      )}
    </>
  );
}

function Filter({ kind, label }: { kind: Extract<Kind, "type" | "rarity" | "tag">; label: string }) {
  const { catalogue } = useLive();
  const places = usePlaces();
  const records = [
    ...(catalogue.records[kind] as ReadonlyMap<Id, { id: Id; key: string; name: string }>).values(),
  ].sort((a, b) => a.name.localeCompare(b.name));
  if (!records.length) return null;
  return (
    <select
      aria-label={label}
      className="field w-[72px]! px-1!"
      value={places.query.get(kind) ?? ""}
      onChange={(e) => places.ask({ [kind]: e.target.value || null }, true)}
    >
      <option value="">{label}</option>
      {records.map((r) => (
        <option key={r.id} value={r.key}>
          {r.name}
        </option>
      ))}
    </select>
  );
}
