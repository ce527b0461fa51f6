"use client";
/** Small parts of Tasting: labelled inputs, the choice of a subject and a situation. */
import type { ReactNode } from "react";
import { byKey } from "@/core/catalogue/keys";
import { recordsOf } from "@/core/catalogue/catalogue";
import { namesOf } from "@/core/catalogue/surroundings";
import type { Kind, TrialSubject } from "@/core/kinds/index";
import type { Id } from "@/core/schema/id";
import { NumberInput as PlainNumber } from "../forms/field-input";
import { NameInput } from "../kit/name-input";
import { useLive } from "../pantry/provider";
import { usePlaces } from "../frame/navigate";

export function Labelled({ label, children }: { readonly label: string; readonly children: ReactNode }) {
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: the control is given
    <label className="block min-w-0">
      <span className="head block pb-0.5">{label}</span>
      {children}
    </label>
  );
}

/** A choice among the records of a kind, by key. */
export function Choice({
  kind,
  label,
  value,
  none,
  onPick,
}: {
  readonly kind: Kind;
  readonly label: string;
  readonly value: string;
  /** What stands for none; absent: one is always chosen. */
  readonly none?: string;
  readonly onPick: (key: string) => void;
}) {
  const { catalogue } = useLive();
  const all = [...recordsOf(catalogue, kind).values()].sort((a, b) => a.name.localeCompare(b.name));
  return (
    <Labelled label={label}>
      <select aria-label={label} className="field" value={value} onChange={(e) => onPick(e.target.value)}>
        {none !== undefined && <option value="">{none}</option>}
        {all.map((r) => (
          <option key={r.id} value={r.key}>
            {r.name}
          </option>
        ))}
      </select>
    </Labelled>
  );
}

/** The subject of the address, else the first. */
export function useSubject(name = "who"): {
  readonly subject: TrialSubject | null;
  readonly level: number;
  readonly controls: ReactNode;
} {
  const { catalogue } = useLive();
  const places = usePlaces();
  const all = [...catalogue.records.subject.values()].sort((a, b) => a.level - b.level);
  const subject = byKey(catalogue, "subject", places.query.get(name) ?? "") ?? all[0] ?? null;
  const asked = Number(places.query.get("level"));
  const level =
    places.query.get("level") && Number.isInteger(asked) && asked >= 0 ? Math.min(asked, 1000) : (subject?.level ?? 1);
  const controls = subject && (
    <div className="grid grid-cols-[1fr_64px] gap-2">
      <Choice
        kind="subject"
        label="Test character"
        value={subject.key}
        onPick={(key) => places.ask({ [name]: key, level: null }, true)}
      />
      <Labelled label="Level">
        <NumberInput
          label="Level"
          value={level}
          least={0}
          most={1000}
          whole
          onDone={(n) => places.ask({ level: n === subject.level ? null : String(n) }, true)}
        />
      </Labelled>
    </div>
  );
  return { subject, level, controls };
}

/** A number that is typed, within bounds. */
export function NumberInput({
  label,
  value,
  least = -1e9,
  most = 1e9,
  whole,
  onDone,
}: {
  readonly label: string;
  readonly value: number;
  readonly least?: number;
  readonly most?: number;
  readonly whole?: boolean;
  readonly onDone: (value: number) => void;
}) {
  return (
    <PlainNumber
      narrow
      label={label}
      value={value}
      rules={{ min: least, max: most, whole }}
      onDone={(n) => n !== null && onDone(n)}
    />
  );
}

/** Takes an item by its name. */
export function ItemInput({
  label,
  onTake,
  among,
}: {
  readonly label: string;
  readonly onTake: (id: Id) => void;
  readonly among?: ReadonlySet<Id>;
}) {
  const { catalogue } = useLive();
  const names = namesOf(catalogue, "item");
  const all = among ? [...among].flatMap((id) => catalogue.records.item.get(id)?.name ?? []) : [...names.names()];
  return (
    <NameInput
      label={label}
      value=""
      names={all}
      placeholder="Name of an item"
      clearAfter
      onDone={(name) => {
        if (!name) return null;
        const found = names.find(name);
        if (found.found !== "one") return `There is no single item called “${name}”.`;
        onTake(found.id);
        return null;
      }}
    />
  );
}
