"use client";
/** The shelves: every item in a grid, filtered by type, rarity, tag, status and text. */
import { Copy, Plus } from "lucide-react";
import dynamic from "next/dynamic";
import { orNotLoaded } from "../kit/not-loaded";
import { useEffect, useMemo, useRef, useState } from "react";
import { byKey } from "@/core/catalogue/keys";
import { type Condition, formatConditions, keyedPath, pathByKey, readConditions } from "@/core/catalogue/filters";
import { filterOf } from "@/core/catalogue/keep";
import { GROUPED_BY } from "@/core/catalogue/group-sums";
import { searchTexts } from "@/core/catalogue/search";
import { newId } from "@/core/schema/id";
import { withDefaults, type Item } from "@/core/kinds/index";
import { readEntries } from "@/core/editing/entry";
import { duplicateWith } from "@/core/editing/duplicate";
import { FreeKeys } from "@/core/editing/new-names";
import { count } from "@/core/numbers/format";
import { usePlaces } from "../frame/navigate";
import { useTyped } from "../frame/typed";
import { ViewHead } from "../frame/view-head";
import { Grid } from "../grid/grid";
import type { Begin } from "../grid/use-editing";
import type { CellEntry, Refusal } from "../grid/use-entries";
import { Button, Empty } from "../kit/kit";
import { SearchField } from "../kit/search-field";
import { useLive, useStore } from "../pantry/provider";
import { useWriteCells } from "../pantry/use-write";
import { useMove } from "../setup/move-dialog";
import { Groups } from "./groups";
import { BringIn } from "../tables/lazily";
import { TakeOut } from "../tables/take-out";
import { BulkPanel } from "../bulk/lazily";
import { readingsOf } from "./columns";
import { ColumnChoice } from "./column-choice";
import { ColumnMenu } from "./column-menu";
import { SavedViews, useViewParts, type ViewParts } from "./saved-views";
import { AT_FIRST, useShelfColumns } from "./use-shelf-columns";
import { ShelfFilters } from "./shelf-filters";
import { mostUsedStats, wordsIn } from "./in-columns";
import { ShelfConditions } from "./shelf-conditions";
import { stampOf, useItemColumns, useItemsInOrder } from "./use-items";

/** Loaded when a pantry is empty: most are not. */
const EmptyPantry = dynamic(() => orNotLoaded(import("./empty-pantry").then((m) => m.EmptyPantry)), { ssr: false });

const FILTERS = ["type", "rarity", "tag", "status", "text", "found", "where"];
/** What takes every filter out of the address. */
const ALL_SHOWN = Object.fromEntries(FILTERS.map((f) => [f, null]));
const SHOWN_AT_FIRST = ["type", "rarity", "level", "stack", "cost", "sell", "margin"];

const DUPLICATE = { label: "Duplicate", icon: <Copy size={13} aria-hidden /> };

