"use client";
/** Tasting: items tried out on a character, before anybody starts the game. */
import dynamic from "next/dynamic";
import { usePlaces } from "../frame/navigate";
import { ViewHead } from "../frame/view-head";
import { Button, cx } from "../kit/kit";

const TABS = [
  { id: "use", label: "Use", show: dynamic(() => import("./use-tab").then((m) => m.UseTab)) },
  { id: "wear", label: "Wear", show: dynamic(() => import("./wear-tab").then((m) => m.WearTab)) },
  { id: "open", label: "Open and salvage", show: dynamic(() => import("./open-tab").then((m) => m.OpenTab)) },
  { id: "lay", label: "Lay out", show: dynamic(() => import("./lay-tab").then((m) => m.LayTab)) },
  { id: "bag", label: "Bag", show: dynamic(() => import("./bag-tab").then((m) => m.BagTab)) },
  { id: "trials", label: "Trials", show: dynamic(() => import("./trials-tab").then((m) => m.TrialsTab)) },
] as const;

export function TastingView() {
  const places = usePlaces();
  const tab = TABS.find((t) => t.id === places.query.get("tab")) ?? TABS[0];
  return (
    <>
      <ViewHead title="Tasting">
        <div role="tablist" aria-label="Tasting tools" className="flex gap-1">
          {TABS.map((t) => (
            <Button
              key={t.id}
              role="tab"
              aria-selected={t === tab}
              className={cx(t === tab && "border-ink!")}
              onClick={() => places.ask({ tab: t.id }, true)}
            >
              {t.label}
            </Button>
          ))}
        </div>
      </ViewHead>
      {/* What another view asks to be tried is tried anew. */}
      <tab.show key={`${tab.id}${tab.id === "bag" ? (places.query.get("do") ?? "") : ""}`} />
    </>
  );
}
