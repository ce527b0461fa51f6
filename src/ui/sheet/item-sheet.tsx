"use client";
/**
 * One item, one sheet, always in the same order: what it is, how it is made, what it makes, where it is found, what it
 * is worth, what is wrong, who changed it.
 */
import { around, namesOf } from "@/core/catalogue/surroundings";
import { Trash2, X } from "lucide-react";
import { useRef, useState } from "react";
import { nameOf } from "@/core/catalogue/catalogue";
import { parsedFrom } from "@/core/kinds/parsed";
import { fieldsOfItem, statsOfItem } from "@/core/catalogue/fields";
import { heldStat, hasValueAt } from "@/core/catalogue/inheritance";
import { recipesAsking, recordsWith } from "@/core/catalogue/references";
import type { Id } from "@/core/schema/id";
import { definition, type Item, type Recipe } from "@/core/kinds/index";
import { outputsOf, sayNamed } from "@/core/notation/line";
import { newSource } from "@/core/checks/mend";
import { duplicateWith } from "@/core/editing/duplicate";
import { count, sayCost, sayPercent, sayQuantity, sayRange } from "@/core/numbers/format";
import { formatTicks } from "@/core/numbers/ticks";
import { FindingLines } from "../checks/finding-lines";
import { usePlaces } from "../frame/navigate";
import { RemoveButton } from "../frame/remove";
import { Inline } from "../kit/inline";
import { Button, cx, Grains, Jar } from "../kit/kit";
import { HistoryOf } from "../log/history";
import { figuresOf, useLive, useStore } from "../pantry/provider";
import { useWrite } from "../pantry/use-write";
import { Drawn } from "../recipes/drawn";
import { SuggestSalvage } from "../recipes/suggest";
import { RecipeEditor } from "../recipes/recipe-editor";
import { marginOf, sayMargin } from "../pantry/margin";
import { labelOf } from "../grid/field-columns";
import { FieldRow, FieldValue, Row } from "./field-row";
import { type EmptyField, FoldedFields } from "./folded-fields";
import { OwnFields } from "./own-fields";
import { CostSection, useItemCosts } from "./cost-section";
import { DescriptionEditor } from "./described";
import { IconChoice } from "./icon-choice";
import { Neighbours } from "./neighbours";
import { CardButton } from "./player-card";
import { UsesSection } from "../uses/lazily";
import { Section } from "./section";
import { SeriesButton } from "./series-button";
import { TryIt } from "./try-it";
import { SheetEdge, useSheetWidth } from "./width";

