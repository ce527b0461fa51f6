"use client";
/** Costs: of every item, or of what a basket of them takes. */
import { usePlaces } from "../frame/navigate";
import { ViewHead } from "../frame/view-head";
import { ChoiceButtons } from "../kit/choice-buttons";
import { EveryItem, PlanView } from "./lazily";

/** Costs of every item, or the plan for a basket of them. */
export function CostsView() {
  const places = usePlaces();
  const planning = places.query.get("view") === "plan";
  return (
    <>
      <ViewHead title="Costs">
        <ChoiceButtons
          label="View"
          value={planning ? "plan" : "costs"}
          of={[
            ["costs", "All items"],
            ["plan", "Plan"],
          ]}
          onPick={(view) => places.ask({ view: view === "plan" ? view : null }, true)}
        />
      </ViewHead>
      {planning ? <PlanView /> : <EveryItem />}
    </>
  );
}
