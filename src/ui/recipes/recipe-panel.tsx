"use client";
/** A recipe beside the book: its line and form, what one run costs, what is wrong, who changed it. */
import { Trash2 } from "lucide-react";
import { setField } from "@/core/catalogue/edit";
import type { Recipe } from "@/core/kinds/index";
import { STATUSES } from "@/core/kinds/shared";
import { FindingLines } from "../checks/finding-lines";
import { usePlaces } from "../frame/navigate";
import { Button } from "../kit/kit";
import { HistoryOf } from "../log/history";
import { useLive, useStore } from "../pantry/provider";
import { OwnFields } from "../sheet/own-fields";
import { RecipeEditor } from "./recipe-editor";
import { RunCosts } from "./run-costs";

export function RecipePanel({ recipe }: { recipe: Recipe }) {
  const { judged, catalogue } = useLive();
  const store = useStore();
  const places = usePlaces();
  const findings = judged.open.filter((f) => f.about.some((r) => r.id === recipe.id));
  const remove = async () => {
    const answer = await store.submit([{ op: "remove", kind: "recipe", record: recipe }]);
    if (answer.ok) places.ask({ recipe: null }, true);
  };
  return (
    <section
      aria-label={`Recipe ${recipe.name}`}
      className="col-start-2 row-start-3 w-[620px] overflow-auto border-l border-line bg-salt p-4"
    >
      <div className="flex items-center gap-2 pb-3">
        <h2 className="flex-1 truncate text-[17px]">{recipe.name}</h2>
        <select
          aria-label="Status"
          className="field w-auto!"
          value={recipe.status}
          onChange={(e) => void store.submit([setField(catalogue, "recipe", recipe.id, "status", e.target.value)])}
        >
          {STATUSES.filter((s) => s !== "stub").map((s) => (
            <option key={s}>{s}</option>
          ))}
        </select>
        <Button
          look="quiet"
          onClick={() => void remove()}
          aria-label="Remove this recipe"
          title="Remove (undo brings it back)"
        >
          <Trash2 size={14} aria-hidden />
        </Button>
      </div>
      <RecipeEditor recipe={recipe} form />
      <OwnFields kind="recipe" record={recipe} />
      <h3 className="head pt-5 pb-1">Cost of one run</h3>
      <RunCosts id={recipe.id} />
      {findings.length > 0 && (
        <>
          <h3 className="head pt-5 pb-1">Findings</h3>
          <FindingLines findings={findings} />
        </>
      )}
      <HistoryOf id={recipe.id} />
    </section>
  );
}
