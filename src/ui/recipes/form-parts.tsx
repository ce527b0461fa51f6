"use client";
/** Small inputs of the recipe form. */
import { Plus, X } from "lucide-react";
import type { Id } from "@/core/schema/id";
import type { Bonus } from "@/core/notation/line";
import type { Stat } from "@/core/kinds/index";
import type { Role } from "@/core/notation/roles";
import { fromPercent, toPercent } from "@/core/numbers/fraction";
import { NumberInput } from "../forms/field-input";
import { Button } from "../kit/kit";
import { NameInput } from "../kit/name-input";

export function BonusFields({
  stats,
  bonus,
  onBonus,
}: {
  stats: readonly Stat[];
  bonus: Bonus;
  onBonus: (bonus: Bonus | undefined) => void;
}) {
  return (
    <span className="flex items-center gap-1 pt-0.5 text-[12px] text-second">
      {bonus.share < 0 ? "less" : "plus"}
      <span className="w-12">
        <NumberInput
          narrow
          label="Percent per point"
          value={toPercent(bonus.share)}
          rules={{ min: -100, max: 100 }}
          unit="%"
          onDone={(share) => onBonus(share ? { ...bonus, share: fromPercent(share) } : undefined)}
        />
      </span>
      <span className="whitespace-nowrap">% per</span>
      <select
        aria-label="Stat of the maker"
        className="field w-auto! max-w-24! px-1!"
        value={bonus.stat}
        onChange={(x) => onBonus({ ...bonus, stat: x.target.value as Id })}
      >
        {stats.map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
      </select>
      <Button look="quiet" aria-label="The same unlimitedybody" className="px-1!" onClick={() => onBonus(undefined)}>
        <X size={12} aria-hidden />
      </Button>
    </span>
  );
}

/** What a typed name stands for: an item, or any with a tag. */

export function AddLine({
  role,
  names,
  onAdd,
}: {
  role: Role;
  names: readonly string[];
  onAdd: (name: string) => void;
}) {
  return (
    <span className="flex w-[141px] items-center gap-1">
      <Plus size={13} aria-hidden className="shrink-0 text-third" />
      <NameInput
        key={names.length}
        label={`Add ${role}`}
        placeholder={`add ${role}`}
        value=""
        names={names}
        onDone={(name) => name && onAdd(name)}
        clearAfter
      />
    </span>
  );
}

export function Labelled({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: the control is what stands within
    <label className="block">
      <span className="head block pb-0.5">{label}</span>
      {children}
    </label>
  );
}

export function Text({
  value,
  placeholder,
  onDone,
}: {
  value: string;
  placeholder?: string;
  onDone: (text: string) => void;
}) {
  return (
    <input
      key={value}
      className="field"
      defaultValue={value}
      placeholder={placeholder}
      onBlur={(e) => e.target.value.trim() !== value && onDone(e.target.value.trim())}
      onKeyDown={(e) => e.key === "Enter" && e.currentTarget.blur()}
    />
  );
}