export function ItemSheet({ item, onClose }: { item: Item; onClose: () => void }) {
  const { catalogue, model } = useLive();
  const store = useStore();
  const places = usePlaces();
  const write = useWrite();
  const [suggesting, setSuggesting] = useState(false);
  const [adding, setAdding] = useState<"craft" | "salvage" | "use" | null>(null);
  const [width, setWidth] = useSheetWidth();
  const get = useRef<HTMLDivElement>(null);
  const use = useRef<HTMLDivElement>(null);
  const type = item.type ? catalogue.records.type.get(item.type) : undefined;
  const made = [...recordsWith(catalogue, "recipe", item.id, ["output"])];
  const named = [...recordsWith(catalogue, "recipe", item.id, ["ingredient", "tool", "station"])];
  const used = [...new Set([...named, ...item.tags.flatMap((tag) => [...recipesAsking(catalogue, tag)])])];
  const salvages = used.filter(
    (r) => r.kind === "salvage" && r.lines.some((l) => l.item === item.id && l.role === "ingredient"),
  );
  const uses = used.filter((r) => !salvages.includes(r));
  const sources = [...recordsWith(catalogue, "source", item.id, ["output"])];
  // What is wrong with the item, and with the ways to make it and to take it apart.
  const own = new Set<Id>([item.id, ...made.map((r) => r.id), ...salvages.map((r) => r.id)]);
  const findings = model.findings.filter((f) => f.about.some((r) => own.has(r.id)));
  const name = namesOf(catalogue, "item").written(item.id);
  const duplicate = async () => {
    const { copy, edits } = duplicateWith(catalogue, item);
    if ((await store.submit(edits)).ok) places.ask({ item: copy.key });
  };
  const margin = marginOf(catalogue, model, item);
  // Those its type takes, and what it says or inherits beside them.
  const measured = statsOfItem(catalogue, item);
  const stats = [...catalogue.records.stat.values()].filter(
    ({ id }) => !measured || measured.has(id) || heldStat(catalogue, item, id).from !== "none",
  );
  const hasValue = (path: string): boolean => ALWAYS.includes(path) || hasValueAt(catalogue, "item", item, path);
  const empty: readonly EmptyField[] = [
    ...[...SHORT, ...WIDE].map((path) => {
      const field = definition("item").fields[path];
      return { path, label: labelOf(path, field), help: field.options.help };
    }),
    ...stats.map(({ id, name: label }) => ({ path: `stats.${id}`, label })),
    ...fieldsOfItem(catalogue, item).map(({ id, name: label, help }) => ({ path: `own.${id}`, label, help })),
  ].filter(({ path }) => !hasValue(path));
  const plain = (value: unknown) => ({
    value,
    from: value === null || value === "" ? ("none" as const) : ("own" as const),
  });
  return (
    <aside
      aria-label={`Item ${item.name}`}
      className="relative flex shrink-0 flex-col overflow-hidden border-t-4 border-l border-l-line bg-salt"
      style={{ borderTopColor: type?.colour ?? "var(--line)", width }}
    >
      <SheetEdge width={width} onWidth={setWidth} />
      <header className="flex gap-3 border-b border-line px-4 py-3">
        <IconChoice item={item} colour={type?.colour ?? "var(--third)"} />
        <div className="min-w-0 flex-1">
          <h2 className="-ml-1 text-[19px] leading-6">
            <Inline
              label="Name"
              held={plain(item.name)}
              show={item.name}
              text={item.name}
              onWrite={(t) => write("item", item.id, "name", t)}
            />
          </h2>
          <div className="mt-0.5 flex items-center gap-2 text-second">
            <Grains rarity={item.rarity} />
            <span className={cx(item.status === "stub" && "font-bold text-beet")}>{item.status}</span>
            <Inline
              label="Key"
              held={plain(item.key)}
              show={item.key}
              text={item.key}
              onWrite={(t) => write("item", item.id, "key", t)}
            />
          </div>
        </div>
        <div className="flex flex-col items-end gap-1">
          <span className="flex">
            <Neighbours item={item} />
            <Button look="quiet" className="px-1!" onClick={onClose} aria-label="Close the sheet" title="Close">
              <X size={16} aria-hidden />
            </Button>
          </span>
          <RemoveButton
            kind="item"
            record={item}
            onGone={onClose}
            look="quiet"
            className="px-1!"
            title="Remove (undo brings it back)"
          >
            <Trash2 size={14} aria-hidden />
          </RemoveButton>
        </div>
      </header>
      <nav
        aria-label="In this sheet"
        className="flex flex-wrap gap-x-1 [&_button]:px-1.5 border-b border-hair bg-shade px-3 py-1"
      >
        <Button look="quiet" onClick={() => get.current?.scrollIntoView({ block: "start" })}>
          How to get it
        </Button>
        <Button look="quiet" onClick={() => use.current?.scrollIntoView({ block: "start" })}>
          What it is for
        </Button>
        <Button look="quiet" onClick={() => places.go("chains", { of: item.key })}>
          Chain
        </Button>
        <TryIt item={item} />
        <CardButton item={item} />
        <SeriesButton item={item} />
        <Button
          look="quiet"
          title="A copy with its recipes, salvage, sources and uses"
          onClick={() => void duplicate()}
        >
          Duplicate
        </Button>
      </nav>
      {/** biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard */}
      {/** biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element */}
      <div tabIndex={0} role="region" aria-label="Sheet" className="min-h-0 flex-1 overflow-auto px-4 pb-6">
        {findings.length > 0 && (
          <FindingLines findings={findings} className="mt-3 rounded-sm bg-beet-wash px-2.5 py-1.5" />
        )}
        <Section title="What it is">
          <div className="pb-2">
            <DescriptionEditor item={item} />
          </div>
          <div className="grid grid-cols-2 gap-x-5">
            {SHORT.filter(hasValue).map((path) => (
              <FieldRow key={path} kind="item" record={item} path={path} />
            ))}
          </div>
          {WIDE.filter(hasValue).map((path) => (
            <FieldRow key={path} kind="item" record={item} path={path} />
          ))}
        </Section>
        {(catalogue.records.stat.size === 0 || stats.some(({ id }) => hasValue(`stats.${id}`))) && (
          <Section title="Stats">
            {catalogue.records.stat.size === 0 && (
              <p className="text-second">No stats in this pantry yet. Create them in Setup.</p>
            )}
            <div className="grid grid-cols-2 gap-x-5">
              {stats
                .filter(({ id }) => hasValue(`stats.${id}`))
                .map(({ id, name: stat, unit }) => (
                  <Row key={id} label={unit ? `${stat}, ${unit}` : stat}>
                    <FieldValue kind="item" record={item} path={`stats.${id}`} label={stat} />
                  </Row>
                ))}
            </div>
          </Section>
        )}
        <OwnFields kind="item" record={item} folds />
        <FoldedFields kind="item" record={item} of={empty} />
        <UsesSection owner={item} />
        <CostSection id={item.id} />
        {margin !== null && (
          <p className="pt-1 text-second">
            Sells at{" "}
            <span className={cx("font-semibold", margin < 0 ? "text-beet" : "text-kelp")}>{sayMargin(margin)}</span>{" "}
            over its cost.
          </p>
        )}
        <div ref={get} />
        <Section
          title="Made by"
          aside={made.length > 1 ? count(made.length, "way") : undefined}
          action={
            <RecipeActions
              onBook={made.length > 1 ? () => places.go("recipes", { makes: item.key }) : null}
              adds="Add a recipe that makes it"
              onAdd={() => setAdding("craft")}
            />
          }
        >
          {adding === "craft" && <RecipeEditor start={` -> 1 ${name}`} onDone={() => setAdding(null)} />}
          {made.length === 0 && !adding && <p className="text-second">No recipe makes it.</p>}
          <div className="space-y-2">
            {made.map((r) => (
              <RecipeCard
                key={r.id}
                recipe={r}
                best={figuresOf(model, item.id).by === r.id && made.length + sources.length > 1}
              />
            ))}
          </div>
        </Section>
        <Section
          title="Found at"
          action={
            <Button
              look="quiet"
              onClick={() => void store.submit([{ op: "add", kind: "source", record: newSource(catalogue, item.id) }])}
            >
              Add source
            </Button>
          }
        >
          <OtherWays id={item.id} known={new Set<Id>([...made, ...sources].map((r) => r.id))} none={!sources.length} />
          {sources.map((s) => (
            <SourceRow item={item.id} key={s.id} id={s.id} best={figuresOf(model, item.id).by === s.id} />
          ))}
        </Section>
        <div ref={use} />
        <Section
          title="Used in"
          action={
            <RecipeActions
              onBook={uses.length > 1 ? () => places.go("recipes", { takes: item.key }) : null}
              adds="Add a recipe that uses it"
              onAdd={() => setAdding("use")}
            />
          }
        >
          {adding === "use" && <RecipeEditor start={`1 ${name} -> `} onDone={() => setAdding(null)} />}
          {uses.length === 0 && adding !== "use" && <p className="text-second">No recipe uses it.</p>}
          <RecipeJars recipes={uses} />
        </Section>
        <Section
          title="Salvaged to"
          action={
            <span className="flex gap-1">
              <Button look="quiet" onClick={() => setSuggesting(true)}>
                Suggest salvage
              </Button>
              <Button look="quiet" onClick={() => setAdding("salvage")}>
                Add salvage
              </Button>
            </span>
          }
        >
          {suggesting && <SuggestSalvage item={item} onClose={() => setSuggesting(false)} />}
          {adding === "salvage" && <RecipeEditor start={`salvage ${name} -> `} onDone={() => setAdding(null)} />}
          {salvages.length === 0 && adding !== "salvage" && (
            <p className="text-second">No salvage recipe: it can't be salvaged.</p>
          )}
          <div className="space-y-2">
            {salvages.map((r) => (
              <RecipeCard key={r.id} recipe={r} best={false} />
            ))}
          </div>
        </Section>
        <Section title="Note to colleagues">
          <Inline
            label="Note"
            held={plain(item.note)}
            show={item.note || "No note"}
            text={item.note}
            long
            onWrite={(t) => write("item", item.id, "note", t)}
          />
        </Section>
        <HistoryOf id={item.id} />
      </div>
    </aside>
  );
}

