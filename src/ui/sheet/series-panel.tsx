"use client";
/** A series of items made of one: its rules on top, every step as it would be below, then one change. */
import { Plus, X } from "lucide-react";
import { useId, useMemo, useState } from "react";
import { fieldsOfKind } from "@/core/catalogue/fields";
import { newSeries, pathOfRule, planSeries, type SeriesRule } from "@/core/editing/series";
import type { Series } from "@/core/editing/series-of";
import { definition, type Item } from "@/core/kinds/index";
import { MOST_STEPS, SERIES_RULES } from "@/core/kinds/series";
import { count } from "@/core/numbers/format";
import type { Id } from "@/core/schema/id";
import { typedNumber } from "@/core/numbers/typed";
import { MOST } from "@/core/schema/limits";
import { NumberInput } from "../forms/field-input";
import { labelOf } from "../grid/field-columns";
import { Button, cx } from "../kit/kit";
import { DialogFrame, Scrolled } from "../kit/dialog-frame";
import { useLive, useStore } from "../pantry/provider";

/** What a rule may be about, by path. */
const FIELDS = Object.entries(definition("item").fields).filter(
  ([name, { parts, depth }]) => !parts && depth === 0 && !["key", "name"].includes(name),
);
const STEP = { min: 0, max: MOST } as const;
const SAYS: { readonly [how in SeriesRule["how"]]: string } = {
  add: "grows by",
  multiply: "is multiplied by",
  list: "is each of",
  formula: "is computed as",
};

