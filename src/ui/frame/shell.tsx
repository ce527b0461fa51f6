"use client";
/** The frame around every view: places on the left, the item sheet on the right, the tideline along the bottom. */
import dynamic from "next/dynamic";
import { orNotLoaded } from "../kit/not-loaded";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import Link from "next/link";
import { type ReactNode, Suspense, useEffect, useMemo, useState } from "react";
import { byKey } from "@/core/catalogue/keys";
import type { Item } from "@/core/kinds/index";
import { group } from "@/core/numbers/format";
import { cx, Empty } from "../kit/kit";
import { useScenarioAddress } from "../what-if/address";
import { useVisit } from "../pantry/last-visit";
import { PantryProvider, useStore, useView } from "../pantry/provider";
import { ALL_VIEWS, titleOf } from "../views";
import { CommandField } from "./command";
import { usePlaces } from "./navigate";
import { NoticeCard } from "./notice";
import { type Overlays, OverlaysContext } from "./overlays";
import { Tideline } from "./tideline";
import { useTransliteration } from "./transliteration";

/** Loaded with the first scenario. */
const OpenScenarioBar = dynamic(() => orNotLoaded(import("../what-if/bar").then((m) => m.OpenScenarioBar)), {
  ssr: false,
});
/** Loaded when it is opened for the first time. */
const Help = dynamic(() => orNotLoaded(import("../help/help").then((m) => m.Help)), { ssr: false });
/** Loaded with the first item that is opened. */
const ItemSheet = dynamic(() => orNotLoaded(import("../sheet/item-sheet").then((m) => m.ItemSheet)), { ssr: false });

export function Shell({ pantry, children }: { pantry: string; children: ReactNode }) {
  const [client] = useState(
    () => new QueryClient({ defaultOptions: { queries: { retry: 2, refetchOnWindowFocus: false } } }),
  );
  return (
    <QueryClientProvider client={client}>
      <PantryProvider pantry={pantry}>
        <Suspense>
          <Frame>{children}</Frame>
        </Suspense>
      </PantryProvider>
    </QueryClientProvider>
  );
}

function Frame({ children }: { children: ReactNode }) {
  const open = useView((v) => v.state !== null);
  const missing = useView((v) => v.link === "missing");
  const name = useView((v) => v.state?.catalogue.pantry.name);
  const places = usePlaces();
  const [over, setOver] = useState<"command" | "help" | null>(null);
  const overlays = useMemo<Overlays>(
    () => ({ openCommand: () => setOver("command"), openHelp: () => setOver("help") }),
    [],
  );
  useGlobalKeys(overlays);
  useTransliteration();
  useVisit();
  const wanted = places.query.get("item");
  const item = useWantedItem(wanted);
  useEffect(() => {
    if (name !== undefined) document.title = titleOf(places.view, name);
  }, [name, places.view]);
  return (
    <OverlaysContext.Provider value={overlays}>
      <div className="grid h-screen grid-cols-[150px_minmax(0,1fr)] grid-rows-[minmax(0,1fr)_auto] print:block">
        <Rail />
        <div className="flex min-w-0">
          <main className="flex min-w-0 flex-1 flex-col">
            <ScenarioBar />
            {open ? (
              children
            ) : missing ? (
              <Missing />
            ) : (
              <Empty title="Opening the pantry">Loading its records and analysis.</Empty>
            )}
          </main>
          {item && <ItemSheet key={item.id} item={item} onClose={() => places.ask({ item: null })} />}
        </div>
        <Tideline />
        <NoticeCard />
        {over === "command" && open && <CommandField onClose={() => setOver(null)} />}
        {over === "help" && open && <Help onClose={() => setOver(null)} />}
      </div>
    </OverlaysContext.Provider>
  );
}

/** The item the address names, also by a key that it had a moment ago; the address follows its key. */
function useWantedItem(wanted: string | null): Item | undefined {
  const { ask } = usePlaces();
  const store = useStore();
  const item = useView(({ state }) => {
    if (!state || !wanted) return undefined;
    const renamed = store.formerKey("item", wanted);
    return byKey(state.catalogue, "item", wanted) ?? (renamed ? state.catalogue.records.item.get(renamed) : undefined);
  });
  useEffect(() => {
    if (item && item.key !== wanted) ask({ item: item.key }, true);
  }, [item, wanted, ask]);
  return item;
}

function ScenarioBar() {
  const scenario = useView((v) => v.scenario);
  useScenarioAddress();
  return scenario && <OpenScenarioBar scenario={scenario} />;
}

