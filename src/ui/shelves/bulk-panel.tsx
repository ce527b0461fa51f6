"use client";
/** The same done to everything on the shelves as they are filtered: every value before and after, then one change. */
import { useMutation } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { nameOf } from "@/core/catalogue/catalogue";
import { ACTIONS, type Action, planBulk, reckons } from "@/core/editing/bulk";
import { sayMoved } from "@/core/history/say-moved";
import { definition, type Item } from "@/core/kinds/index";
import { count } from "@/core/numbers/format";
import { labelOf } from "../grid/field-columns";
import { Button } from "../kit/kit";
import { BeforeAndAfter, Over, Scrolled } from "../kit/over";
import { useLive, useStore } from "../pantry/provider";

/** Fields that make no sense for many at once. */
const ALONE = ["key", "name"];

export function BulkPanel({ items, onClose }: { readonly items: readonly Item[]; readonly onClose: () => void }) {
  const { catalogue } = useLive();
  const store = useStore();
  const [path, setPath] = useState("sell");
  const [action, setAction] = useState<Action>("raise by percent");
  const [typed, setTyped] = useState("");
  const [step, setStep] = useState("");
  const fields = useMemo(
    () => [
      ...Object.entries(definition("item").fields).flatMap(([name, field]) =>
        ALONE.includes(name) || field.parts ? [] : [{ path: name, label: labelOf(name, field) }],
      ),
      ...[...catalogue.records.stat.values()].map((stat) => ({ path: `stats.${stat.id}`, label: stat.name })),
    ],
    [catalogue.records.stat],
  );
  const ready = action === "clear" || typed.trim() !== "";
  const plan = useMemo(
    () =>
      ready ? planBulk(catalogue, "item", items, { path, action, typed, step: reckons(action) ? step : "" }) : null,
    [ready, catalogue, items, path, action, typed, step],
  );
  const edits = plan?.ok ? plan.edits : [];
  const moving = useMutation({ mutationFn: () => store.api.whatIf(edits) });
  const ask = (change: () => void) => {
    change();
    moving.reset();
  };
  const changed = plan?.ok ? plan.rows.filter((r) => r.says === null).length : 0;
  const refused = plan?.ok ? plan.rows.length - changed : 0;
  const write = async () => {
    const label = fields.find((f) => f.path === path)?.label ?? path;
    const note = `${label} of ${count(changed, "item")}: ${action}${action === "clear" ? "" : ` ${typed.trim()}`}`;
    const answer = await store.submit(edits, note.slice(0, 300));
    if (answer.ok) onClose();
  };
  return (
    <Over
      title={`Change ${count(items.length, "item")}`}
      onClose={onClose}
      head={
        <div className="flex flex-wrap items-center gap-2 pt-3">
          <select
            aria-label="What is changed"
            className="field w-44!"
            value={path}
            onChange={(e) => ask(() => setPath(e.target.value))}
          >
            {fields.map((f) => (
              <option key={f.path} value={f.path}>
                {f.label}
              </option>
            ))}
          </select>
          <select
            aria-label="How it is changed"
            className="field w-40!"
            value={action}
            onChange={(e) => ask(() => setAction(e.target.value as Action))}
          >
            {ACTIONS.map((a) => (
              <option key={a}>{a}</option>
            ))}
          </select>
          {action !== "clear" && (
            <input
              aria-label="By what, or to what"
              className="field w-32!"
              value={typed}
              onChange={(e) => ask(() => setTyped(e.target.value))}
            />
          )}
          {reckons(action) && (
            <label className="flex items-center gap-2 text-second">
              rounded to
              <input
                aria-label="Rounded to multiples of"
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
            Write {count(changed, "value")}
          </Button>
          <Button disabled={!changed || moving.isPending} onClick={() => moving.mutate()}>
            What would it move?
          </Button>
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
          <p role="status" className="basis-full text-second">
            {plan?.ok && (refused > 0 || plan.same > 0)
              ? [
                  refused > 0 && `${count(refused, "value")} can't be written and stay as they are`,
                  plan.same > 0 && `${count(plan.same, "item")} would stay the same`,
                ]
                  .filter(Boolean)
                  .join("; ")
              : ""}
            {moving.data && (
              <span className="block text-kelp">
                {moving.data.ok
                  ? sayMoved(
                      moving.data.value.ripple.moved,
                      (id) => nameOf(catalogue, "item", id),
                      "nothing else would move",
                    ).join(", ")
                  : moving.data.problem.detail}
              </span>
            )}
          </p>
        </>
      }
    >
      <Scrolled label="Before and after">
        {!plan && (
          <p className="py-3 text-second">Say by what or to what, and every value stands here before and after.</p>
        )}
        {plan && !plan.ok && (
          <p role="alert" className="py-3 text-beet">
            {plan.says}
          </p>
        )}
        {plan?.ok && plan.rows.length === 0 && <p className="py-3 text-second">Nothing would be another than it is.</p>}

        {plan?.ok && plan.rows.length > 0 && (
          <BeforeAndAfter
            what="Item"
            rows={plan.rows.map((row) => ({ ...row, id: row.record.id, name: row.record.name }))}
          />
        )}
      </Scrolled>
    </Over>
  );
}
