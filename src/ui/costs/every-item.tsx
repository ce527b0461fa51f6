"use client";
/** Every item in value and in time, its price, margin, steps and base materials; the selected one taken apart. */
import dynamic from "next/dynamic";
import { orNotLoaded } from "../kit/not-loaded";
import { useMemo, useRef, useState } from "react";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import type { Origin } from "@/core/analysis/origins";
import { type Catalogue, nameOf } from "@/core/catalogue/catalogue";
import { byKey } from "@/core/catalogue/keys";
import { soldFor } from "@/core/catalogue/inheritance";
import { normalise, normalisedName } from "@/core/schema/names";
import type { Item } from "@/core/kinds/index";
import type { Id } from "@/core/schema/id";
import { count } from "@/core/numbers/format";
import { usePlaces } from "../frame/navigate";
import { useTyped } from "../frame/typed";
import type { Column, Order } from "../grid/columns";
import { Grid } from "../grid/grid";
import { ChoiceButtons } from "../kit/choice-buttons";
import { Button, Empty } from "../kit/kit";
import { SearchField } from "../kit/search-field";
import { figuresOf, useLive, useStore, useStamp } from "../pantry/provider";
import { useWriteCells } from "../pantry/use-write";
import { stampOf, useItemColumns, useItemsInOrder } from "../shelves/use-items";

const CostSection = dynamic(() => orNotLoaded(import("../sheet/cost-section").then((m) => m.CostSection)), {
  ssr: false,
});
const PriceChart = dynamic(() => orNotLoaded(import("./price-chart").then((m) => m.PriceChart)), {
  ssr: false,
  loading: () => <p className="p-6 text-second">Loading…</p>,
});

const CompareCosts = dynamic(() => orNotLoaded(import("./compare").then((m) => m.CompareCosts)), { ssr: false });
const CostTrends = dynamic(() => orNotLoaded(import("./trends").then((m) => m.CostTrends)), { ssr: false });

/** Before and behind where the cost comes from. */
const SHOWN = [
  ["name", "cost"],
  ["time", "sell", "margin", "buy"],
] as const;

/** Where the cost of each item comes from. */
function useOrigins(): ReadonlyMap<Id, Origin> {
  const store = useStore();
  const stamp = useStamp();
  const { data } = useQuery({
    queryKey: ["origins", store.key, stamp],
    placeholderData: keepPreviousData,
    queryFn: () => store.api.origins(),
  });
  return useMemo(() => new Map((data?.origins ?? []).map((origin) => [origin[0], origin])), [data]);
}

/** "Hemp yarn 62%"; "time and fees" where no base material costs anything. */
function sayOrigin(origin: Origin | undefined, catalogue: Catalogue): string {
  if (!origin) return "";
  const [item, from, share] = origin;
  if (from === item) return "itself";
  return from ? `${nameOf(catalogue, "item", from)} ${Math.round(share * 100)}%` : "time and fees";
}

/** No choice among the items. */
const ALL = "all";

