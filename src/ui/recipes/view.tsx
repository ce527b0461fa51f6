"use client";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { ClipboardPaste, Grid3x3, Plus } from "lucide-react";
import { useEffect, useMemo, useRef, useState } from "react";
import { namesOf } from "@/core/catalogue/surroundings";
import { byKey } from "@/core/catalogue/keys";
import type { Id } from "@/core/schema/id";
import type { Recipe } from "@/core/kinds/index";
import { count } from "@/core/numbers/format";
import { usePlaces } from "../frame/navigate";
import { ViewHead } from "../frame/view-head";
import { Button, cx, Empty } from "../kit/kit";
import { Matrix, PasteLines, RecipePanel, SuggestSalvage } from "./lazily";
import { useLive, useStore, useStamp } from "../pantry/provider";
import { BulkPanel } from "../bulk/lazily";
import { BookFilters } from "./book-filters";
import { BookRow } from "./book-row";
import { useChosen } from "./use-chosen";
import { RecipeEditor } from "./recipe-editor";
import { useBook } from "./use-book";

/** Rows whose costs are asked for together; more than are in sight. */
const BLOCK = 50;
const NO_COSTS: ReadonlyMap<Id, number | null> = new Map();

export function RecipesView() {
  const { catalogue } = useLive();
  const places = usePlaces();
  /** The line a new recipe begins with; null: none is written. */
  const [writing, setWriting] = useState<string | null>(null);
  const [pasting, setPasting] = useState(false);
  const [suggesting, setSuggesting] = useState(false);
  const asked = places.query.get("new") ?? places.query.get("paste");
  // biome-ignore lint/correctness/useExhaustiveDependencies: once per request
  useEffect(() => {
    if (!asked) return;
    const item = byKey(catalogue, "item", places.query.get("for") ?? "");
    if (places.query.get("new")) setWriting(item ? ` -> 1 ${namesOf(catalogue, "item").written(item.id)}` : "");
    else setPasting(true);
    places.ask({ new: null, paste: null, for: null }, true);
  }, [asked]);
  const key = places.query.get("recipe");
  const selected = key ? byKey(catalogue, "recipe", key) : undefined;
  return (
    <>
      <ViewHead title="Recipes">
        <Button look="solid" onClick={() => setWriting("")}>
          <Plus size={14} aria-hidden /> New recipe
        </Button>
        <Button onClick={() => setPasting(true)}>
          <ClipboardPaste size={14} aria-hidden /> Paste lines
        </Button>
        <Button onClick={() => setSuggesting(true)}>Suggest salvage</Button>
        <Button
          aria-pressed={places.query.get("by") === "pair"}
          className={cx(places.query.get("by") === "pair" && "border-ink!")}
          onClick={() => places.ask({ by: places.query.get("by") === "pair" ? null : "pair" }, true)}
        >
          <Grid3x3 size={14} aria-hidden /> Combinations
        </Button>
      </ViewHead>
      {writing !== null && (
        <section aria-label="New recipe" className="border-b border-line bg-salt px-3.5 py-3">
          <RecipeEditor
            key={writing}
            start={writing}
            onDone={() => setWriting(null)}
            onWritten={(written) => places.ask({ recipe: written })}
          />
        </section>
      )}
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_auto] grid-rows-[auto_auto_minmax(0,1fr)]">
        {places.query.get("by") === "pair" ? (
          <Matrix />
        ) : (
          <Book selected={selected?.id ?? null} onWrite={() => setWriting("")} />
        )}
        {selected && !places.query.get("item") && <RecipePanel key={selected.id} recipe={selected} />}
      </div>
      {pasting && <PasteLines onClose={() => setPasting(false)} />}
      {suggesting && <SuggestSalvage onClose={() => setSuggesting(false)} />}
    </>
  );
}

