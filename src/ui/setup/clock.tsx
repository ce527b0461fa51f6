"use client";
/** The game's clock: changed together with every duration, so that each stays as many seconds as it is. */
import { useMemo, useState } from "react";
import { planTicks } from "@/core/editing/ticks";
import { definition } from "@/core/kinds/index";
import { count } from "@/core/numbers/format";
import { typedNumber } from "@/core/numbers/typed";
import { Button } from "../kit/kit";
import { DialogFrame, Scrolled } from "../kit/dialog-frame";
import { useLive, useStore } from "../pantry/provider";

export function ClockButton() {
  const { catalogue } = useLive();
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button aria-label="Change ticks per second" onClick={() => setOpen(true)}>
        {catalogue.pantry.ticksPerSecond}
      </Button>
      {open && <Clock onClose={() => setOpen(false)} />}
    </>
  );
}

function Clock({ onClose }: { readonly onClose: () => void }) {
  const { catalogue } = useLive();
  const store = useStore();
  const [typed, setTyped] = useState(String(catalogue.pantry.ticksPerSecond));
  const [keep, setKeep] = useState(true);
  const read = typedNumber(typed, { format: catalogue.numbers });
  const wanted = "value" in read ? read.value : null;
  let message: string | null = "message" in read ? read.message : null;
  definition("pantry").fields.ticksPerSecond.check(wanted, {
    has: () => false,
    fault: (_, why) => {
      message ??= why;
    },
  });
  const plan = useMemo(
    () => (message === null && wanted !== null ? planTicks(catalogue, wanted) : null),
    [catalogue, wanted, message],
  );
  const rounded = plan?.rows.filter((r) => !r.whole) ?? [];
  const write = async () => {
    if (!plan) return;
    const answer = await store.submit(keep ? plan.edits : plan.edits.slice(0, 1));
    if (answer.ok) onClose();
  };
  return (
    <DialogFrame
      title="Ticks per second"
      description="Durations are stored in ticks. To keep their seconds, each is converted and, if needed, rounded to whole ticks."
      onClose={onClose}
      head={
        <div className="flex items-center gap-4 pt-3">
          <input
            aria-label="Ticks per second"
            className="field w-20! text-right"
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
          />
          <label className="flex items-center gap-2">
            <input type="checkbox" checked={keep} onChange={(e) => setKeep(e.target.checked)} />
            keep durations in seconds
          </label>
        </div>
      }
      foot={
        <>
          <Button
            look="solid"
            disabled={!plan || wanted === catalogue.pantry.ticksPerSecond}
            onClick={() => void write()}
          >
            Change
          </Button>
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
          <p role="status" className="text-second">
            {keep &&
              plan &&
              `${count(plan.rows.length, "duration")} converted, ${rounded.length} of them rounded to whole ticks`}
          </p>
        </>
      }
    >
      <Scrolled label="Rounded durations">
        {message && (
          <p role="alert" className="text-beet">
            {message}
          </p>
        )}
        {plan && keep && rounded.length === 0 && <p className="text-second">No rounding is needed.</p>}
        {keep && rounded.length > 0 && (
          <table className="w-full">
            <thead>
              <tr className="text-left">
                <th className="head py-1">Record</th>
                <th className="head">What</th>
                <th className="head text-right">Before</th>
                <th className="head text-right">After</th>
              </tr>
            </thead>
            <tbody>
              {rounded.slice(0, 300).map((row) => (
                <tr key={`${row.record.id} ${row.what}`} className="border-t border-hair">
                  <td className="py-1 font-semibold">{row.record.name}</td>
                  <td>{row.what}</td>
                  <td className="text-right text-second">{row.before}</td>
                  <td className="text-right font-semibold">{row.after}</td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </Scrolled>
    </DialogFrame>
  );
}