function Missing() {
  return (
    <Empty title="No such pantry">
      There is no pantry at this address.{" "}
      <Link className="underline" href="/?all">
        See all pantries.
      </Link>
    </Empty>
  );
}

function Rail() {
  const name = useView((v) => v.state?.catalogue.pantry.name);
  const revision = useView((v) => v.base?.catalogue.revision);
  const link = useView((v) => v.link);
  const places = usePlaces();
  return (
    <nav aria-label="Places" className="row-span-2 flex flex-col bg-deep text-foam">
      <Link href="/?all" className="block px-3.5 pt-3.5 pb-4 hover:text-brass" title="All pantries">
        <span className="title block text-[15px] text-white">Salty Pantry</span>
        <span className="block truncate text-[12px]">{name ?? places.pantry}</span>
      </Link>
      {ALL_VIEWS.map((view) => (
        <RailLink key={view.name} view={view} pantry={places.pantry} here={places.view === view.name} />
      ))}
      <div className="mt-auto px-3.5 py-3 text-[12px] text-foam">
        <ThemeSwitch />
        <p>Revision {revision === undefined ? "–" : group(String(revision))}</p>
        <p aria-live="polite" className={cx(link === "away" && "font-bold text-brass")}>
          {link === "live" ? "Live" : link === "away" ? "Offline, reconnecting" : "opening"}
        </p>
      </div>
    </nav>
  );
}

function RailLink({
  view: { name, title, icon: Mark, count, badge },
  pantry,
  here,
}: {
  readonly view: (typeof ALL_VIEWS)[number];
  readonly pantry: string;
  readonly here: boolean;
}) {
  const much = useView(({ state }) => (state && count ? count(state) : null));
  const alerts = useView(({ state }) => (state && badge?.(state)) || 0);
  return (
    <Link
      href={`/${pantry}/${name}`}
      aria-current={here ? "page" : undefined}
      className={cx(
        "flex h-8 items-center gap-2.5 border-l-3 px-3",
        here ? "border-brass bg-deeper font-bold text-white" : "border-transparent hover:bg-deeper",
      )}
    >
      <Mark size={16} aria-hidden />
      <span className="flex-1">{title}</span>
      {much !== null && <span className="text-[12px] text-foam">{group(String(much))}</span>}
      {alerts > 0 && (
        <span className="min-w-5 rounded-full bg-[#c2185b] px-1.5 text-center text-[12px] font-bold text-white">
          {alerts}
        </span>
      )}
    </Link>
  );
}

function ThemeSwitch() {
  const flip = () => {
    const night = document.documentElement.dataset.theme !== "night";
    if (night) document.documentElement.dataset.theme = "night";
    else delete document.documentElement.dataset.theme;
    try {
      localStorage.setItem("salty-theme", night ? "night" : "day");
    } catch {
      // without storage the choice lasts as long as the window
    }
  };
  return (
    <button
      type="button"
      onClick={flip}
      className="mb-2 block underline decoration-dotted underline-offset-3 hover:text-brass"
    >
      Theme: day or night
    </button>
  );
}

function useGlobalKeys({ openCommand, openHelp }: Overlays): void {
  const store = useStore();
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const typing =
        e.target instanceof HTMLElement &&
        (e.target.isContentEditable || /^(input|textarea|select)$/i.test(e.target.tagName));
      if (e.key === "?" && !typing && !e.ctrlKey && !e.metaKey && !e.defaultPrevented) {
        e.preventDefault();
        openHelp();
      }
      if (e.key === "F8") {
        e.preventDefault();
        store.toggleScenario();
      }
      if (!(e.ctrlKey || e.metaKey)) return;
      if (e.key.toLowerCase() === "k") {
        e.preventDefault();
        openCommand();
      } else if (e.key.toLowerCase() === "z" && !typing) {
        e.preventDefault();
        void (e.shiftKey ? store.redo() : store.undo());
      } else if (e.key.toLowerCase() === "y" && !typing) {
        e.preventDefault();
        void store.redo();
      }
    };
    // Before the field that is typed into: what it writes then goes into a scenario.
    const tryOut = (e: KeyboardEvent) => {
      const field = e.target instanceof HTMLElement && /^(input|textarea)$/i.test(e.target.tagName);
      if (e.key === "Enter" && e.altKey && field && !store.snapshot().scenario) store.enterScenario();
    };
    window.addEventListener("keydown", press);
    window.addEventListener("keydown", tryOut, true);
    return () => {
      window.removeEventListener("keydown", press);
      window.removeEventListener("keydown", tryOut, true);
    };
  }, [openCommand, openHelp, store]);
}
