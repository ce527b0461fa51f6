/** Conditions: who applies and ends them, which contradict each other, and which of their changes go the wrong way. */
import { isCarried } from "../catalogue/carrying";
import { type Edit, setField } from "../catalogue/edit";
import { compiled } from "../formulas/compiled";
import { formulaOf } from "../formulas/field";
import { namesOf } from "../formulas/ranges";
import { list, sayQuantity } from "../numbers/format";
import type { Condition, Item, Use } from "../kinds/index";
import type { Catalogue } from "../catalogue/catalogue";
import type { Id } from "../schema/id";
import { type CheckContext, perRecord, ref } from "./check";
import { aboutUse, nameOfUse, openUse, perUse } from "./used";

/** Whether an edit may be about what is carried. */
const carries = (e: Edit): boolean =>
  (e.kind === "item" || e.kind === "type") &&
  (e.op === "set" ? e.field === "carrying" : (e.record as Item).carrying.length > 0);
const all = ({ catalogue }: CheckContext, _: unknown, edits: readonly Edit[]) =>
  edits.some((e) => e.kind === "use" || e.kind === "condition" || e.kind === "stat" || carries(e))
    ? catalogue.records.condition.keys()
    : [];

const applies = (use: Use, id: Id): boolean =>
  !use.off && use.effects.some(({ does }) => does.is === "apply" && does.condition === id);
const uses = (catalogue: Catalogue): Use[] => [...catalogue.records.use.values()];
const open = (condition: Condition) =>
  ({ message: `Open ${condition.name}`, do: "open", kind: "condition", id: condition.id }) as const;

/** A condition that lasts until it is cleared, which nothing does. */
export const conditionNeverEnds = perRecord<"condition">({
  id: "condition-never-ends",
  reads: [],
  per: ["condition"],
  also: all,
  *at({ catalogue }, condition) {
    if (condition.ticks !== null) return;
    const by = uses(catalogue).filter((u) =>
      u.effects.some(({ does }) => does.is === "apply" && does.condition === condition.id && does.ticks === null),
    );
    const clears = uses(catalogue).some(
      (u) =>
        !u.off &&
        u.effects.some(
          ({ does, chance }) =>
            chance > 0 &&
            ((does.is === "clear" && does.condition === condition.id) ||
              (does.is === "clear all" && does.nature === condition.nature)),
        ),
    );
    if (!by.length || clears) return;
    yield {
      subject: ref(catalogue, "condition", condition.id),
      with: by.slice(0, 20).map((u) => ref(catalogue, "use", u.id)),
      message: `${condition.name} lasts until it is cleared, but nothing clears it after ${list(by.map((u) => u.name))}.`,
      evidence: { type: "names", names: [condition.name] },
      fixes: [
        {
          message: "Set its duration to 30 seconds",
          do: "edit",
          edits: [setField(catalogue, "condition", condition.id, "ticks", 30 * catalogue.pantry.ticksPerSecond)],
        },
        open(condition),
      ],
    };
  },
});

/** A condition that nothing applies. */
export const conditionUnapplied = perRecord<"condition">({
  id: "condition-unapplied",
  reads: [],
  per: ["condition"],
  also: all,
  *at({ catalogue }, condition) {
    if (uses(catalogue).some((u) => applies(u, condition.id)) || isCarried(catalogue, condition.id)) return;
    yield {
      subject: ref(catalogue, "condition", condition.id),
      message: `${condition.name} is never applied: no use applies it, and no item causes it while carried.`,
      evidence: { type: "names", names: [condition.name] },
      fixes: [open(condition)],
    };
  },
});

