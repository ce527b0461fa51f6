"use client";
/** Setup: the records everything else refers to, each kind as a grid, and the settings of the pantry. */
import { Plus, Trash2 } from "lucide-react";
import { type ReactNode, useMemo, useState } from "react";
import { byKey, type Catalogue, keyIndex, nameOf } from "@/core/catalogue/catalogue";
import { newId } from "@/core/catalogue/names";
import {
  type AnyRecord,
  blank,
  type Field,
  FIELDS,
  type Id,
  type Kind,
  kindWord,
  type Line,
  type Pantry,
} from "@/core/catalogue/records";
import { formatGiven } from "@/core/notation/format";
import { Keys } from "@/core/notation/write";
import { count, sayQuantity } from "@/core/numbers/format";
import { formatTicks } from "@/core/numbers/ticks";
import { usePlaces } from "../frame/navigate";
import { ViewHead } from "../frame/view-head";
import { Grid } from "../grid/grid";
import { type Column, ordered } from "../grid/columns";
import { Inline } from "../kit/inline";
import { Button, cx, Empty, Icon } from "../kit/kit";
import { useLive, useStore } from "../pantry/provider";
import { useWrite, useWriteCells } from "../pantry/use-write";
import { BundlePanel } from "./bundle-panel";
import { DeletePanel } from "./delete-panel";

const TABS: readonly { kind: Exclude<Kind, "item" | "recipe">; label: string; help: string }[] = [
  {
    kind: "type",
    label: "Types",
    help: "What sorts of item there are. What a type says, its items inherit until they say otherwise.",
  },
  { kind: "stat", label: "Stats", help: "The numbers items are compared by, and which direction is better." },
  { kind: "rarity", label: "Rarities", help: "One to five grains of salt." },
  { kind: "tag", label: "Tags", help: "Free labels for filtering." },
  { kind: "currency", label: "Currencies", help: "What players pay with, and what one is worth in value units." },
  {
    kind: "source",
    label: "Sources",
    help: "Where things enter the world: gathering with its time, shops with their price.",
  },
];

const WIDTHS: Record<string, number> = {
  name: 184,
  key: 160,
  lines: 310,
  note: 120,
  level: 54,
  stack: 54,
  mass: 66,
  buy: 58,
  sell: 58,
  parent: 110,
  colour: 96,
  ticks: 80,
  icon: 156,
  unit: 70,
  form: 80,
  better: 80,
  kind: 90,
  currency: 100,
  symbol: 70,
  worth: 80,
  rank: 80,
};
const TITLES: Record<string, string> = {
  lines: "Gives",
  ticks: "Time",
  parent: "Parent type",
  better: "Better when",
  mass: "Mass kg",
};

export function SetupView() {
  const { catalogue } = useLive();
  const places = usePlaces();
  const wanted = places.query.get("kind") ?? "type";
  const tab = TABS.find((t) => t.kind === wanted);
  return (
    <>
      <ViewHead title="Setup" />
      <div
        role="tablist"
        aria-label="Kinds of record"
        className="flex min-h-10 items-center gap-1 border-b border-line bg-shade px-3.5 py-1.5"
      >
        {[
          ...TABS.map((t) => ({ id: t.kind as string, label: t.label, n: catalogue[t.kind].size })),
          { id: "pantry", label: "Pantry", n: null },
        ].map((t) => (
          <Button
            key={t.id}
            role="tab"
            aria-selected={wanted === t.id}
            className={cx(wanted === t.id && "border-ink!")}
            onClick={() => places.ask({ kind: t.id, record: null }, true)}
          >
            {t.label} {t.n !== null && <span className="font-normal text-second">{t.n}</span>}
          </Button>
        ))}
      </div>
      {tab ? <Shelf key={tab.kind} kind={tab.kind} help={tab.help} /> : <PantryPanel />}
    </>
  );
}

function Shelf({ kind, help }: { kind: Exclude<Kind, "item" | "recipe">; help: string }) {
  const writeCells = useWriteCells(kind);
  const { catalogue } = useLive();
  const store = useStore();
  const places = usePlaces();
  const [order, setOrder] = useState({ column: kind === "rarity" ? "rank" : "name", down: false });
  const columns = useMemo(() => columnsOf(kind, catalogue), [kind, catalogue]);
  const rows = useMemo(
    () => ordered([...(catalogue[kind] as ReadonlyMap<Id, AnyRecord>).values()], columns, order),
    [catalogue, kind, columns, order],
  );
  const active = byKey(catalogue, kind, places.query.get("record") ?? "");
  const make = async () => {
    const name = `New ${kindWord(kind)}`;
    const record = blank(kind, { id: newId(), key: new Keys(catalogue).next(kind, name), name });
    const answer = await store.submit([{ op: "add", kind, record: record as AnyRecord }]);
    if (answer.ok) places.ask({ record: record.key }, true);
  };
  return (
    <>
      <div className="flex items-center gap-2 border-b border-hair bg-salt px-3.5 py-1.5">
        <Button look="solid" onClick={() => void make()}>
          <Plus size={14} aria-hidden /> New {kindWord(kind)}
        </Button>
        {active && (
          <Button onClick={() => void store.submit([{ op: "remove", kind, record: active as AnyRecord }])}>
            <Trash2 size={14} aria-hidden /> Remove {active.name}
          </Button>
        )}
        <p className="truncate text-second">{help}</p>
        <span className="ml-auto shrink-0 text-second">
          {count(keyIndex(catalogue, kind).size, kindWord(kind), kindWord(kind, true))}
        </span>
      </div>
      <Grid<AnyRecord>
        label={TABS.find((t) => t.kind === kind)?.label ?? kind}
        rows={rows}
        columns={columns}
        keyOf={(r) => r.id}
        activeKey={active?.id ?? null}
        onActive={(r) => places.ask({ record: r.key }, true)}
        onWrite={writeCells}
        order={order}
        onOrder={setOrder}
        empty={
          <Empty
            title={`No ${kindWord(kind, true)} yet`}
            action={
              <Button look="solid" onClick={() => void make()}>
                Add the first {kindWord(kind)}
              </Button>
            }
          >
            {help}
          </Empty>
        }
      />
    </>
  );
}

