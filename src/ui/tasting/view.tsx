"use client";
/** Tasting: items tried out on a character, before anybody starts the game. */
import dynamic from "next/dynamic";
import { orNotLoaded } from "../kit/not-loaded";
import { Tabs } from "radix-ui";
import { usePlaces } from "../frame/navigate";
import { ViewHead } from "../frame/view-head";
import { Button, cx } from "../kit/kit";

const TABS = [
  { id: "use", label: "Use", show: dynamic(() => orNotLoaded(import("./use-tab").then((m) => m.UseTab))) },
  { id: "wear", label: "Wear", show: dynamic(() => orNotLoaded(import("./wear-tab").then((m) => m.WearTab))) },
  {
    id: "open",
    label: "Open and salvage",
    show: dynamic(() => orNotLoaded(import("./open-tab").then((m) => m.OpenTab))),
  },
  { id: "lay", label: "Lay out", show: dynamic(() => orNotLoaded(import("./lay-tab").then((m) => m.LayTab))) },
  { id: "bag", label: "Bag", show: dynamic(() => orNotLoaded(import("./bag-tab").then((m) => m.BagTab))) },
  { id: "trials", label: "Trials", show: dynamic(() => orNotLoaded(import("./trials-tab").then((m) => m.TrialsTab))) },
] as const;

export function TastingView() {
  const places = usePlaces();
  const tab = TABS.find((t) => t.id === places.query.get("tab")) ?? TABS[0];
  return (
    <Tabs.Root
      className="contents"
      value={tab.id}
      onValueChange={(id) => places.ask({ tab: id }, true)}
      // Opening a tool takes a moment: arrows move, Enter opens.
      activationMode="manual"
    >
      <ViewHead title="Tasting">
        <Tabs.List aria-label="Tasting tools" className="flex gap-1">
          {TABS.map((t) => (
            <Tabs.Trigger key={t.id} value={t.id} asChild>
              <Button className={cx(t === tab && "border-ink!")}>{t.label}</Button>
            </Tabs.Trigger>
          ))}
        </Tabs.List>
      </ViewHead>
      <Tabs.Content value={tab.id} tabIndex={-1} className="contents">
        {/* What another view asks to be tried is played from its start. */}
        <tab.show key={`${tab.id}${tab.id === "bag" ? (places.query.get("do") ?? "") : ""}`} />
      </Tabs.Content>
    </Tabs.Root>
  );
}
