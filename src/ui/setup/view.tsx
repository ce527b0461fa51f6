"use client";
import { Plus, Trash2 } from "lucide-react";
import { Tabs } from "radix-ui";
import { Fragment, useEffect, useMemo, useState } from "react";
import { byKey, keyIndex } from "@/core/catalogue/keys";
import { RULE_IDS } from "@/core/checklist";
import { newId, type Id } from "@/core/schema/id";
import {
  type AnyRecord,
  definition,
  type Kind,
  KINDS,
  kindWord,
  type OwnField,
  withDefaults,
} from "@/core/kinds/index";
import { FreeKeys } from "@/core/editing/new-names";
import { capital, count } from "@/core/numbers/format";
import { usePlaces } from "../frame/navigate";
import { RemoveButton } from "../frame/remove";
import { UsesButton } from "../frame/uses";
import { ViewHead } from "../frame/view-head";
import { Grid } from "../grid/grid";
import type { Begin } from "../grid/use-editing";
import { type Order, ordered } from "../grid/columns";
import { fieldColumns, none } from "../grid/field-columns";
import { Button, Empty } from "../kit/kit";
import { ChecksTable } from "./checks-table";
import { RetypeButton } from "./lazily";
import { PantryPanel } from "./pantry-panel";
import { useLive, useStore } from "../pantry/provider";
import { useWriteCells } from "../pantry/use-write";
import { BringIn } from "../tables/lazily";
import { TakeOut } from "../tables/take-out";
import { viewOf } from "../views";
import dynamic from "next/dynamic";
import { orNotLoaded } from "../kit/not-loaded";
import { TypeTree } from "./type-tree";

const RecordSheet = dynamic(() => orNotLoaded(import("../forms/record-sheet").then((m) => m.RecordSheet)), {
  ssr: false,
});

/** Sections of Setup in the order of work; a kind that none of them names comes last. */
const GROUPS: readonly { readonly title: string; readonly kinds: readonly Kind[] }[] = [
  { title: "What there is", kinds: ["type", "field", "stat", "rarity", "tag", "slot"] },
  {
    title: "What it does",
    kinds: ["use", "resource", "condition", "cooldown", "exclusion", "situation", "signal", "constant"],
  },
  { title: "Where it comes from", kinds: ["source", "table", "currency", "payback"] },
  { title: "Trying", kinds: ["subject"] },
  { title: "Checking", kinds: ["severity"] },
];
/** Kinds that have another form than a grid, and the name of their section where that is another. */
const SECTIONS: { readonly [K in Kind]?: string } = { severity: "Checks" };
/** Kinds without a view of their own. */
const TABS: readonly Kind[] = KINDS.filter((kind) => viewOf(kind)?.name === "setup");
/** Created where they are used; they are listed once there are some. */
const ELSEWHERE: readonly Kind[] = ["series", "mapping"];
const tabTitle = (kind: Kind): string => SECTIONS[kind] ?? capital(kindWord(kind, true));
const grouped = GROUPS.flatMap(({ kinds }) => kinds);
const LISTED = [...GROUPS, { title: "Names", kinds: TABS.filter((kind) => !grouped.includes(kind)) }];

export function SetupView() {
  const { catalogue } = useLive();
  const places = usePlaces();
  const asked = places.query.get("kind") ?? "type";
  const tab = TABS.find((kind) => kind === asked);
  const wanted = tab ?? "pantry";
  const grid = tab !== "type" || places.query.get("as") === "grid";
  const shown = (kind: Kind) => kind === tab || !ELSEWHERE.includes(kind) || catalogue.records[kind].size > 0;
  return (
    <>
      <ViewHead title="Setup">
        {tab === "type" && (
          <Button look="quiet" onClick={() => places.ask({ as: grid ? null : "grid" }, true)}>
            {grid ? "Show as tree" : "Show as grid"}
          </Button>
        )}
      </ViewHead>
      <Tabs.Root
        orientation="vertical"
        value={wanted}
        onValueChange={(kind) => places.ask({ kind, record: null }, true)}
        className="flex min-h-0 flex-1"
      >
        <Tabs.List
          aria-label="Setup sections"
          className="flex w-44 shrink-0 flex-col overflow-auto border-r border-line bg-shade px-2 pb-3"
        >
          {LISTED.map(({ title, kinds }) => (
            <Fragment key={title}>
              <span role="presentation" className="head px-2 pt-2 pb-0.5">
                {title}
              </span>
              {kinds.filter(shown).map((kind) => (
                <SectionTab
                  key={kind}
                  value={kind}
                  label={tabTitle(kind)}
                  n={kind === "severity" ? RULE_IDS.length : catalogue.records[kind].size}
                />
              ))}
            </Fragment>
          ))}
          <span role="presentation" className="head px-2 pt-2 pb-0.5">
            Pantry
          </span>
          <SectionTab value="pantry" label="Pantry settings" />
        </Tabs.List>
        <Tabs.Content value={wanted} className="flex min-h-0 min-w-0 flex-1 flex-col outline-none">
          {tab === "severity" ? (
            <ChecksTable />
          ) : tab ? (
            grid ? (
              <KindGrid key={tab} kind={tab} />
            ) : (
              <TypeTree />
            )
          ) : (
            <PantryPanel />
          )}
        </Tabs.Content>
      </Tabs.Root>
    </>
  );
}

