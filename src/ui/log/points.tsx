"use client";
/** Saved points: revisions with a name. */
import { Bookmark, X } from "lucide-react";
import { useState } from "react";
import { FreeKeys } from "@/core/editing/new-names";
import { type RecordOf, withDefaults } from "@/core/kinds/index";
import { newId } from "@/core/schema/id";
import { LONGEST_NAME } from "@/core/schema/limits";
import { Button } from "../kit/kit";
import { Popup } from "../kit/popup";
import { useCatalogue, useStore } from "../pantry/provider";

type Point = RecordOf<"point">;

/** Names the revision that the pantry is at. */
export function SavePoint() {
  const catalogue = useCatalogue();
  const store = useStore();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState("");
  const { revision } = catalogue;
  const save = async () => {
    const called = name.trim();
    if (!called) return;
    const key = new FreeKeys(catalogue).next("point", called);
    const record = withDefaults("point", { id: newId(), key, name: called, revision });
    const answer = await store.submit([{ op: "add", kind: "point", record }]);
    if (!answer.ok) return;
    setName("");
    setOpen(false);
  };
  return (
    <Popup
      open={open}
      onOpen={setOpen}
      button={(opener) => (
        <Button {...opener}>
          <Bookmark size={14} aria-hidden /> Save point
        </Button>
      )}
      align="start"
      label="Save point"
      className="w-80"
    >
      <p className="pb-2 text-second">Names revision {revision}, so that Checks can show what is new since then.</p>
      <form
        className="flex gap-1.5"
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        <input
          aria-label="Name of the point"
          // biome-ignore lint/a11y/noAutofocus: the panel opens to be typed into
          autoFocus
          className="field min-w-0 flex-1"
          maxLength={LONGEST_NAME}
          placeholder="First playtest"
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <Button type="submit" look="solid" disabled={!name.trim()}>
          Save
        </Button>
      </form>
    </Popup>
  );
}

/** The points at a revision. */
export function PointsAt({ points }: { readonly points: readonly Point[] }) {
  const store = useStore();
  return points.map((record) => (
    <span
      key={record.id}
      className="mr-1.5 inline-flex items-center gap-1 rounded-sm bg-kelp-wash px-1.5 font-semibold text-kelp"
    >
      <Bookmark size={12} aria-hidden /> {record.name}
      <button
        type="button"
        aria-label={`Remove point ${record.name}`}
        title="Remove this point"
        onClick={() => void store.submit([{ op: "remove", kind: "point", record }])}
      >
        <X size={12} aria-hidden />
      </button>
    </span>
  ));
}

/** Saved points by revision. */
export function pointsByRevision(points: Iterable<Point>): ReadonlyMap<number, readonly Point[]> {
  const by = new Map<number, Point[]>();
  for (const point of points) by.set(point.revision, [...(by.get(point.revision) ?? []), point]);
  return by;
}
