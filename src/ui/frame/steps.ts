/** The steps of a new pantry in the order of work, and which of them are done. */
import type { Catalogue } from "@/core/catalogue/catalogue";
import type { Finding } from "@/core/checks/check";
import type { ReadModel } from "@/core/engine/read-model";
import { count } from "@/core/numbers/format";
import type { ViewName } from "../views";

export interface WorkStep {
  readonly title: string;
  readonly message: string;
  readonly action: string;
  readonly view: ViewName;
  readonly query: Readonly<Record<string, string>>;
  readonly done: boolean;
}

export function stepsOf(
  { records }: Catalogue,
  model: ReadModel,
  findings: readonly Finding[] = model.findings,
): readonly WorkStep[] {
  const { type, stat, item, recipe, source, subject, trial } = records;
  const errors = findings.filter((f) => f.severity === "error").length;
  return [
    {
      title: "Types and stats",
      message: `${count(type.size, "type")}, ${count(stat.size, "stat")}. Items inherit from types and are compared by stats.`,
      action: "Open Setup",
      view: "setup",
      query: { kind: type.size ? "stat" : "type" },
      done: type.size > 0 && stat.size > 0,
    },
    {
      title: "Items",
      message: `${count(item.size, "item")}. Type them in, paste them, or import a table.`,
      action: "New item",
      view: "shelves",
      query: { new: "1" },
      done: item.size > 0,
    },
    {
      title: "Recipes and sources",
      message: `${count(recipe.size, "recipe")}, ${count(source.size, "source")}. How items are made, and where they come from.`,
      action: recipe.size ? "Add a source" : "New recipe",
      view: recipe.size ? "setup" : "recipes",
      query: recipe.size ? { kind: "source" } : { new: "1" },
      done: recipe.size > 0 && source.size > 0,
    },
    {
      title: "Checks",
      message: errors ? `${count(errors, "error")} to fix.` : "No errors.",
      action: "Open Checks",
      view: "checks",
      query: {},
      done: item.size > 0 && recipe.size > 0 && model.revision >= 0 && errors === 0,
    },
    {
      title: "Trying",
      message: `${count(subject.size, "test character")}, ${count(trial.size, "trial")}. Try items out and record what must stay true.`,
      action: subject.size ? "Open Tasting" : "Add a test character",
      view: subject.size ? "tasting" : "setup",
      query: subject.size ? {} : { kind: "subject" },
      done: subject.size > 0 && trial.size > 0,
    },
  ];
}