export function EveryItem() {
  const writeCells = useWriteCells("item");
  const live = useLive();
  const { catalogue, model, last } = live;
  const places = usePlaces();
  const searched = useTyped(places, "text");
  const [orders, setOrders] = useState<readonly Order[]>([{ column: "cost", down: true }]);
  const text = normalise(places.query.get("text") ?? "");
  const only = places.query.get("only") ?? "";
  const latest = useRef(model);
  latest.current = model;
  const origins = useOrigins();
  const latestCatalogue = useRef(catalogue);
  latestCatalogue.current = catalogue;
  const all = useItemColumns(live);
  const columns = useMemo(() => {
    const [before, behind] = SHOWN.map((ids) => ids.map((id) => all.find((c) => c.id === id) as Column<Item>));
    const figures = (i: Item) => figuresOf(latest.current, i.id);
    const worked = (id: "steps" | "level", title: string): Column<Item> => ({
      id,
      title,
      width: id === "level" ? 92 : 64,
      numeric: true,
      worked: true,
      text: (i) => String(figures(i)[id] ?? ""),
      sort: (i) => (figures(i).value === null ? null : (figures(i)[id] ?? "")),
      cell: (i) => <span className="ink-worked">{figures(i).value === null ? "" : figures(i)[id]}</span>,
    });
    const origin: Column<Item> = {
      id: "origin",
      title: "Main material",
      width: 148,
      worked: true,
      text: (i) => sayOrigin(origins.get(i.id), latestCatalogue.current),
      sort: (i) => origins.get(i.id)?.[2] ?? null,
      cell: (i) => <span className="ink-worked truncate">{sayOrigin(origins.get(i.id), latestCatalogue.current)}</span>,
    };
    return [...before, origin, ...behind, worked("steps", "Steps"), worked("level", "From level")];
  }, [all, origins]);
  const keep = (i: Item): boolean => {
    if (text && !normalisedName(i).includes(text)) return false;
    const cost = figuresOf(model, i.id).value;
    const price = soldFor(catalogue, i);
    if (only === "made") return figuresOf(model, i.id).steps !== 0;
    if (only === "loss") return cost !== null && price !== null && price > 0 && price < cost;
    return only !== "unpriced" || !price;
  };
  const rows = useItemsInOrder(live, columns, orders, text || only ? { keep, among: null } : null, [
    text,
    only,
    origins,
  ]);
  const key = places.query.get("of");
  const selected = key ? byKey(catalogue, "item", key) : rows[0];
  const choices = [
    [ALL, "All"],
    ["made", "Made"],
    ["loss", "Sold below cost"],
    ["unpriced", "Without a price"],
  ] as const;
  return (
    <>
      <div className="flex min-h-10 items-center gap-1.5 border-b border-line bg-shade px-3.5 py-1.5">
        <SearchField label="Search costs" placeholder="Search items" className="w-44!" {...searched} />
        <ChoiceButtons
          label="Items shown"
          value={only || ALL}
          of={choices}
          onPick={(id) => places.ask({ only: id === ALL ? null : id }, true)}
        />
        <span className="ml-auto text-second">{count(rows.length, "item")}, costs in value units</span>
      </div>
      <div className="flex min-h-0 flex-1">
        <Grid<Item>
          label="Costs"
          rows={rows}
          columns={columns}
          keyOf={(i) => i.id}
          activeKey={selected?.id ?? null}
          onActive={(i) => places.ask({ of: i.key }, true)}
          onOpen={(i) => places.openItem(i.id)}
          onWrite={writeCells}
          moved={last?.items as ReadonlySet<string> | undefined}
          stampOf={stampOf(live)}
          orders={orders}
          onOrders={setOrders}
          empty={
            <Empty
              title={catalogue.records.item.size ? "No matching items" : "No items yet"}
              action={
                catalogue.records.item.size ? (
                  <Button onClick={() => places.ask({ text: null, only: null }, true)}>Show all items</Button>
                ) : (
                  <Button look="solid" onClick={() => places.go("shelves", { new: "1" })}>
                    New item
                  </Button>
                )
              }
            >
              {catalogue.records.item.size
                ? "Change the search or the filters."
                : "Add items and recipes first. Their costs are computed automatically."}
            </Empty>
          }
        />
        {selected && !places.query.get("item") && (
          <section
            // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
            tabIndex={0}
            aria-label={`Cost of ${selected.name}`}
            className="w-[400px] shrink-0 overflow-auto border-l border-line bg-salt px-4 pb-6"
          >
            <h2 className="pt-3 text-[17px]">
              <button type="button" className="hover:underline" onClick={() => places.openItem(selected.id)}>
                {selected.name}
              </button>
            </h2>
            <CostSection id={selected.id} wide />
            <CompareCosts item={selected} />
            <CostTrends id={selected.id} />
            <h3 className="head pt-5 pb-1">Sell price against cost</h3>
            <PriceChart
              chosen={selected.id}
              onPick={(id) => places.ask({ of: catalogue.records.item.get(id)?.key ?? null }, true)}
            />
          </section>
        )}
      </div>
    </>
  );
}
