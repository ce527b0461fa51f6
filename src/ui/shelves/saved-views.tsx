"use client";
/** The shelves as people like to see them, by name: for everyone, or in this browser alone. */
import { useState } from "react";
import { recordAt } from "@/core/catalogue/catalogue";
import { keyedPath, pathByKey } from "@/core/catalogue/filters";
import { setField } from "@/core/catalogue/edit";
import { FreeKeys } from "@/core/editing/new-names";
import { withDefaults } from "@/core/kinds/index";
import { newId } from "@/core/schema/id";
import { usePlaces } from "../frame/navigate";
import { Button } from "../kit/kit";
import { Popup } from "../kit/popup";
import { useKept, useLive, useStore } from "../pantry/provider";
import { type Arrangement, formatArrangement, formatOrders, readArrangement } from "./use-shelf-columns";

/** A view of this browser alone; the same as a record of the pantry has. */
interface Private {
  readonly name: string;
  readonly query: string;
  readonly columns: string;
  readonly order: string;
}

export interface ViewParts {
  readonly query: string;
  readonly columns: string;
  readonly order: string;
}

/** What the address and the columns say now, and back. */
export function useViewParts(query: string, arrangement: Arrangement, shown: readonly string[]) {
  const { catalogue } = useLive();
  const keyed = (id: string) => keyedPath(catalogue, "item", id);
  const now: ViewParts = {
    query,
    columns: formatArrangement({ ...arrangement, shown }, keyed),
    order: formatOrders(arrangement.orders, keyed),
  };
  const read = ({ columns, order }: ViewParts): Arrangement =>
    readArrangement(columns, order, (key) => pathByKey(catalogue, "item", key));
  return { now, read };
}

interface Props {
  readonly now: ViewParts;
  readonly onOpen: (view: ViewParts, key: string | null) => void;
}

export function SavedViews({ now, onOpen }: Props) {
  const { catalogue } = useLive();
  const store = useStore();
  const places = usePlaces();
  const [mine, setMine] = useKept<readonly Private[]>(`salty-views-${places.pantry}`, []);
  const [name, setName] = useState("");
  const [shared, setShared] = useState(true);
  const [message, setMessage] = useState<string | null>(null);
  const views = [...catalogue.records.view.values()].sort((a, b) => a.name.localeCompare(b.name));
  const current = views.find((v) => v.key === places.query.get("view"));
  const changed =
    current && (current.query !== now.query || current.columns !== now.columns || current.order !== now.order);
  const save = async () => {
    const called = name.trim();
    if (!called) return setMessage("Enter a name first.");
    if (!shared) {
      setMine([...mine.filter((v) => v.name !== called), { name: called, ...now }]);
      setName("");
      return setMessage(null);
    }
    const key = new FreeKeys(catalogue).next("view", called);
    const record = withDefaults("view", { id: newId(), key, name: called, ...now });
    const answer = await store.submit([{ op: "add", kind: "view", record }]);
    if (!answer.ok) return setMessage(answer.message);
    setName("");
    setMessage(null);
    places.ask({ view: key }, true);
  };
  const again = async () => {
    if (!current) return;
    const there = recordAt(catalogue, "view", current.id);
    if (!there) return;
    await store.submit(
      (["query", "columns", "order"] as const).map((part) => setField(catalogue, "view", current.id, part, now[part])),
    );
  };
  return (
    <Popup
      button={(opener) => (
        <Button aria-label={current ? `Views: ${current.name}` : "Views"} {...opener}>
          <span className="max-w-24 truncate">{current ? current.name : "Views"}</span>
          {changed && <span aria-hidden>*</span>}
        </Button>
      )}
      align="end"
      label="Saved views"
      className="w-80"
    >
      {views.length + mine.length === 0 && (
        <p className="pb-2 text-second">
          No saved views yet. Save the current filters, columns and sort order under a name. Each view has its own link.
        </p>
      )}
      <ul aria-label="Views" className="max-h-64 overflow-auto">
        {views.map((view) => (
          <li key={view.id} className="flex items-center gap-1">
            <Button look="quiet" className="min-w-0 flex-1" onClick={() => onOpen(view, view.key)}>
              <span className="truncate">{view.name}</span>
            </Button>
            <Button
              look="quiet"
              aria-label={`Remove the view ${view.name}`}
              onClick={() => void store.submit([{ op: "remove", kind: "view", record: view }])}
            >
              Remove
            </Button>
          </li>
        ))}
        {mine.map((view) => (
          <li key={view.name} className="flex items-center gap-1">
            <Button look="quiet" className="min-w-0 flex-1" onClick={() => onOpen(view, null)}>
              <span className="truncate">{view.name}</span>
              <span className="font-normal text-third">yours</span>
            </Button>
            <Button
              look="quiet"
              aria-label={`Remove the view ${view.name}`}
              onClick={() => setMine(mine.filter((v) => v.name !== view.name))}
            >
              Remove
            </Button>
          </li>
        ))}
      </ul>
      {changed && (
        <Button className="mt-2" onClick={() => void again()}>
          Save changes to {current.name}
        </Button>
      )}
      <form
        className="mt-2 flex flex-wrap items-center gap-2 border-t border-hair pt-2"
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        <input
          aria-label="Name of the view"
          placeholder="Name"
          className="field w-36!"
          value={name}
          onChange={(e) => setName(e.target.value)}
        />
        <Button look="solid" type="submit">
          Save view
        </Button>
        <label className="flex items-center gap-2">
          <input type="checkbox" checked={shared} onChange={(e) => setShared(e.target.checked)} />
          for everyone
        </label>
        {message && (
          <p role="alert" className="basis-full text-beet">
            {message}
          </p>
        )}
      </form>
    </Popup>
  );
}
