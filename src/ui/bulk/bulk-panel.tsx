"use client";
/** The same done to many records at once: every value before and after, then one change. */
import { useId, useMemo, useState } from "react";
import { fieldsOfKind } from "@/core/catalogue/fields";
import { around } from "@/core/catalogue/surroundings";
import type { Id } from "@/core/schema/id";
import { fieldAt, pathOf } from "@/core/schema/record";
import { planBulk } from "@/core/editing/bulk";
import { type Action, actionOf, type BulkAction, fitting } from "@/core/editing/bulk-actions";
import { numberColumns } from "@/core/editing/number-columns";
import { definition, type RecordOf } from "@/core/kinds/index";
import { count } from "@/core/numbers/format";
import { labelOf } from "../grid/field-columns";
import { figuresOf, useLive, useStore } from "../pantry/provider";
import { ImpactButton, ImpactWords, useImpact } from "./impact";
import { Button } from "../kit/kit";
import { BeforeAndAfter, DialogFrame, Scrolled } from "../kit/dialog-frame";

/** Fields that make no sense for many at once. */
const ALONE: { readonly [K in BulkKind]: readonly string[] } = {
  item: ["key", "name"],
  recipe: ["key", "name", "kind", "grid", "variants", "tables"],
};
type BulkKind = "item" | "recipe";
/** What stands there when the panel opens. */
const FIRST: { readonly [K in BulkKind]: readonly [path: string, action: Action] } = {
  item: ["sell", "raise by percent"],
  recipe: ["lines", "multiply what comes out by"],
};

