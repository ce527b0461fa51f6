"use client";
/** The recipe book: grouped by station or by result, searchable, with a line editor for new ones. */
import { around } from "@/core/catalogue/surroundings";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useVirtualizer } from "@tanstack/react-virtual";
import { ClipboardPaste, Grid3x3, Plus, Trash2 } from "lucide-react";
import { useEffect, useMemo, useRef, useState } from "react";
import { namesOf } from "@/core/catalogue/surroundings";
import { byKey } from "@/core/catalogue/keys";
import { setField } from "@/core/catalogue/edit";
import type { Id } from "@/core/schema/id";
import type { Recipe } from "@/core/kinds/index";
import { outputsOf, RECIPE_KINDS } from "@/core/notation/line";
import { STATUSES } from "@/core/kinds/shared";
import { formatUnnamed } from "@/core/notation/format";
import { count, sayCost } from "@/core/numbers/format";
import { FindingLines } from "../checks/finding-lines";
import { formatTicks } from "@/core/numbers/ticks";
import { usePlaces } from "../frame/navigate";
import { useTyped } from "../frame/typed";
import { ViewHead } from "../frame/view-head";
import { Button, cx, Dot, Empty } from "../kit/kit";
import { useLive, useStore } from "../pantry/provider";
import { NameInput } from "../kit/name-input";
import { BulkPanel } from "../bulk/bulk-panel";
import { HistoryOf } from "../log/history";
import { Matrix } from "./matrix";
import { PasteLines } from "./paste";
import { OwnFields } from "../sheet/own-fields";
import { RecipeEditor } from "./recipe-editor";
import { RunCosts } from "./run-costs";
import { SuggestSalvage } from "./suggest";
import { useBook } from "./use-book";

const NONE: ReadonlySet<string> = new Set();
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
  const { catalogue, model } = useLive();
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
        model.findings.flatMap((f) =>
          f.about.filter((r) => r.kind === "recipe").map((r) => [r.id, f.severity] as const),
        ),
      ),
    [model.findings],
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
  const { data: costs = NO_COSTS } = useQuery({
    queryKey: ["for", store.key, catalogue.revision, shown],
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
  const [many, setMany] = useState<ReadonlySet<string>>(NONE);
  const [changing, setChanging] = useState<readonly Recipe[] | null>(null);
  const chosen = useMemo(() => recipes.filter((r) => many.has(r.id)), [recipes, many]);
  /** Where a range begins. */
  const anchor = useRef<string | null>(null);
  const toggle = (id: string) => {
    anchor.current = id;
    setMany((all) => {
      const next = new Set(all);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  };
  const range = (to: string) => {
    const [a, b] = [anchor.current ?? selected ?? to, to].map((id) => recipes.findIndex((r) => r.id === id));
    anchor.current ??= selected ?? to;
    setMany(new Set(recipes.slice(Math.max(0, Math.min(a, b)), Math.max(a, b) + 1).map((r) => r.id)));
  };
  const click = (e: React.MouseEvent, { id, key }: Recipe) => {
    if (e.shiftKey) range(id);
    else if (e.ctrlKey || e.metaKey) {
      // The one that stands open is the first of many.
      if (!many.size && selected && selected !== id) toggle(selected);
      toggle(id);
    } else {
      anchor.current = id;
      if (many.size) setMany(NONE);
      places.ask({ recipe: key, item: null }, true);
    }
  };
  const removeChosen = async () => {
    const edits = chosen.map((record) => ({ op: "remove", kind: "recipe", record }) as const);
    const answer = await store.submit(edits, `${count(chosen.length, "recipe")} removed`);
    if (answer.ok) setMany(NONE);
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
    } else if (many.size) setMany(NONE);
    if (!more) anchor.current = next.recipe.id;
    places.ask({ recipe: next.recipe.key, item: null }, true);
    virtual.scrollToIndex(to);
  };
  const searched = useTyped(places, "text");
  const upTo = useTyped(places, "level", (text) => (/^\d+$/.test(text.trim()) ? text.trim() : null));
  const by = places.query.get("by") ?? "station";
  const kind = places.query.get("kind") ?? "";
  return (
    <section aria-label="Recipe book" className="contents">
      <div className="col-span-2 flex min-h-10 flex-wrap items-center gap-1.5 border-b border-line bg-shade px-3.5 py-1.5">
        <input
          type="search"
          aria-label="Search the book"
          placeholder="Search recipes"
          className="field w-30!"
          {...searched}
        />
        <select
          aria-label="Group by"
          className="field w-auto!"
          value={by}
          onChange={(e) => places.ask({ by: e.target.value }, true)}
        >
          {["station", "result"].map((b) => (
            <option key={b} value={b}>
              By {b}
            </option>
          ))}
        </select>
        <select
          aria-label="Kind"
          className="field w-auto!"
          value={kind}
          onChange={(e) => places.ask({ kind: e.target.value || null }, true)}
        >
          <option value="">Every kind</option>
          {RECIPE_KINDS.map((each) => (
            <option key={each}>{each}</option>
          ))}
        </select>
        <select
          aria-label="Status"
          className="field w-auto!"
          value={places.query.get("status") ?? ""}
          onChange={(e) => places.ask({ status: e.target.value || null }, true)}
        >
          <option value="">Every status</option>
          {STATUSES.filter((s) => s !== "stub").map((s) => (
            <option key={s}>{s}</option>
          ))}
        </select>
        <select
          aria-label="Tag"
          title="Tag of the result, or of the salvaged item"
          className="field w-auto! max-w-32!"
          value={places.query.get("tag") ?? ""}
          onChange={(e) => places.ask({ tag: e.target.value || null }, true)}
        >
          <option value="">Every tag</option>
          {[...catalogue.records.tag.values()].map((tag) => (
            <option key={tag.id} value={tag.key}>
              {tag.name}
            </option>
          ))}
        </select>
        <input
          aria-label="Up to level"
          placeholder="Up to level"
          inputMode="numeric"
          className="field num w-24!"
          {...upTo}
        />
        <OfItem />
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
          <Button look="quiet" onClick={() => setMany(NONE)}>
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
          else if (e.key.toLowerCase() === "a" && (e.ctrlKey || e.metaKey)) setMany(new Set(recipes.map((r) => r.id)));
          else if (e.key === "Escape" && many.size) setMany(NONE);
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
            const [output] = outputsOf(recipe.lines);
            const cost = recipe.kind !== "salvage" && output ? (costs.get(recipe.id) ?? null) : null;
            const severity = troubled.get(recipe.id);
            return (
              <div
                key={recipe.id}
                id={`recipe-${recipe.id}`}
                role="option"
                aria-selected={many.size ? many.has(recipe.id) : recipe.id === selected}
                tabIndex={-1}
                onClick={(e) => click(e, recipe)}
                onKeyDown={() => undefined}
                className={cx(
                  "absolute left-0 flex w-full flex-col justify-center border-b border-hair px-3.5 select-none",
                  recipe.id === selected || many.has(recipe.id) ? "bg-pick" : "hover:bg-shade",
                  many.has(recipe.id) && "border-l-3 border-l-kelp",
                )}
                style={style}
              >
                <span className="flex items-center gap-2">
                  <span
                    className={cx("truncate font-semibold", recipe.status === "retired" && "text-third line-through")}
                  >
                    {recipe.name}
                  </span>
                  {recipe.variants.length > 0 && (
                    <span className="shrink-0 text-[12px] text-second">{count(recipe.variants.length, "variant")}</span>
                  )}
                  {severity && <Dot severity={severity} />}
                  {recipe.ticks > 0 && (
                    <span className="num ml-auto shrink-0 text-[12px] text-second">
                      {formatTicks(recipe.ticks, catalogue.pantry.ticksPerSecond)}
                    </span>
                  )}
                  {cost !== null && output && (
                    <span className={cx("ink-worked w-14 shrink-0 text-right", !recipe.ticks && "ml-auto")}>
                      {sayCost(cost)}
                    </span>
                  )}
                </span>
                <span className="truncate text-second">{formatUnnamed(around(catalogue), recipe)}</span>
              </div>
            );
          })}
        </div>
      </div>
    </section>
  );
}

