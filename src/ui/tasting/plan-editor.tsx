"use client";
/** One use of a plan: which use of an item, and when. */
import { X } from "lucide-react";
import { useState } from "react";
import { sharedWait } from "@/core/cards/use-words";
import { byKey } from "@/core/catalogue/keys";
import { usesOf } from "@/core/catalogue/uses";
import { Jar } from "../kit/jars";
import { Button } from "../kit/kit";
import { useLive } from "../pantry/provider";
import { usePlaces } from "../frame/navigate";
import { type PlanRow, RULES } from "./plans";

export function PlanEditor({
  row,
  wrong,
  onRow,
}: {
  readonly row: PlanRow;
  readonly wrong: string | null;
  readonly onRow: (row: PlanRow | null) => void;
}) {
  const { catalogue } = useLive();
  const places = usePlaces();
  const item = byKey(catalogue, "item", row.item);
  const uses = item ? usesOf(catalogue, item) : [];
  const chosen = uses.find((u) => u.use.key === row.use) ?? uses[0];
  const shared = chosen ? sharedWait(catalogue, chosen) : null;
  const [typed, setTyped] = useState<string | null>(null);
  const done = () => {
    if (typed !== null && typed !== row.value) onRow({ ...row, value: typed });
    setTyped(null);
  };
  const hints = { every: "30s", at: "0s 30s 1m", whenever: "Vigour < 30", "as soon as ready": "" };
  return (
    <div className="border-l-2 border-kelp pl-2">
      <div className="flex items-center gap-1.5">
        {item ? <Jar id={item.id} onOpen={places.openItem} /> : <span className="text-beet">{row.item}</span>}
        {uses.length > 1 && (
          <select
            aria-label="Which use"
            className="field w-auto!"
            value={row.use}
            onChange={(e) => onRow({ ...row, use: e.target.value })}
          >
            <option value="">{uses[0].name}</option>
            {uses.slice(1).map((u) => (
              <option key={u.use.id} value={u.use.key}>
                {u.name}
              </option>
            ))}
          </select>
        )}
        <Button look="quiet" className="ml-auto px-1.5!" aria-label="Remove from the plan" onClick={() => onRow(null)}>
          <X size={14} aria-hidden />
        </Button>
      </div>
      <div className="flex items-center gap-1.5 pt-1">
        <select
          aria-label="When it is used"
          className="field w-auto!"
          value={row.rule}
          onChange={(e) => onRow({ ...row, rule: e.target.value as PlanRow["rule"], value: "" })}
        >
          {RULES.map((rule) => (
            <option key={rule}>{rule}</option>
          ))}
        </select>
        {row.rule !== "as soon as ready" && (
          <input
            aria-label={`Value for “${row.rule}”`}
            className="field min-w-0 flex-1"
            placeholder={hints[row.rule]}
            value={typed ?? row.value}
            onChange={(e) => setTyped(e.target.value)}
            onBlur={done}
            onKeyDown={(e) => e.key === "Enter" && done()}
          />
        )}
      </div>
      {item && uses.length === 0 && <p className="text-[12px] text-copper">{item.name} has no use.</p>}
      {shared && <p className="text-[12px] text-second">{shared}</p>}
      {wrong && row.value !== "" && <p className="text-[12px] text-beet">{wrong}</p>}
      {wrong && row.value === "" && <p className="text-[12px] text-second">{wrong}</p>}
    </div>
  );
}