export function ShelvesView() {
  const writeCells = useWriteCells("item");
  const live = useLive();
  const { catalogue, last, troubled } = live;
  const store = useStore();
  const moving = useMove();
  const places = usePlaces();
  const searched = useTyped(places, "text");
  const [changing, setChanging] = useState(false);
  const [begin, setBegin] = useState<Begin | null>(null);
  const [bringing, setBringing] = useState(false);
  const search = useRef<HTMLInputElement>(null);
  const [selection, setSelection] = useState<readonly Item[]>([]);
  // What is selected is in the address too, but does not change which rows there are.
  const query = new URLSearchParams(
    FILTERS.flatMap((n) => (places.query.get(n) ? [[n, places.query.get(n) as string]] : [])),
  ).toString();
  const all = useItemColumns(live);
  const { stat } = catalogue.records;
  // biome-ignore lint/correctness/useExhaustiveDependencies: decided when the view opens or stats change, not at every edit
  const firstStats = useMemo(
    () =>
      mostUsedStats(catalogue)
        .slice(0, 2)
        .map((id) => `stats.${id}`),
    [stat],
  );
  const first = useMemo(
    () => all.map((c) => c.id).filter((id) => SHOWN_AT_FIRST.includes(id) || firstStats.includes(id)),
    [all, firstStats],
  );
  const columns = useShelfColumns(all, first);
  const { visible, arrangement } = columns;
  const filter = useMemo(
    () => filterOf(new URLSearchParams(query), live.catalogue, readingsOf(live), live.troubled),
    [query, live],
  );
  const rows = useItemsInOrder(live, all, arrangement.orders, filter, [
    query,
    places.query.get("found") ? troubled : null,
  ]);
  useEffect(() => {
    store.shelf = rows;
  }, [store, rows]);
  const conditions = readConditions(places.query.get("where") ?? "");
  const setConditions = (next: readonly Condition[]) => places.ask({ where: formatConditions(next) || null }, true);
  const titleOf = (keyed: string) => all.find((c) => c.id === pathByKey(catalogue, "item", keyed))?.title ?? keyed;
  const parts = useViewParts(
    query,
    arrangement,
    visible.map((c) => c.id),
  );
  const openView = (view: ViewParts, key: string | null) => {
    columns.arrange(parts.read(view));
    places.ask({ ...ALL_SHOWN, ...Object.fromEntries(new URLSearchParams(view.query)), view: key });
  };
  // An address that names a view opens it, once.
  const named = useRef<string | null>(null);
  const wanted = places.query.get("view");
  // biome-ignore lint/correctness/useExhaustiveDependencies: once per view that the address names
  useEffect(() => {
    const view = wanted ? byKey(catalogue, "view", wanted) : undefined;
    if (!view || named.current === wanted) return;
    named.current = wanted;
    if (!FILTERS.some((n) => places.query.get(n))) openView(view, view.key);
  }, [wanted]);

  /** Types are written after a look at what that changes for the items. */
  const retype = async (entries: readonly CellEntry<Item>[]): Promise<Refusal | null> => {
    const read = readEntries(
      catalogue,
      entries.map((e) => ({ kind: "item", id: e.row.id, field: e.column, text: e.text })),
    );
    if ("message" in read) return read;
    const message = await moving.write(read.edits);
    return message === null ? null : { message, faults: [] };
  };

  /** A new item is of the type, rarity and tag that are shown, and stays in sight. */
  const make = async () => {
    const shown = (kind: "type" | "rarity" | "tag") => byKey(catalogue, kind, places.query.get(kind) ?? "");
    const [type, rarity, tag] = [shown("type"), shown("rarity"), shown("tag")];
    const item = withDefaults("item", {
      id: newId(),
      key: new FreeKeys(catalogue).next("item", "New item"),
      name: "New item",
      type: type?.id ?? null,
      rarity: rarity?.id ?? null,
      tags: tag ? [tag.id] : [],
    });
    const answer = await store.submit([{ op: "add", kind: "item", record: item }]);
    if (!answer.ok) return;
    const kept = { type: type?.key ?? null, rarity: rarity?.key ?? null, tag: tag?.key ?? null };
    places.ask({ ...ALL_SHOWN, ...kept, item: item.key, new: null });
    setBegin({ key: item.id, column: "name" });
  };
  /** With its recipes, salvage, sources and uses; its name is typed next. */
  const duplicate = async (item: Item) => {
    const { copy, edits } = duplicateWith(catalogue, item);
    if (!(await store.submit(edits)).ok) return;
    places.ask({ item: copy.key });
    setBegin({ key: copy.id, column: "name" });
  };
  // The command field asks for a new item by address.
  const asked = places.query.get("new") === "1";
  // biome-ignore lint/correctness/useExhaustiveDependencies: once per request
  useEffect(() => {
    if (!asked) return;
    places.ask({ new: null }, true);
    void make();
  }, [asked]);

  const grouped = GROUPED_BY.find((by) => by === places.query.get("by"));
  const filtered = FILTERS.some((n) => places.query.get(n));
  const selected = places.query.get("item");
  return (
    <>
      <ViewHead title="Shelves">
        <Button look="solid" onClick={() => void make()}>
          <Plus size={14} aria-hidden /> New item
        </Button>
        <Button disabled={!rows.length} onClick={() => setChanging(true)}>
          {selection.length > 1 ? `Change ${selection.length} selected` : "Edit all"}
        </Button>
        <Button onClick={() => setBringing(true)}>Import</Button>
        <TakeOut kind="item" rows={rows} columns={visible} />
      </ViewHead>
      {bringing && <BringIn kind="item" onClose={() => setBringing(false)} />}
      <div className="flex min-h-10 flex-wrap items-center gap-1.5 border-b border-line bg-shade px-3.5 py-1.5">
        <SearchField
          ref={search}
          label="Search the shelves"
          placeholder="Search"
          className="w-24!"
          {...searched}
          // Folding all texts takes a moment that the first key should not wait for.
          onFocus={() => requestIdleCallback(() => searchTexts(catalogue, "item"))}
        />
        <ShelfFilters filtered={filtered} onClear={() => places.ask(ALL_SHOWN, true)} />
        <span className="ml-auto text-second">
          {filtered ? `${rows.length} of ${catalogue.records.item.size}` : count(rows.length, "item")}
        </span>
        <SavedViews now={parts.now} onOpen={openView} />
        <ColumnChoice
          all={all.map((c) => ({ id: c.id, title: c.title }))}
          shown={visible.map((c) => c.id)}
          onChange={(shown) => columns.arrange({ shown })}
          onReset={() => columns.arrange(AT_FIRST)}
          grouped={grouped ?? ""}
          onGroup={(by) => places.ask({ by: by || null }, true)}
        />
        <ShelfConditions conditions={conditions} titleOf={titleOf} onChange={setConditions} />
      </div>
      {grouped && (
        <Groups
          by={grouped}
          rows={rows}
          columns={visible}
          onOnly={({ key }) =>
            grouped === "level"
              ? setConditions([
                  ...conditions.filter((c) => c.column !== "level"),
                  { column: "level", test: "between", value: `${key}..${key}` },
                ])
              : places.ask({ [grouped]: key }, true)
          }
        />
      )}
      {moving.asking}
      {changing && (
        <BulkPanel kind="item" records={selection.length > 1 ? selection : rows} onClose={() => setChanging(false)} />
      )}
      <Grid<Item>
        label="Items"
        rows={rows}
        columns={visible}
        keyOf={(i) => i.id}
        activeKey={selected ? (byKey(catalogue, "item", selected)?.id ?? null) : null}
        onActive={(i) => places.ask({ item: i.key }, true)}
        onOpen={(i) => places.ask({ item: i.key })}
        onWrite={(entries) => (entries.some((e) => e.column === "type") ? retype(entries) : writeCells(entries))}
        moved={last?.items as ReadonlySet<string> | undefined}
        stampOf={stampOf(live)}
        orders={arrangement.orders}
        onOrders={(orders) => columns.arrange({ orders })}
        pinned={columns.pinned}
        onWidth={(id, width) => columns.arrange({ widths: { ...arrangement.widths, [id]: width } })}
        onPlace={columns.place}
        onFind={() => search.current?.focus()}
        onSelection={setSelection}
        begin={begin}
        action={DUPLICATE}
        onAction={(i) => void duplicate(i)}
        filtered={new Set(conditions.map((c) => pathByKey(catalogue, "item", c.column)))}
        menu={(column, close) => (
          <ColumnMenu
            column={column}
            columns={columns}
            keyed={keyedPath(catalogue, "item", column.id)}
            conditions={conditions}
            onConditions={setConditions}
            words={() => wordsIn(rows, column)}
            close={close}
          />
        )}
        empty={
          filtered ? (
            <Empty
              title="No matching items"
              action={<Button onClick={() => places.ask(ALL_SHOWN, true)}>Show all items</Button>}
            >
              No item matches all of these filters.
            </Empty>
          ) : (
            <EmptyPantry onNew={() => void make()} onImport={() => setBringing(true)} />
          )
        }
      />
    </>
  );
}
