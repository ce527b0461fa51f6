"use client";
/** The same done to everything on the shelves as they are filtered: every value before and after, then one change. */
import { useMutation } from "@tanstack/react-query";
import { Dialog } from "radix-ui";
import { useMemo, useState } from "react";
import { nameOf } from "@/core/catalogue/catalogue";
import { ACTIONS, type Action, planBulk, reckons } from "@/core/editing/bulk";
import { sayMoved } from "@/core/history/say-moved";
import { definition, type Item } from "@/core/kinds/index";
import { count } from "@/core/numbers/format";
import { labelOf } from "../grid/field-columns";
import { Button } from "../kit/kit";
import { useLive, useStore } from "../pantry/provider";

/** Fields that make no sense for many at once. */
const ALONE = ["key", "name"];
/** Rows of the preview that are shown; all are written. */
const SHOWN = 300;

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
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[#0d303855]" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-[8vh] left-1/2 z-50 flex max-h-[84vh] w-[680px] -translate-x-1/2 flex-col rounded-sm border border-line bg-salt shadow-2xl"
        >
          <div className="border-b border-hair px-5 pt-4 pb-3">
            <Dialog.Title className="text-[17px]">Change {count(items.length, "item")}</Dialog.Title>
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
          </div>
          {/** biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element */}
          <div
            // biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard
            tabIndex={0}
            role="region"
            aria-label="Before and after"
            className="min-h-32 flex-1 overflow-auto px-5 py-2"
          >
            {!plan && (
              <p className="py-3 text-second">Say by what or to what, and every value stands here before and after.</p>
            )}
            {plan && !plan.ok && (
              <p role="alert" className="py-3 text-beet">
                {plan.says}
              </p>
            )}
            {plan?.ok && plan.rows.length === 0 && (
              <p className="py-3 text-second">Nothing would be another than it is.</p>
            )}
            {plan?.ok && plan.rows.length > 0 && (
              <table className="w-full">
                <thead>
                  <tr className="text-left">
                    <th className="head py-1">Item</th>
                    <th className="head w-28 text-right">Before</th>
                    <th className="head w-28 text-right">After</th>
                  </tr>
                </thead>
                <tbody>
                  {plan.rows.slice(0, SHOWN).map((row) => (
                    <tr key={row.record.id} className="border-t border-hair">
                      <td className="py-1 font-semibold">{row.record.name}</td>
                      <td className="text-right text-second">{row.before || "–"}</td>
                      {row.says ? (
                        <td className="max-w-56 pl-4 text-right text-beet">{row.says}</td>
                      ) : (
                        <td className="text-right font-semibold">{row.after || "–"}</td>
                      )}
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
            {plan?.ok && plan.rows.length > SHOWN && (
              <p className="py-2 text-second">and {plan.rows.length - SHOWN} more</p>
            )}
          </div>
          <div className="flex flex-wrap items-center gap-2 border-t border-line px-5 py-3">
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
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