/** Fields that have a place of their own on the sheet. */
const PLACED = ["key", "name", "icon", "stats", "own", "description", "note"];
const FIELDS = Object.entries(definition("item").fields).filter(([name]) => !PLACED.includes(name));
/** Shown even if they are empty. */
const ALWAYS: readonly string[] = ["type", "rarity", "tags", "level", "status"];
/** Two beside each other, but for lists. */
const SHORT = FIELDS.filter(([, { depth }]) => depth === 0).map(([name]) => name);
const WIDE = FIELDS.filter(([, { depth }]) => depth > 0).map(([name]) => name);

function RecipeCard({ recipe, best }: { recipe: Recipe; best: boolean }) {
  const { catalogue } = useLive();
  const places = usePlaces();
  return (
    <div>
      <div className="flex items-center justify-between">
        <button
          type="button"
          className={cx("font-semibold hover:underline", recipe.status === "retired" && "text-third line-through")}
          onClick={() => places.open("recipe", recipe.id)}
        >
          {recipe.name}
        </button>
        {best && <span className="text-[12px] font-semibold text-kelp">cheapest</span>}
      </div>
      <Drawn parsed={parsedFrom(recipe, around(catalogue))} />
    </div>
  );
}

function RecipeJars({ recipes }: { recipes: readonly Recipe[] }) {
  const places = usePlaces();
  return (
    <ul className="flex flex-wrap gap-1.5">
      {recipes.slice(0, 40).map((r) => {
        const [output] = outputsOf(r.lines);
        return (
          <li key={r.id}>
            {output ? (
              <Jar id={output.item} onOpen={() => places.open("recipe", r.id)} />
            ) : (
              <Button onClick={() => places.open("recipe", r.id)}>{r.name}</Button>
            )}
          </li>
        );
      })}
      {recipes.length > 40 && <li className="text-second">and {recipes.length - 40} more</li>}
    </ul>
  );
}

