"use client";
/** An item gets another type, or a type another parent: what changes for every item is shown before it is written. */
import { type ReactNode, useState } from "react";
import type { Edit } from "@/core/catalogue/edit";
import { type MovePlan, planMove } from "@/core/editing/move";
import { count } from "@/core/numbers/format";
import { Button } from "../kit/kit";
import { DialogFrame, Scrolled } from "../kit/dialog-frame";
import { useStore } from "../pantry/provider";

interface Asked {
  readonly edits: readonly Edit[];
  readonly plan: MovePlan;
}
const SAYS = { inherits: "inherits", "not taken": "not available there", required: "required" } as const;

/**
 * Writes at once what changes nothing else, and asks about the rest.
 * @returns what asks (to be drawn), and the function that writes; it resolves to why something was refused
 */
export function useMove(): { readonly asking: ReactNode; write(edits: readonly Edit[]): Promise<string | null> } {
  const store = useStore();
  const [asked, setAsked] = useState<Asked | null>(null);
  const write = async (edits: readonly Edit[]): Promise<string | null> => {
    const { state } = store.snapshot();
    const plan = state && planMove(state.catalogue, edits);
    if (plan?.rows.length) {
      setAsked({ edits, plan });
      return null;
    }
    const answer = await store.submit(edits);
    return answer.ok ? null : answer.message;
  };
  return { write, asking: asked && <Ask {...asked} onClose={() => setAsked(null)} /> };
}

function Ask({ edits, plan, onClose }: Asked & { readonly onClose: () => void }) {
  const store = useStore();
  const send = async (more: readonly Edit[]) => {
    const answer = await store.submit([...edits, ...more]);
    if (answer.ok) onClose();
  };
  const items = new Set(plan.rows.map((r) => r.item.id)).size;
  return (
    <DialogFrame
      title={`What changes for ${count(items, "item")}`}
      description="Their own values stay unless you remove them. One undo restores everything."
      onClose={onClose}
      foot={
        <>
          <Button autoFocus look="solid" onClick={() => void send([])}>
            Move {items > 1 ? "them" : "it"}
          </Button>
          {plan.takeOff.length > 0 && (
            <Button onClick={() => void send(plan.takeOff)}>
              Move and remove {count(plan.takeOff.length, "value")} not available there
            </Button>
          )}
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
          {plan.unseen > 0 && <p className="text-second">{plan.unseen} more items were not checked.</p>}
        </>
      }
    >
      <Scrolled label="What changes">
        <table className="w-full">
          <thead>
            <tr className="text-left">
              <th className="head py-1">Item</th>
              <th className="head">What</th>
              <th className="head text-right">Before</th>
              <th className="head text-right">After</th>
              <th className="head pl-4" />
            </tr>
          </thead>
          <tbody>
            {plan.rows.slice(0, 300).map((row) => (
              <tr key={`${row.item.id} ${row.what}`} className="border-t border-hair">
                <td className="py-1 font-semibold">{row.item.name}</td>
                <td>{row.what}</td>
                <td className="text-right text-second">{row.before || "–"}</td>
                <td className="text-right font-semibold">{row.after || "–"}</td>
                <td className={row.is === "inherits" ? "pl-4 text-second" : "pl-4 text-copper"}>{SAYS[row.is]}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {plan.rows.length > 300 && <p className="py-1 text-second">and {plan.rows.length - 300} more</p>}
      </Scrolled>
    </DialogFrame>
  );
}