export function BulkPanel<K extends BulkKind>({
  kind,
  records,
  onClose,
}: {
  readonly kind: K;
  readonly records: readonly RecordOf<K>[];
  readonly onClose: () => void;
}) {
  const { catalogue, model } = useLive();
  const store = useStore();
  const offersId = useId();
  const [path, setPath] = useState(FIRST[kind][0]);
  const [action, setAction] = useState<Action>(FIRST[kind][1]);
  const [typed, setTyped] = useState("");
  const [other, setOther] = useState("");
  const [step, setStep] = useState("");
  const fields = useMemo(
    () => [
      ...Object.entries(definition(kind).fields).flatMap(([name, field]) =>
        ALONE[kind].includes(name) || field.parts ? [] : [{ path: name, label: labelOf(name, field) }],
      ),
      ...(kind === "item" ? [...catalogue.records.stat.values()] : []).map((stat) => ({
        path: `stats.${stat.id}`,
        label: stat.name,
      })),
      ...fieldsOfKind(catalogue, kind).map((field) => ({ path: `own.${field.id}`, label: field.name })),
    ],
    [catalogue, kind],
  );
  const here = around(catalogue);
  const at = pathOf(definition(kind), path);
  const field = at && fieldAt(at, here);
  const actions = field ? fitting(field) : [];
  const { asks, rounds } = actionOf(action) as BulkAction;
  const ready = asks === "nothing" || (typed.trim() !== "" && (asks !== "items" || other.trim() !== ""));
  const readings = useMemo(
    () =>
      new Map<string, (r: { readonly id: Id }) => number | null>(
        kind === "item"
          ? [
              ["cost", (r) => figuresOf(model, r.id).value],
              ["time", (r) => figuresOf(model, r.id).time],
            ]
          : [],
      ),
    [model, kind],
  );
  const plan = useMemo(
    () =>
      ready
        ? planBulk(catalogue, kind, records, { path, action, typed, other, step: rounds ? step : "" }, readings)
        : null,
    [ready, catalogue, kind, records, path, action, typed, other, step, rounds, readings],
  );
  const choosePath = (next: string) => {
    const to = pathOf(definition(kind), next);
    setPath(next);
    // What can't be done to the other column gives way to what can be done to any.
    const able = to ? fitting(fieldAt(to, here)) : [];
    if (to && !able.includes(action)) setAction(able.includes(FIRST.recipe[1]) ? FIRST.recipe[1] : "set to");
  };
  const goods = useMemo(
    () =>
      kind === "recipe"
        ? [
            ...[...catalogue.records.item.values()].map((i) => i.name),
            ...[...catalogue.records.tag.values()].map((t) => `any ${t.name}`),
          ]
        : [],
    [catalogue, kind],
  );
  const edits = plan?.ok ? plan.edits : [];
  const moving = useImpact(edits);
  const ask = (change: () => void) => {
    change();
    moving.reset();
  };
  const changed = plan?.ok ? plan.rows.filter((r) => r.message === null).length : 0;
  const refused = plan?.ok ? plan.rows.length - changed : 0;
  const write = async () => {
    const label = fields.find((f) => f.path === path)?.label ?? path;
    const note = `${label} of ${count(changed, kind)}: ${action}${action === "clear" ? "" : ` ${typed.trim()}`}${asks === "items" ? ` → ${other.trim()}` : ""}`;
    const answer = await store.submit(edits, note.slice(0, 300));
    if (answer.ok) onClose();
  };
  return (
    <DialogFrame
      title={`Edit ${count(records.length, kind)}`}
      onClose={onClose}
      head={
        <div className="flex flex-wrap items-center gap-2 pt-3">
          <select
            aria-label="Field"
            className="field w-44!"
            value={path}
            onChange={(e) => ask(() => choosePath(e.target.value))}
          >
            {fields.map((f) => (
              <option key={f.path} value={f.path}>
                {f.label}
              </option>
            ))}
          </select>
          <select
            aria-label="Action"
            className="field w-auto!"
            value={action}
            onChange={(e) => ask(() => setAction(e.target.value as Action))}
          >
            {actions.map((a) => (
              <option key={a}>{a}</option>
            ))}
          </select>
          {asks === "column" && (
            <select
              aria-label="Column to copy"
              className="field w-44!"
              value={typed}
              onChange={(e) => ask(() => setTyped(e.target.value))}
            >
              <option value="">Choose a column</option>
              {fields
                .filter((f) => f.path !== path)
                .map((f) => (
                  <option key={f.path} value={f.path}>
                    {f.label}
                  </option>
                ))}
            </select>
          )}
          {asks !== "nothing" && asks !== "column" && (
            <input
              aria-label="Value"
              className={asks === "formula" ? "field w-64!" : "field w-32!"}
              placeholder={asks === "formula" ? "cost * 1.3" : undefined}
              list={asks === "names" || asks === "value" || asks === "items" ? offersId : undefined}
              value={typed}
              onChange={(e) => ask(() => setTyped(e.target.value))}
            />
          )}
          <datalist id={offersId}>
            {(asks === "items" ? goods : [...(field?.completions?.(here) ?? [])].slice(0, 200)).map((name) => (
              <option key={name} value={name} />
            ))}
          </datalist>
          {(asks === "texts" || asks === "items") && (
            <label className="flex items-center gap-2 text-second">
              {asks === "items" ? "for" : "with"}
              <input
                aria-label="Replacement"
                className="field w-40!"
                list={asks === "items" ? offersId : undefined}
                value={other}
                onChange={(e) => ask(() => setOther(e.target.value))}
              />
            </label>
          )}
          {asks === "formula" && (
            <p className="basis-full text-[12px] text-second">
              May use {[...readings.keys(), ...numberColumns(catalogue, kind).keys()].slice(0, 12).join(", ")}, … and
              if, min, max, round, clamp.
            </p>
          )}
          {rounds && (
            <label className="flex items-center gap-2 text-second">
              rounded to
              <input
                aria-label="Round to multiples of"
                className="field w-16! text-right"
                placeholder="–"
                value={step}
                onChange={(e) => ask(() => setStep(e.target.value))}
              />
            </label>
          )}
        </div>
      }
      foot={
        <>
          {" "}
          <Button look="solid" disabled={!changed} onClick={() => void write()}>
            Save {count(changed, "value")}
          </Button>
          <ImpactButton impact={moving} disabled={!changed} />
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
          <p role="status" className="basis-full text-second">
            {plan?.ok && (refused > 0 || plan.same > 0)
              ? [
                  refused > 0 && `${count(refused, "value")} can't be changed and stay as they are`,
                  plan.same > 0 && `${count(plan.same, kind)} would not change`,
                ]
                  .filter(Boolean)
                  .join("; ")
              : ""}
            <ImpactWords impact={moving} />
          </p>
        </>
      }
    >
      <Scrolled label="Before and after">
        {!plan && <p className="py-3 text-second">Enter a value to preview every change.</p>}
        {plan && !plan.ok && (
          <p role="alert" className="py-3 text-beet">
            {plan.message}
          </p>
        )}
        {plan?.ok && plan.rows.length === 0 && <p className="py-3 text-second">Nothing would change.</p>}

        {plan?.ok && plan.rows.length > 0 && (
          <BeforeAndAfter
            what={kind === "item" ? "Item" : "Recipe"}
            long={path === "lines"}
            rows={plan.rows.map((row) => ({ ...row, id: row.record.id, name: row.record.name }))}
          />
        )}
      </Scrolled>
    </DialogFrame>
  );
}
