import type { Loop } from "../analysis/loops";
import { causes } from "../analysis/registry";
import type { Recipe } from "../kinds/index";
import { list } from "../numbers/format";
import { processAt } from "../network/compile";
import { type FindingDraft, itemRef, namedRef, recipeRef, type CheckContext, type WholeCheck } from "./check";
import { setLines } from "./fixes";

/** Items that need each other, with no way in from outside. */
export const stuckLoop: WholeCheck = {
  id: "stuck-loop",
  reads: [causes],
  *find(context) {
    for (const loop of context.readings.loops) if (loop.verdict === "stuck" && !loop.byTool) yield found(context, loop);
  },
};

/** A tool or station whose own making needs it. */
export const needsItself: WholeCheck = {
  id: "needs-itself",
  reads: [causes],
  *find(context) {
    for (const loop of context.readings.loops) if (loop.verdict === "stuck" && loop.byTool) yield found(context, loop);
  },
};

function found(context: CheckContext, loop: Loop): FindingDraft {
  const recipes = loop.steps.flatMap((step) => {
    const process = step.run === "process" ? processAt(context.readings.compiled, step.process) : null;
    return process?.kind === "recipe" ? [process.record as Recipe] : [];
  });
  return context.told.about(loop, context, recipes, () => tell(context, loop, recipes));
}

function tell(context: CheckContext, loop: Loop, recipes: readonly Recipe[]): FindingDraft {
  const { catalogue } = context;
  const items = loop.items.map((i) => itemRef(context, i));
  const own = new Set(items.map((i) => i.id));
  const names = list(items.map((i) => i.name));
  const whole = recipes.filter((r) => r === catalogue.records.recipe.get(r.id));
  const tools = whole.flatMap((recipe) =>
    recipe.lines
      .filter((l) => (l.role === "tool" || l.role === "station") && own.has(l.any ?? l.item))
      .map((l) => ({ recipe, line: l })),
  );
  return {
    subject: items,
    with: recipes.map(recipeRef),
    message:
      items.length === 1
        ? `${names} can only be made with ${names} itself, so the first one can't be made.`
        : `${names} can only be made from each other, so the first one can't be made.`,
    evidence: { type: "circle", items, recipes: recipes.map(recipeRef) },
    fixes: [
      ...tools.slice(0, 2).map(({ recipe, line }) => ({
        message: `Remove the ${line.role} ${namedRef(catalogue, line).name} from ${recipe.name}`,
        do: "edit" as const,
        edits: [
          setLines(
            catalogue,
            "recipe",
            recipe.id,
            recipe.lines.filter((l) => l !== line),
          ),
        ],
      })),
      ...items
        .filter((i) => i.kind === "item")
        .slice(0, 2)
        .map((i) => ({ message: `Add a source for ${i.name}`, do: "source" as const, item: i.id })),
      ...recipes
        .slice(0, 1)
        .map((r) => ({ message: `Open ${r.name}`, do: "open" as const, kind: "recipe" as const, id: r.id })),
    ],
  };
}
