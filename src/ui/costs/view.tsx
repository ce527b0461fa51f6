"use client";
/** Costs: of every item, of what a basket of them takes, or what they would be. */
import { usePlaces } from "../frame/navigate";
import { ViewHead } from "../frame/view-head";
import { ChoiceButtons } from "../kit/choice-buttons";
import { EveryItem, PlanView, WhatIfView } from "./lazily";

/** Costs of every item, the plan for a basket of them, or the effects of changes that are tried. */
export function CostsView() {
  const places = usePlaces();
  const asked = places.query.get("view");
  const shown = asked === "plan" || asked === "what-if" ? asked : "costs";
  return (
    <>
      <ViewHead title="Costs">
        <ChoiceButtons
          label="View"
          value={shown}
          of={[
            ["costs", "All items"],
            ["plan", "Plan"],
            ["what-if", "What-if"],
          ]}
          onPick={(view) => places.ask({ view: view === "costs" ? null : view }, true)}
        />
      </ViewHead>
      {shown === "plan" ? <PlanView /> : shown === "what-if" ? <WhatIfView /> : <EveryItem />}
    </>
  );
}