/** Ways that no line of a recipe or source says: tables, what is left of something burnt, opened or eaten. */
function OtherWays({ id, known, none }: { id: Id; known: ReadonlySet<Id>; none: boolean }) {
  const places = usePlaces();
  const { data } = useItemCosts(id);
  const ways = [...new Map((data?.ways ?? []).filter((w) => !known.has(w.by.id)).map((w) => [w.name, w])).values()];
  if (!ways.length) return none ? <p className="text-second">No source gives or sells it.</p> : null;
  return (
    <ul aria-label="Alternatives">
      {ways.map((way) => (
        <li key={way.name} className="flex justify-between gap-2">
          <button
            type="button"
            className="truncate text-left hover:underline"
            onClick={() => places.open(way.by.kind, way.by.id)}
          >
            {way.name}
            <span className="text-second">{SORTS[way.by.kind] ?? ""}</span>
          </button>
          <span className="num text-second">{way.value === null ? "not possible" : `${sayCost(way.value)} each`}</span>
        </li>
      ))}
    </ul>
  );
}
const SORTS: { readonly [kind: string]: string } = {
  recipe: ": returned or drawn",
  source: ": drawn from a drop table",
};

/** @param item  whose sheet it stands on: of a shop's wares only those of it are told */
function SourceRow({ id, item, best }: { id: Id; item: Id; best: boolean }) {
  const { catalogue } = useLive();
  const places = usePlaces();
  const write = useWrite();
  const source = catalogue.records.source.get(id);
  if (!source) return null;
  const money = (currency: Id | null) => nameOf(catalogue, "currency", (currency ?? source.currency) as Id);
  const wares = source.wares
    .filter((w) => w.item === item)
    .map(({ amount, price, currency, stock, level }) =>
      [
        `${sayQuantity(amount)} for ${sayCost(price)} ${currency || source.currency ? money(currency) : "value"}`,
        ...(stock === null ? [] : [`${stock} in stock`]),
        ...(level === null ? [] : [`from level ${level}`]),
      ].join(", "),
    );
  const gives = source.lines
    .map(
      (l) =>
        `${sayRange(l.min, l.max)} ${sayNamed(l, around(catalogue))}${l.chance === 1 ? "" : ` ${sayPercent(l.chance)}`}`,
    )
    .join(", ");
  const time = formatTicks(source.ticks, catalogue.pantry.ticksPerSecond);
  return (
    <div className="border-b border-hair py-1">
      <div className="flex items-center justify-between">
        <button type="button" className="font-semibold hover:underline" onClick={() => places.open("source", id)}>
          {source.name}
        </button>
        {best && <span className="text-[12px] font-semibold text-kelp">cheapest</span>}
      </div>
      <div className="flex items-center gap-1 text-second">
        <span className="flex-1 truncate" title={gives}>
          {source.kind === "shop" ? "sells" : "gives"} {[gives, ...wares].filter(Boolean).join("; ")}
        </span>
        {wares.length > 0 ? null : source.kind === "shop" ? (
          <>
            <Inline
              label="Price"
              held={{ value: source.price, from: "own" }}
              numeric
              show={sayCost(source.price)}
              text={String(source.price)}
              onWrite={(t) => write("source", id, "price", t)}
            />
            {(source.currency && catalogue.records.currency.get(source.currency)?.name) || "value"}
          </>
        ) : (
          <>
            in{" "}
            <Inline
              label="Time of one run"
              held={{ value: source.ticks, from: "own" }}
              numeric
              show={time}
              text={time}
              onWrite={(t) => write("source", id, "ticks", t)}
            />
          </>
        )}
      </div>
    </div>
  );
}

/** To the recipes of an item in the book, and to a new one. */
function RecipeActions({ onBook, adds, onAdd }: { onBook: (() => void) | null; adds: string; onAdd: () => void }) {
  return (
    <span className="flex gap-1">
      {onBook && (
        <Button look="quiet" onClick={onBook}>
          Open in Recipes
        </Button>
      )}
      <Button look="quiet" onClick={onAdd}>
        {adds}
      </Button>
    </span>
  );
}