function SectionTab({ value, label, n }: { readonly value: string; readonly label: string; readonly n?: number }) {
  return (
    <Tabs.Trigger
      value={value}
      className="flex h-6 shrink-0 items-center justify-between gap-2 rounded-sm px-2 text-left hover:bg-pick data-[state=active]:bg-pick data-[state=active]:font-bold"
    >
      <span className="truncate">{label}</span>
      {n !== undefined && <span className="num font-normal text-second">{n}</span>}
    </Tabs.Trigger>
  );
}

/** What a field links to says something only where it is a link. */
const linking = (r: AnyRecord): boolean => ["link", "links"].includes((r as OwnField).form);
const onlyLinks = (say: (field: OwnField) => string) => (r: AnyRecord) => (linking(r) ? say(r as OwnField) : none);
const FIELD_LOOKS = { to: { cell: onlyLinks((field) => field.to) } };

function KindGrid({ kind }: { kind: Kind }) {
  const { help } = definition(kind);
  const writeCells = useWriteCells(kind);
  const { catalogue } = useLive();
  const store = useStore();
  const places = usePlaces();
  const [orders, setOrders] = useState<readonly Order[]>([
    { column: kind === "rarity" ? "rank" : "name", down: false },
  ]);
  const columns = useMemo(
    () => fieldColumns(kind, () => catalogue, kind === "field" ? FIELD_LOOKS : {}),
    [kind, catalogue],
  );
  const rows = useMemo(
    () => ordered([...(catalogue.records[kind] as ReadonlyMap<Id, AnyRecord>).values()], columns, orders),
    [catalogue, kind, columns, orders],
  );
  const [withEmpty, setWithEmpty] = useState(false);
  const filled = useMemo(
    () => columns.filter((c) => ALWAYS.has(c.id) || rows.some((r) => c.text(r) !== "")),
    [columns, rows],
  );
  const visible = withEmpty || rows.length === 0 ? columns : filled;
  const hidden = columns.length - filled.length;
  const [bringing, setBringing] = useState(false);
  const [shut, setShut] = useState(false);
  const [begin, setBegin] = useState<Begin | null>(null);
  const formed = hasSheet(kind);
  const wanted = places.query.get("record") ?? "";
  const renamed = store.formerKey(kind, wanted);
  const active =
    byKey(catalogue, kind, wanted) ?? (renamed && (catalogue.records[kind] as ReadonlyMap<Id, AnyRecord>).get(renamed));
  // A record is followed through its renaming.
  const followed = active && active.key !== wanted ? active.key : null;
  const { ask } = places;
  useEffect(() => {
    if (followed) ask({ record: followed }, true);
  }, [followed, ask]);
  const make = async () => {
    const name = `New ${kindWord(kind)}`;
    const record = withDefaults(kind, { id: newId(), key: new FreeKeys(catalogue).next(kind, name), name });
    const answer = await store.submit([{ op: "add", kind, record: record as AnyRecord }]);
    if (!answer.ok) return;
    places.ask({ record: record.key }, true);
    setBegin({ key: record.id, column: "name" });
  };
  return (
    <>
      <div className="flex flex-wrap items-center gap-2 border-b border-hair bg-salt px-3.5 py-1.5">
        <Button look="solid" onClick={() => void make()}>
          <Plus size={14} aria-hidden /> New {kindWord(kind)}
        </Button>
        {kind === "field" && active && <RetypeButton key={active.id} field={active as OwnField} />}
        {active && <UsesButton key={`uses ${active.id}`} kind={kind} record={active as AnyRecord} />}
        {active && (
          <RemoveButton kind={kind} record={active as AnyRecord}>
            <Trash2 size={14} aria-hidden /> Remove {active.name}
          </RemoveButton>
        )}
        <p className="min-w-32 flex-1 truncate text-second" title={help}>
          {help}
        </p>
        {hidden > 0 && rows.length > 0 && (
          <Button look="quiet" aria-pressed={withEmpty} onClick={() => setWithEmpty(!withEmpty)}>
            {withEmpty ? "Hide empty columns" : `Show ${count(hidden, "empty column")}`}
          </Button>
        )}
        <Button onClick={() => setBringing(true)}>Import</Button>
        <TakeOut kind={kind} rows={rows} columns={columns} />
        {bringing && <BringIn kind={kind} onClose={() => setBringing(false)} />}
        <span className="shrink-0 text-second">
          {count(keyIndex(catalogue, kind).size, kindWord(kind), kindWord(kind, true))}
        </span>
      </div>
      <div className="flex min-h-0 flex-1">
        <Grid<AnyRecord>
          label={tabTitle(kind)}
          rows={rows}
          columns={visible}
          keyOf={(r) => r.id}
          activeKey={active?.id ?? null}
          onActive={(r) => {
            setShut(false);
            places.ask({ record: r.key }, true);
          }}
          onWrite={writeCells}
          begin={begin}
          orders={orders}
          onOrders={setOrders}
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
        {active && formed && !shut && (
          <RecordSheet key={active.id} kind={kind} id={active.id} onClose={() => setShut(true)} />
        )}
      </div>
    </>
  );
}

/** Columns that are shown although no record has a value. */
const ALWAYS: ReadonlySet<string> = new Set(["name", "key", "note"]);

/** Kinds of which a cell is too small to say all: their records have a sheet beside the grid. */
const hasSheet = (kind: Kind): boolean =>
  Object.values(definition(kind).fields).some((field) => field.inner?.is === "list" || field.type === "formula");
