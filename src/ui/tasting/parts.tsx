"use client";
/** Small parts of Tasting: labelled inputs, the choice of a subject and a situation. */
import { type ReactNode, useState } from "react";
import { byKey } from "@/core/catalogue/keys";
import { recordsOf } from "@/core/catalogue/catalogue";
import { namesOf } from "@/core/catalogue/surroundings";
import type { Kind, TrialSubject } from "@/core/kinds/index";
import type { Id } from "@/core/schema/id";
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
        label="Subject"
        value={subject.key}
        onPick={(key) => places.ask({ [name]: key, level: null }, true)}
      />
      <Labelled label="Level">
        <NumberInput
          label="Level"
          value={level}
          least={0}
          onDone={(n) => places.ask({ level: n === subject.level ? null : String(n) }, true)}
        />
      </Labelled>
    </div>
  );
  return { subject, level, controls };
}

/** A number that is typed; what is none is put back. */
export function NumberInput({
  label,
  value,
  least = Number.NEGATIVE_INFINITY,
  most = 1e9,
  onDone,
}: {
  readonly label: string;
  readonly value: number;
  readonly least?: number;
  readonly most?: number;
  readonly onDone: (value: number) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const done = () => {
    const number = Number((typed ?? "").replace(",", "."));
    setTyped(null);
    if (typed?.trim() && Number.isFinite(number)) onDone(Math.min(Math.max(number, least), most));
  };
  return (
    <input
      aria-label={label}
      inputMode="decimal"
      className="field text-right"
      value={typed ?? String(value)}
      onFocus={(e) => e.target.select()}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={done}
      onKeyDown={(e) => e.key === "Enter" && done()}
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
  const [says, setSays] = useState("");
  const all = among ? [...among].flatMap((id) => catalogue.records.item.get(id)?.name ?? []) : [...names.names()];
  return (
    <>
      <NameInput
        label={label}
        value=""
        names={all}
        placeholder="Name of an item"
        clearAfter
        onDone={(name) => {
          const found = name ? names.find(name) : null;
          setSays(name && found?.found !== "one" ? `There is no one item called “${name}”.` : "");
          if (found?.found === "one") onTake(found.id);
        }}
      />
      {says && (
        <p role="alert" className="text-[12px] text-beet">
          {says}
        </p>
      )}
    </>
  );
}