export function SeriesPanel({
  item,
  there,
  onClose,
}: {
  readonly item: Item;
  readonly there: Series | undefined;
  readonly onClose: () => void;
}) {
  const { catalogue } = useLive();
  const store = useStore();
  const id = useId();
  const [series, setSeries] = useState<Series>(
    () => there ?? { ...newSeries(catalogue, item), rules: startingRules(item) },
  );
  const [steps, setSteps] = useState(String(there?.steps.length || 4));
  const read = typedNumber(steps, { format: catalogue.numbers });
  const amount = "value" in read && Number.isInteger(read.value) ? read.value : 0;
  const fits = amount >= 1 && amount <= MOST_STEPS;
  const plan = useMemo(() => planSeries(catalogue, series, fits ? amount : 0), [catalogue, series, amount, fits]);
  const choices = [
    ...FIELDS.map(([name, field]) => ({ path: name, label: labelOf(name, field) })),
    ...[...catalogue.records.stat.values()].map((s) => ({ path: `stats.${s.id}`, label: s.name })),
    ...fieldsOfKind(catalogue, "item").map((f) => ({ path: `own.${f.id}`, label: f.name })),
  ];
  const set = (given: Partial<Series>) => setSeries({ ...series, ...given });
  const setRule = (at: number, given: Partial<SeriesRule>) =>
    set({ rules: series.rules.map((rule, k) => (k === at ? { ...rule, ...given } : rule)) });
  const write = async () => {
    const answer = await store.submit(plan.edits, `${series.name}: ${count(plan.steps.length, "step")}`.slice(0, 300));
    if (answer.ok) onClose();
  };
  const labels = [...new Set(plan.steps.flatMap((s) => s.cells.map((c) => c.label)))];
  const faulty = plan.messages.length > 0 || plan.steps.some((s) => s.messages.length);
  return (
    <DialogFrame
      width="wide"
      title={there ? series.name : `A series of ${item.name}`}
      description="Each step is created from the first item by these rules. Existing items change only where they differ."
      onClose={onClose}
      head={
        <div className="flex flex-col gap-2 pt-3">
          <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
            <label className="flex items-center gap-2 text-second">
              Steps after the first
              <input
                aria-label="Steps after the first"
                className="field w-14! text-right"
                value={steps}
                onChange={(e) => setSteps(e.target.value)}
              />
            </label>
            {there && <Button onClick={() => setSteps(String(amount + 1))}>Add a step</Button>}
            <label className="flex items-center gap-2 text-second">
              Names
              <input
                aria-label="Name pattern"
                className="field w-52!"
                value={series.names}
                onChange={(e) => set({ names: e.target.value })}
              />
            </label>
            {series.names.toLowerCase().includes("{word}") && (
              <input
                aria-label="Words, separated by commas"
                placeholder="Keen, Grim, Storm-proof"
                className="field w-64!"
                defaultValue={series.words.join(", ")}
                onChange={(e) =>
                  set({
                    words: e.target.value
                      .split(/[,;]/)
                      .map((w) => w.trim())
                      .filter(Boolean),
                  })
                }
              />
            )}
            <span className="text-[12px] text-second">
              {"{name}, {n}, {roman}, {word}"}
              {catalogue.records.wordlist.size > 0 &&
                `, ${[...catalogue.records.wordlist.values()].map((w) => `{${w.name}}`).join(", ")}`}
            </span>
          </div>
          {series.rules.map((rule, k) => (
            <div key={k} className="flex flex-wrap items-center gap-2">
              <select
                aria-label={`Rule ${k + 1}: field`}
                className="field w-44!"
                value={pathOfRule(rule)}
                onChange={(e) => setRule(k, ruleFor(e.target.value))}
              >
                {choices.map((c) => (
                  <option key={c.path} value={c.path}>
                    {c.label}
                  </option>
                ))}
              </select>
              <select
                aria-label={`Rule ${k + 1}: how`}
                className="field w-36!"
                value={rule.how}
                onChange={(e) => setRule(k, { how: e.target.value as SeriesRule["how"] })}
              >
                {SERIES_RULES.map((how) => (
                  <option key={how} value={how}>
                    {SAYS[how]}
                  </option>
                ))}
              </select>
              <input
                aria-label={`Rule ${k + 1}: by`}
                className={rule.how === "formula" || rule.how === "list" ? "field w-64!" : "field w-24!"}
                placeholder={rule.how === "formula" ? "before * 1.2 + step" : rule.how === "list" ? "12; 16; 22" : "2"}
                value={rule.by}
                onChange={(e) => setRule(k, { by: e.target.value })}
              />
              {rule.how !== "list" && (
                <span className="flex items-center gap-2 text-second">
                  rounded to
                  <span className="w-16">
                    <NumberInput
                      narrow
                      label={`Rule ${k + 1}: rounded to`}
                      placeholder="–"
                      value={rule.round}
                      rules={STEP}
                      empty={null}
                      onDone={(round) => setRule(k, { round })}
                    />
                  </span>
                </span>
              )}
              <Button
                look="quiet"
                className="px-1!"
                aria-label={`Remove rule ${k + 1}`}
                onClick={() => set({ rules: series.rules.filter((_, at) => at !== k) })}
              >
                <X size={14} aria-hidden />
              </Button>
            </div>
          ))}
          <div className="flex flex-wrap items-center gap-3">
            <Button
              onClick={() => set({ rules: [...series.rules, { ...ruleFor("sell"), how: "add", by: "", round: null }] })}
            >
              <Plus size={14} aria-hidden /> Add a rule
            </Button>
            <label htmlFor={`${id}-recipe`} className="text-second">
              Recipe for each step
            </label>
            <input
              id={`${id}-recipe`}
              className="field w-[440px]!"
              placeholder="1 {before} + {n} Tar -> 1 {this} in 60s"
              value={series.recipe}
              onChange={(e) => set({ recipe: e.target.value })}
            />
          </div>
        </div>
      }
      foot={
        <>
          <Button look="solid" disabled={!plan.edits.length || faulty} onClick={() => void write()}>
            Save {count(plan.steps.length, "step")}
          </Button>
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
          <p role="status" className="text-second">
            {!fits ? `From 1 to ${MOST_STEPS} steps.` : !plan.edits.length && !faulty ? "Nothing would change." : ""}
          </p>
        </>
      }
    >
      <Scrolled label="Steps">
        {plan.messages.map((message) => (
          <p key={message} role="alert" className="text-beet">
            {message}
          </p>
        ))}
        {plan.steps.length > 0 && (
          <table className="w-full">
            <thead>
              <tr className="text-left">
                <th className="head py-1">Step</th>
                <th className="head">Item</th>
                {labels.map((label) => (
                  <th key={label} className="head text-right">
                    {label}
                  </th>
                ))}
                <th className="head pl-4">Recipe</th>
              </tr>
            </thead>
            <tbody>
              {plan.steps.map((step) => (
                <tr key={step.n} className="border-t border-hair align-baseline">
                  <td className="py-1 text-third">{step.n}</td>
                  <td className={cx("font-semibold", !step.there && "text-kelp")}>
                    {step.name}
                    {step.messages.map((message) => (
                      <span key={message} className="block font-normal text-beet">
                        {message}
                      </span>
                    ))}
                  </td>
                  {labels.map((label) => {
                    const cell = step.cells.find((c) => c.label === label);
                    return (
                      <td key={label} className="text-right">
                        {cell && step.there && cell.before !== cell.after && (
                          <s className="pr-1 text-third">{cell.before || "–"}</s>
                        )}
                        {cell?.after}
                      </td>
                    );
                  })}
                  <td className="pl-4 text-second">{step.recipe?.after}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </Scrolled>
    </DialogFrame>
  );
}

function ruleFor(path: string): Pick<SeriesRule, "field" | "stat" | "own"> {
  const [name, id] = path.split(".");
  return {
    field: id ? "" : path,
    stat: name === "stats" && id ? (id as Id) : null,
    own: name === "own" && id ? (id as Id) : null,
  };
}

/** What most series change: the price, the level, and each stat that the item says. */
function startingRules(item: Item): SeriesRule[] {
  const paths = [
    ...(item.sell === null ? [] : ["sell"]),
    ...(item.level === null ? [] : ["level"]),
    ...Object.keys(item.stats).map((id) => `stats.${id}`),
  ];
  return paths.map((path) => ({
    ...ruleFor(path),
    how: path === "level" ? "add" : "multiply",
    by: path === "level" ? "2" : "1.4",
    round: path === "level" ? null : 1,
  }));
}