function columnsOf(kind: Exclude<Kind, "item" | "recipe">, catalogue: Catalogue): Column<AnyRecord>[] {
  const fields = Object.entries(FIELDS[kind]).filter(([name]) => name !== "stats") as [string, Field][];
  const columns = fields.filter(([name]) => name !== "key").map(([name, field]) => fieldColumn(name, field, catalogue));
  if (kind === "type")
    for (const stat of catalogue.stat.values())
      columns.push({
        id: `stats.${stat.id}`,
        title: stat.name,
        width: 70,
        numeric: true,
        edit: {},
        text: (r) => String((r as { stats?: Record<string, number> }).stats?.[stat.id] ?? ""),
        sort: (r) => (r as { stats?: Record<string, number> }).stats?.[stat.id] ?? null,
        cell: (r) =>
          (r as { stats?: Record<string, number> }).stats?.[stat.id] ?? <span className="text-third">–</span>,
      });
  columns.push(fieldColumn("key", FIELDS[kind].key, catalogue));
  return columns;
}

function fieldColumn(name: string, field: Field, catalogue: Catalogue): Column<AnyRecord> {
  const value = (r: AnyRecord) => (r as unknown as Record<string, unknown>)[name];
  const text = (r: AnyRecord): string => {
    const v = value(r);
    if (v === null || v === undefined) return "";
    if (field.as === "ref") return nameOf(catalogue, field.to, v as Id);
    if (field.as === "lines") return formatGiven(catalogue, v as Line[]);
    if (name === "ticks") return (v as number) === 0 ? "" : formatTicks(v as number, catalogue.pantry.ticksPerSecond);
    if (name === "price" && v === 0) return "";
    return String(v);
  };
  const names =
    field.as === "choice"
      ? () => field.of
      : field.as === "ref"
        ? () => [...(catalogue[field.to] as ReadonlyMap<Id, { name: string }>).values()].map((r) => r.name)
        : undefined;
  const numeric = field.as === "number";
  const cell = (r: AnyRecord): ReactNode => {
    const shown = text(r);
    if (!shown) return <span className="text-third">–</span>;
    if (field.as === "colour")
      return (
        <span className="flex items-center gap-2">
          <span aria-hidden className="size-3.5 rounded-sm" style={{ background: shown }} />
          {shown}
        </span>
      );
    if (name === "icon")
      return (
        <span className="flex items-center gap-1.5 truncate">
          <Icon name={shown} size={15} /> {shown}
        </span>
      );
    return (
      <span
        className={cx("truncate", name === "name" && "font-semibold", name === "key" && "text-second")}
        title={shown.length > 30 ? shown : undefined}
      >
        {numeric && name !== "ticks" ? sayQuantity(value(r) as number) : shown}
      </span>
    );
  };
  const title = TITLES[name] ?? name.charAt(0).toUpperCase() + name.slice(1);
  return {
    id: name,
    title,
    width: WIDTHS[name] ?? 76,
    numeric,
    edit: { names },
    text,
    cell,
    sort: (r) => (numeric ? ((value(r) as number | null) ?? null) : text(r).toLowerCase()),
  };
}

const SETTINGS: readonly { field: keyof Pantry; label: string; help: string }[] = [
  { field: "name", label: "Name", help: "" },
  {
    field: "ticksPerSecond",
    label: "Ticks per second",
    help: "The game's clock. Every duration is stored in ticks and can be written as 90s or 1800t.",
  },
  {
    field: "labourPerHour",
    label: "Worth of an hour of play",
    help: "Value units. Time then counts in value too, so that a gathered material is not free. 0 leaves time out.",
  },
  {
    field: "priceFloor",
    label: "Price floor",
    help: "A sell price below this share of the cost is a finding. 1 is the cost itself.",
  },
  {
    field: "salvageCeiling",
    label: "Salvage ceiling",
    help: "Salvage that gives back more than this share of the item's cost is a finding.",
  },
];

function PantryPanel() {
  const { catalogue } = useLive();
  const write = useWrite();
  return (
    <div
      tabIndex={0}
      role="region"
      aria-label="Pantry settings"
      className="grid min-h-0 flex-1 grid-cols-[minmax(0,520px)_minmax(0,1fr)] gap-8 overflow-auto bg-salt p-5"
    >
      <section aria-label="Settings">
        <h2 className="pb-2 text-[15px]">Settings</h2>
        {SETTINGS.map(({ field, label, help }) => (
          <div key={field} className="border-b border-hair py-2">
            <div className="flex items-center justify-between gap-4">
              <span className="font-semibold">{label}</span>
              <Inline
                label={label}
                held={{ value: catalogue.pantry[field], from: "own" }}
                numeric={field !== "name"}
                show={String(catalogue.pantry[field])}
                text={String(catalogue.pantry[field])}
                onWrite={(t) => write("pantry", catalogue.pantry.id, field, t)}
              />
            </div>
            {help && <p className="text-second">{help}</p>}
          </div>
        ))}
      </section>
      <div>
        <BundlePanel />
        <DeletePanel />
      </div>
    </div>
  );
}
