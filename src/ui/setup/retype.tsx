"use client";
/** A field becomes another: what each of its values would be, or why it would be lost, before anything is written. */
import { useMemo, useState } from "react";
import { planRetype } from "@/core/editing/retype";
import type { OwnField } from "@/core/kinds/index";
import { FORMS, HOLDERS, LINKABLE } from "@/core/kinds/field";
import { count } from "@/core/numbers/format";
import { Button } from "../kit/kit";
import { BeforeAndAfter, DialogFrame, Scrolled } from "../kit/dialog-frame";
import { useLive, useStore } from "../pantry/provider";

export function RetypeButton({ field }: { readonly field: OwnField }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button onClick={() => setOpen(true)}>Change form</Button>
      {open && <Retype field={field} onClose={() => setOpen(false)} />}
    </>
  );
}

function Retype({ field, onClose }: { readonly field: OwnField; readonly onClose: () => void }) {
  const { catalogue } = useLive();
  const store = useStore();
  const [form, setForm] = useState(field.form);
  const [of, setOf] = useState(field.of);
  const [to, setTo] = useState(field.to);
  const [round, setRound] = useState(true);
  const [widen, setWiden] = useState(true);
  const plan = useMemo(
    () => planRetype(catalogue, field, { form, of, to }, { round, widen }),
    [catalogue, field, form, of, to, round, widen],
  );
  const links = form === "link" || form === "links";
  const write = async () => {
    const answer = await store.submit(plan.edits, `${field.name} is now ${form}`);
    if (answer.ok) onClose();
  };
  return (
    <DialogFrame
      title={`Form of ${field.name}`}
      description="Below is each value after the change. Values that can't be converted are removed. One undo restores everything."
      alert
      onClose={onClose}
      head={
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2 pt-3">
          <Choice label="Form" value={form} of={FORMS} onChange={setForm} />
          {links && <Choice label="Links to" value={to} of={LINKABLE} onChange={setTo} />}
          <Choice label="Belongs to" value={of} of={HOLDERS} onChange={setOf} />
          {(form === "whole" || form === "duration") && (
            <Tick label="Round to whole numbers" value={round} onChange={setRound} />
          )}
          {form === "choice" && <Tick label="Words become options" value={widen} onChange={setWiden} />}
        </div>
      }
      foot={
        <>
          <Button look="solid" disabled={!plan.edits.length} onClick={() => void write()}>
            {plan.lost ? `Change and lose ${count(plan.lost, "value")}` : "Change"}
          </Button>
          <p role="status" className="text-second">
            {count(plan.rows.length - plan.lost, "value")} kept{plan.lost > 0 && `, ${plan.lost} lost`}
            {plan.made > 0 && `; ${count(plan.made, "stub")} created for new names`}
          </p>
        </>
      }
    >
      <Scrolled label="Values before and after">
        {plan.rows.length === 0 ? (
          <p className="py-3 text-second">No record has a value yet, so nothing can be lost.</p>
        ) : (
          <BeforeAndAfter
            what="Record"
            rows={[...plan.rows]
              .sort((a, b) => Number(a.message === null) - Number(b.message === null))
              .map((row) => ({ ...row, id: row.record.id, name: row.record.name }))}
          />
        )}
      </Scrolled>
    </DialogFrame>
  );
}

function Choice<T extends string>({
  label,
  value,
  of,
  onChange,
}: {
  readonly label: string;
  readonly value: T;
  readonly of: readonly T[];
  readonly onChange: (value: T) => void;
}) {
  return (
    <label className="flex items-center gap-2 text-second">
      {label}
      <select className="field w-32!" value={value} onChange={(e) => onChange(e.target.value as T)}>
        {of.map((word) => (
          <option key={word}>{word}</option>
        ))}
      </select>
    </label>
  );
}

function Tick({
  label,
  value,
  onChange,
}: {
  readonly label: string;
  readonly value: boolean;
  readonly onChange: (value: boolean) => void;
}) {
  return (
    <label className="flex items-center gap-2">
      <input type="checkbox" checked={value} onChange={(e) => onChange(e.target.checked)} />
      {label}
    </label>
  );
}
