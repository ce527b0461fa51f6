"use client";
import { Plus, Trash2 } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import { byKey, keyIndex } from "@/core/catalogue/keys";
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
import { type Begin, Grid } from "../grid/grid";
import { type Order, ordered } from "../grid/columns";
import { fieldColumns, none, titleOf } from "../grid/field-columns";
import { Inline } from "../kit/inline";
import { Button, cx, Empty } from "../kit/kit";
import { useLive, useStore } from "../pantry/provider";
import { useWrite, useWriteCells } from "../pantry/use-write";
import { BringIn } from "../tables/lazily";
import { TakeOut } from "../tables/take-out";
import { viewOf } from "../views";
import dynamic from "next/dynamic";
import { BundlePanel } from "./bundle-panel";
import { ClockButton } from "./clock";
import { DeletePanel } from "./delete-panel";
import { RetypeButton } from "./retype";
import { TypeTree } from "./type-tree";

const RecordSheet = dynamic(() => import("../forms/record-sheet").then((m) => m.RecordSheet), { ssr: false });

/** Kinds without a view of their own; those that say most first. */
const TABS: readonly Kind[] = KINDS.filter((kind) => viewOf(kind)?.name === "setup").sort(
  (a, b) => definition(b).members.names.length - definition(a).members.names.length,
);
/** Made where they are used; they have a tab once there are some. */
const ELSEWHERE: readonly Kind[] = ["series", "mapping"];
const tabTitle = (kind: Kind): string => capital(kindWord(kind, true));

export function SetupView() {
  const { catalogue } = useLive();
  const places = usePlaces();
  const wanted = places.query.get("kind") ?? "type";
  const tab = TABS.find((kind) => kind === wanted);
  const grid = tab !== "type" || places.query.get("as") === "grid";
  return (
    <>
      <ViewHead title="Setup" />
      <div className="flex min-h-10 items-center gap-2 border-b border-line bg-shade px-3.5 py-1.5">
        <div role="tablist" aria-label="Setup sections" className="flex flex-wrap items-center gap-1">
          {[
            ...TABS.filter((kind) => kind === tab || !ELSEWHERE.includes(kind) || catalogue.records[kind].size > 0).map(
              (kind) => ({ id: kind as string, label: tabTitle(kind), n: catalogue.records[kind].size }),
            ),
            { id: "pantry", label: "Pantry", n: null },
          ].map((t) => (
            <Button
              key={t.id}
              role="tab"
              aria-selected={wanted === t.id}
              className={cx("px-1.5!", wanted === t.id && "border-ink!")}
              onClick={() => places.ask({ kind: t.id, record: null }, true)}
            >
              {t.label} {t.n !== null && <span className="font-normal text-second">{t.n}</span>}
            </Button>
          ))}
        </div>
        {tab === "type" && (
          <Button look="quiet" className="ml-auto" onClick={() => places.ask({ as: grid ? null : "grid" }, true)}>
            {grid ? "Tree" : "Grid"}
          </Button>
        )}
      </div>
      {tab ? grid ? <KindGrid key={tab} kind={tab} /> : <TypeTree /> : <PantryPanel />}
    </>
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
      <div className="flex items-center gap-2 border-b border-hair bg-salt px-3.5 py-1.5">
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
        <p className="min-w-0 flex-1 truncate text-second">{help}</p>
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
          columns={columns}
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

/** Kinds of which a cell is too small to say all: their records have a sheet beside the grid. */
const hasSheet = (kind: Kind): boolean =>
  Object.values(definition(kind).fields).some((field) => field.inner?.is === "list" || field.type === "formula");

/** Every setting but the key, which stays. */
const SETTINGS = Object.entries(definition("pantry").fields)
  .filter(([field]) => field !== "key")
  .map(([field, of]) => ({ field, label: titleOf(field, of), help: of.options.help, numeric: of.numeric, of }));

function PantryPanel() {
  const { catalogue } = useLive();
  const pantry = catalogue.pantry as unknown as Readonly<Record<string, string | number>>;
  const write = useWrite();
  return (
    // biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element
    <div
      // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
      tabIndex={0}
      role="region"
      aria-label="Pantry settings"
      className="grid min-h-0 flex-1 grid-cols-[minmax(0,520px)_minmax(0,1fr)] gap-8 overflow-auto bg-salt p-5"
    >
      <section aria-label="Settings">
        <h2 className="pb-2 text-[15px]">Settings</h2>
        {SETTINGS.map(({ field, label, help, numeric }) => (
          <div key={field} className="border-b border-hair py-2">
            <div className="flex items-center justify-between gap-4">
              <span className="font-semibold">{label}</span>
              {field === "ticksPerSecond" ? (
                <ClockButton />
              ) : (
                <Inline
                  label={label}
                  held={{ value: pantry[field], from: "own" }}
                  numeric={numeric}
                  show={String(pantry[field])}
                  text={String(pantry[field])}
                  onWrite={(t) => write("pantry", catalogue.pantry.id, field, t)}
                />
              )}
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
