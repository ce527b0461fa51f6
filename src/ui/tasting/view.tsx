"use client";
/** Tasting: items tried out on a character, before anybody starts the game. */
import { usePlaces } from "../frame/navigate";
import { ViewHead } from "../frame/view-head";
import { Button, cx } from "../kit/kit";
import { BagTab } from "./bag-tab";
import { OpenTab } from "./open-tab";
import { TrialsTab } from "./trials-tab";
import { UseTab } from "./use-tab";
import { WearTab } from "./wear-tab";

const TABS = [
  { id: "use", label: "Use", show: UseTab },
  { id: "wear", label: "Wear", show: WearTab },
  { id: "open", label: "Open and take apart", show: OpenTab },
  { id: "bag", label: "Bag", show: BagTab },
  { id: "trials", label: "Trials", show: TrialsTab },
] as const;

export function TastingView() {
  const places = usePlaces();
  const tab = TABS.find((t) => t.id === places.query.get("tab")) ?? TABS[0];
  return (
    <>
      <ViewHead title="Tasting">
        <div role="tablist" aria-label="What is tried" className="flex gap-1">
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
      <tab.show />
    </>
  );
}