function Book({ selected, onWrite }: { selected: string | null; onWrite: () => void }) {
  const { catalogue, judged } = useLive();
  const store = useStore();
  const places = usePlaces();
  const query = new URLSearchParams(
    ["text", "by", "kind", "status", "tag", "level", "makes", "takes"].flatMap((n) =>
      places.query.get(n) ? [[n, places.query.get(n) as string]] : [],
    ),
  ).toString();
  const box = useRef<HTMLDivElement>(null);
  const entries = useBook(catalogue, query);
  const troubled = useMemo(
    () =>
      new Map(
        // The most serious is the last one that is set.
        judged.open
          .flatMap((f) => f.about.filter((r) => r.kind === "recipe").map((r) => [r.id, f.severity] as const))
          .reverse(),
      ),
    [judged.open],
  );
  const virtual = useVirtualizer({
    count: entries.length,
    getScrollElement: () => box.current,
    estimateSize: (i) => ("head" in entries[i] ? 34 : 46),
    overscan: 10,
  });
  const at = useMemo(() => entries.findIndex((e) => "recipe" in e && e.recipe.id === selected), [entries, selected]);
  // By blocks, so that what is scrolled past is not asked for line by line.
  const from = Math.floor((virtual.getVirtualItems()[0]?.index ?? 0) / BLOCK) * BLOCK;
  const shown = entries.slice(from, from + 2 * BLOCK).flatMap((e) => ("recipe" in e ? [e.recipe.id] : []));
  const stamp = useStamp();
  const { data: costs = NO_COSTS } = useQuery({
    queryKey: ["for", store.key, stamp, shown],
    enabled: shown.length > 0,
    placeholderData: keepPreviousData,
    queryFn: () => store.api.madeFor(shown),
  });
  const inSight = virtual.getVirtualItems().some((v) => v.index === at);
  // A recipe that an address names is brought into sight once.
  const brought = useRef<string | null>(null);
  useEffect(() => {
    if (!selected || brought.current === selected) return;
    brought.current = selected;
    if (at >= 0) virtual.scrollToIndex(at, { align: "auto" });
  }, [selected, at, virtual]);
  const heads = useMemo(() => entries.reduce((sum, e) => sum + Number("head" in e), 0), [entries]);

  const recipes = useMemo(() => entries.flatMap((e) => ("recipe" in e ? [e.recipe] : [])), [entries]);
  const choice = useChosen(recipes, selected);
  const { many, chosen, anchor, toggle, range, clear } = choice;
  const [changing, setChanging] = useState<readonly Recipe[] | null>(null);
  const click = (e: React.MouseEvent, { id, key }: Recipe) => {
    if (e.shiftKey) range(id);
    else if (e.ctrlKey || e.metaKey) {
      // The one that stands open is the first of many.
      if (!many.size && selected && selected !== id) toggle(selected);
      toggle(id);
    } else {
      anchor.current = id;
      clear();
      places.ask({ recipe: key, item: null }, true);
    }
  };
  const removeChosen = async () => {
    const edits = chosen.map((record) => ({ op: "remove", kind: "recipe", record }) as const);
    const answer = await store.submit(edits, `${count(chosen.length, "recipe")} removed`);
    if (answer.ok) clear();
  };

  const step = (by: number, more = false) => {
    let to = at < 0 ? -1 : at + by;
    if (at < 0) to = 0;
    while (entries[to] && "head" in entries[to]) to += to === 0 ? 1 : by;
    const next = entries[to];
    if (!next || "head" in next) return;
    if (more) {
      anchor.current ??= selected;
      range(next.recipe.id);
    } else clear();
    if (!more) anchor.current = next.recipe.id;
    places.ask({ recipe: next.recipe.key, item: null }, true);
    virtual.scrollToIndex(to);
  };
  return (
    <section aria-label="Recipe book" className="contents">
      <div className="col-span-2 flex min-h-10 flex-wrap items-center gap-1.5 border-b border-line bg-shade px-3.5 py-1.5">
        <BookFilters />
        <span className="ml-auto text-second">{count(entries.length - heads, "recipe")}</span>
        {chosen.length < 2 && (
          <Button disabled={!recipes.length} onClick={() => setChanging(recipes)}>
            Edit all
          </Button>
        )}
        {changing && <BulkPanel kind="recipe" records={changing} onClose={() => setChanging(null)} />}
      </div>
      {chosen.length > 1 && (
        <section
          aria-label="Selected recipes"
          className="col-span-2 row-start-2 flex items-center gap-2 border-b border-line bg-pick px-3.5 py-1.5 font-semibold"
          title="Space, Shift and Ctrl select more"
        >
          <span className="whitespace-nowrap">{chosen.length} selected</span>
          <Button look="solid" onClick={() => setChanging(chosen)}>
            Edit selected
          </Button>
          <Button onClick={() => void removeChosen()}>Remove selected</Button>
          <Button look="quiet" onClick={clear}>
            Clear selection
          </Button>
        </section>
      )}
      {/** biome-ignore lint/a11y/noStaticElementInteractions: a listbox after the ARIA pattern wherever it has entries */}
      {/** biome-ignore lint/a11y/useAriaPropsSupportedByRole: named where it has a role, which is told at run time */}
      <div
        ref={box}
        role={entries.length ? "listbox" : undefined}
        aria-label={entries.length ? "Recipes" : undefined}
        aria-multiselectable={entries.length ? true : undefined}
        tabIndex={0}
        aria-activedescendant={selected && inSight ? `recipe-${selected}` : undefined}
        className="col-start-1 row-start-3 min-h-0 overflow-auto bg-salt"
        onKeyDown={(e) => {
          if (e.key === "ArrowDown") step(1, e.shiftKey);
          else if (e.key === "ArrowUp") step(-1, e.shiftKey);
          else if (e.key === " " && selected) toggle(selected);
          else if (e.key.toLowerCase() === "a" && (e.ctrlKey || e.metaKey)) choice.all();
          else if (e.key === "Escape" && many.size) clear();
          else return;
          e.preventDefault();
        }}
      >
        {entries.length === 0 && (
          <Empty
            title={catalogue.records.recipe.size ? "No matching recipes" : "No recipes yet"}
            action={
              <Button look="solid" onClick={onWrite}>
                Add a recipe
              </Button>
            }
          >
            {catalogue.records.recipe.size
              ? "Try another word, or clear the search and filters."
              : "Type a recipe as a line, such as 2 River eel + 1 Coarse salt -> 2 Smoked eel."}
          </Empty>
        )}
        <div role="presentation" style={{ height: virtual.getTotalSize(), position: "relative" }}>
          {virtual.getVirtualItems().map((v) => {
            const entry = entries[v.index];
            const style = { transform: `translateY(${v.start}px)`, height: v.size };
            if ("head" in entry)
              return (
                <div
                  key={`head ${entry.head}`}
                  role="presentation"
                  className="absolute left-0 flex w-full items-end gap-2 border-b border-line bg-fog px-3.5 pb-1"
                  style={style}
                >
                  <span className="head text-ink!">{entry.head}</span>
                  <span className="text-[12px] text-second">{entry.n}</span>
                </div>
              );
            const { recipe } = entry;
            return (
              <BookRow
                key={recipe.id}
                recipe={recipe}
                open={recipe.id === selected}
                chosen={many.has(recipe.id)}
                selected={many.size ? many.has(recipe.id) : recipe.id === selected}
                cost={costs.get(recipe.id) ?? null}
                severity={troubled.get(recipe.id)}
                style={style}
                onClick={(e) => click(e, recipe)}
              />
            );
          })}
        </div>
      </div>
    </section>
  );
}