/** Recipes by what they make, or by what they take: one or the other, and said which. */
function OfItem() {
  const { catalogue } = useLive();
  const places = usePlaces();
  const [makes, takes] = [places.query.get("makes"), places.query.get("takes")];
  const [role, setRole] = useState<"makes" | "takes">(takes ? "takes" : "makes");
  const key = makes ?? takes;
  const item = key ? byKey(catalogue, "item", key) : undefined;
  const names = useMemo(() => [...catalogue.records.item.values()].map((i) => i.name), [catalogue.records.item]);
  const ask = (of: "makes" | "takes", wanted: string | null) =>
    places.ask({ makes: of === "makes" ? wanted : null, takes: of === "takes" ? wanted : null }, true);
  return (
    <span className="flex items-center gap-1">
      <select
        aria-label="Role of the item"
        className="field w-auto!"
        value={role}
        onChange={(e) => {
          const of = e.target.value as "makes" | "takes";
          setRole(of);
          if (key) ask(of, key);
        }}
      >
        <option value="makes">Product</option>
        <option value="takes">Ingredient</option>
      </select>
      <span className="w-36">
        <NameInput
          label="Recipes of which item"
          placeholder="any item"
          value={item?.name ?? ""}
          names={names}
          onDone={(name) => {
            const found = namesOf(catalogue, "item").find(name);
            const record = found.found === "one" ? catalogue.records.item.get(found.id) : undefined;
            ask(role, record?.key ?? null);
          }}
        />
      </span>
    </span>
  );
}

function RecipePanel({ recipe }: { recipe: Recipe }) {
  const { model, catalogue } = useLive();
  const store = useStore();
  const places = usePlaces();
  const findings = model.findings.filter((f) => f.about.some((r) => r.id === recipe.id));
  const remove = async () => {
    const answer = await store.submit([{ op: "remove", kind: "recipe", record: recipe }]);
    if (answer.ok) places.ask({ recipe: null }, true);
  };
  return (
    <section
      aria-label={`Recipe ${recipe.name}`}
      className="col-start-2 row-start-3 w-[620px] overflow-auto border-l border-line bg-salt p-4"
    >
      <div className="flex items-center gap-2 pb-3">
        <h2 className="flex-1 truncate text-[17px]">{recipe.name}</h2>
        <select
          aria-label="Status"
          className="field w-auto!"
          value={recipe.status}
          onChange={(e) => void store.submit([setField(catalogue, "recipe", recipe.id, "status", e.target.value)])}
        >
          {STATUSES.filter((s) => s !== "stub").map((s) => (
            <option key={s}>{s}</option>
          ))}
        </select>
        <Button
          look="quiet"
          onClick={() => void remove()}
          aria-label="Remove this recipe"
          title="Remove (undo brings it back)"
        >
          <Trash2 size={14} aria-hidden />
        </Button>
      </div>
      <RecipeEditor recipe={recipe} form />
      <OwnFields kind="recipe" record={recipe} />
      <h3 className="head pt-5 pb-1">Cost of one run</h3>
      <RunCosts id={recipe.id} />
      {findings.length > 0 && (
        <>
          <h3 className="head pt-5 pb-1">Findings</h3>
          <FindingLines findings={findings} />
        </>
      )}
      <HistoryOf id={recipe.id} />
    </section>
  );
}
