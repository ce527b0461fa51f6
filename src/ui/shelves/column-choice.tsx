"use client";
/** Which columns are shown, and what rows are grouped by. */
import { GROUPED_BY } from "@/core/catalogue/group-sums";
import { Button } from "../kit/kit";
import { Popup } from "../kit/popup";

export function ColumnChoice({
  all,
  shown,
  onChange,
  onReset,
  grouped,
  onGroup,
}: {
  all: readonly { id: string; title: string }[];
  shown: readonly string[];
  onChange: (shown: string[]) => void;
  onReset: () => void;
  grouped: string;
  onGroup: (by: string) => void;
}) {
  return (
    <Popup
      button={(opener) => <Button {...opener}>Columns</Button>}
      align="end"
      label="Columns"
      className="grid max-h-96 w-72 grid-cols-2 gap-x-3 overflow-auto"
    >
      <label className="col-span-2 flex items-center gap-2 border-b border-hair pb-2 text-second">
        Group by
        <select aria-label="Group by" className="field w-32!" value={grouped} onChange={(e) => onGroup(e.target.value)}>
          <option value="">nothing</option>
          {GROUPED_BY.map((by) => (
            <option key={by}>{by}</option>
          ))}
        </select>
      </label>
      {all.slice(1).map((c) => (
        <label key={c.id} className="flex items-center gap-2 py-0.5">
          <input
            type="checkbox"
            checked={shown.includes(c.id)}
            onChange={(e) => onChange(e.target.checked ? [...shown, c.id] : shown.filter((s) => s !== c.id))}
          />
          {c.title}
        </label>
      ))}
      <Button className="col-span-2 mt-2" onClick={onReset}>
        Reset columns
      </Button>
    </Popup>
  );
}
