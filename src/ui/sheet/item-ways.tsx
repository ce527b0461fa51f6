"use client";
/** On the sheet of an item: how it is made and found, what it is used in, what it is salvaged to. */
import { type RefObject, useState } from "react";
import { around, namesOf } from "@/core/catalogue/surroundings";
import { type Catalogue, nameOf } from "@/core/catalogue/catalogue";
import { recipesAsking, recordsWith } from "@/core/catalogue/references";
import { newSource } from "@/core/checks/fixes";
import type { Item, Recipe } from "@/core/kinds/index";
import { parsedFrom } from "@/core/kinds/parsed";
import { outputsOf, sayNamed } from "@/core/notation/line";
import { count, sayCost, sayPercent, sayQuantity, sayRange } from "@/core/numbers/format";
import { formatTicks } from "@/core/numbers/ticks";
import type { Id } from "@/core/schema/id";
import { usePlaces } from "../frame/navigate";
import { Inline } from "../kit/inline";
import { Jar } from "../kit/jars";
import { Button, cx } from "../kit/kit";
import { figuresOf, useLive, useStore } from "../pantry/provider";
import { useWrite } from "../pantry/use-write";
import { Drawn } from "../recipes/drawn";
import { RecipeEditor } from "../recipes/recipe-editor";
import { SuggestSalvage } from "../recipes/lazily";
import { useItemCosts } from "./cost-section";
import { Section } from "./section";

/** The recipes and sources around an item. */
export function waysOf(catalogue: Catalogue, item: Item) {
  const made = [...recordsWith(catalogue, "recipe", item.id, ["output"])];
  const named = [...recordsWith(catalogue, "recipe", item.id, ["ingredient", "tool", "station"])];
  const used = [...new Set([...named, ...item.tags.flatMap((tag) => [...recipesAsking(catalogue, tag)])])];
  const salvages = used.filter(
    (r) => r.kind === "salvage" && r.lines.some((l) => l.item === item.id && l.role === "ingredient"),
  );
  return {
    made,
    salvages,
    uses: used.filter((r) => !salvages.includes(r)),
    sources: [...recordsWith(catalogue, "source", item.id, ["output"])],
  };
}

interface Props {
  readonly item: Item;
  /** Where the two halves begin. */
  readonly get: RefObject<HTMLDivElement | null>;
  readonly use: RefObject<HTMLDivElement | null>;
}

export function ItemWays({ item, get, use }: Props) {
  const { catalogue, model } = useLive();
  const store = useStore();
  const places = usePlaces();
  const [suggesting, setSuggesting] = useState(false);
  const [adding, setAdding] = useState<"craft" | "salvage" | "use" | null>(null);
  const { made, salvages, uses, sources } = waysOf(catalogue, item);
  const name = namesOf(catalogue, "item").written(item.id);
  return (
    <>
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
    </>
  );
}

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