/** A use whose conditions contradict each other: what it applies it clears, displaces, or forbids. */
export const oppositeConditions = perUse("opposite-conditions", function* ({ catalogue }, item, use) {
  const name = (id: Id) => catalogue.records.condition.get(id)?.name ?? id;
  const applied: Id[] = [];
  const wrong: { about: Id[]; message: string }[] = [];
  for (const id of use.having)
    if (use.without.includes(id))
      wrong.push({ about: [id], message: `requires ${name(id)} and is refused while it lasts` });
  for (const { does } of use.effects) {
    if (does.is === "clear" && applied.includes(does.condition))
      wrong.push({ about: [does.condition], message: `applies ${name(does.condition)} and then clears it` });
    if (does.is === "clear all")
      for (const id of applied)
        if (catalogue.records.condition.get(id)?.nature === does.nature)
          wrong.push({ about: [id], message: `applies ${name(id)} and then clears all ${does.nature} conditions` });
    if (does.is !== "apply") continue;
    const of = catalogue.records.condition.get(does.condition);
    for (const other of applied) {
      const beside = catalogue.records.condition.get(other);
      if (!of || !beside || of === beside) continue;
      if (of.exclusion !== null && of.exclusion === beside.exclusion)
        wrong.push({
          about: [other, of.id],
          message: `applies ${beside.name} and ${of.name}, but only one of them can be active`,
        });
      else if (cancels(of, beside))
        wrong.push({
          about: [other, of.id],
          message: `applies ${beside.name} and ${of.name}, which cancel each other out`,
        });
    }
    applied.push(does.condition);
  }
  for (const { about, message } of wrong)
    yield {
      subject: aboutUse(catalogue, item, use, ...about.map((id) => ref(catalogue, "condition", id))),
      message: `${nameOfUse(item, use)} ${message}.`,
      evidence: { type: "names" as const, names: about.map(name) },
      fixes: openUse(catalogue, item, use),
    };
});

/** Each adds to some stat what the other takes. */
function cancels(a: Condition, b: Condition): boolean {
  const adds = (of: Condition) => of.changes.filter((c) => c.how === "add");
  return adds(a).some((x) =>
    adds(b).some(
      (y) => x.stat === y.stat && constant(x.by) !== null && constant(x.by) === -(constant(y.by) ?? Number.NaN),
    ),
  );
}

/** The number that a formula is whatever its names are; null where it hangs on them. */
function constant(kept: string | null): number | null {
  const tree = kept === null ? null : formulaOf(kept, "bearer");
  return tree && !namesOf(tree).size ? compiled(tree, () => 0)([]) : null;
}

/** A change of a good condition that makes a stat worse, or of a bad one that makes it better. */
export const againstBetter = perRecord<"condition">({
  id: "against-better",
  reads: [],
  per: ["condition"],
  also: all,
  *at({ catalogue }, condition) {
    if (condition.nature === "neither") return;
    for (const { stat: id, how, by } of condition.changes) {
      const stat = catalogue.records.stat.get(id);
      const value = constant(by);
      if (!stat || stat.better === "neither" || value === null || how === "set") continue;
      const more = how === "add" ? Math.sign(value) : Math.sign(value - 1);
      const better = more === 0 ? 0 : more > 0 === (stat.better === "higher") ? 1 : -1;
      if (better === 0 || better > 0 === (condition.nature === "good")) continue;
      const change =
        how === "add" ? `${value > 0 ? "+" : "−"}${sayQuantity(Math.abs(value))}` : `×${sayQuantity(value)}`;
      yield {
        subject: [ref(catalogue, "condition", condition.id), ref(catalogue, "stat", id)],
        message: `${condition.name} is ${condition.nature}, but changes ${stat.name} by ${change}, where ${stat.better} is better.`,
        evidence: { type: "amounts", unit: stat.unit, rows: [{ label: `${stat.name} ${how}`, value }] },
        fixes: [
          open(condition),
          { message: `Open ${stat.name} and choose which direction is better`, do: "open", kind: "stat", id },
          {
            message: `Mark ${condition.name} as ${condition.nature === "good" ? "bad" : "good"}`,
            do: "edit",
            edits: [
              setField(catalogue, "condition", condition.id, "nature", condition.nature === "good" ? "bad" : "good"),
            ],
          },
        ],
      };
    }
  },
});
