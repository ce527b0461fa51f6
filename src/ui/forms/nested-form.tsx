"use client";
/** Forms of fields with parts: lists and groups as a whole, maps entry by entry. */
import { useState } from "react";
import { around } from "@/core/catalogue/surroundings";
import type { AnyRecord, Kind } from "@/core/kinds/index";
import type { Field } from "@/core/schema/field";
import { same } from "@/core/schema/json";
import type { Id } from "@/core/schema/id";
import { labelOf } from "../grid/field-columns";
import { Button, cx } from "../kit/kit";
import { useLive, useStore } from "../pantry/provider";
import { FieldRow } from "../sheet/field-row";
import { ValueForm } from "./value-form";

interface FormProps {
  readonly kind: Kind;
  readonly record: AnyRecord;
  readonly name: string;
  readonly field: Field;
}

/** A list or group: written as a whole as soon as all of it is right; until then it is kept here, with what is missing. */
export function NestedForm({ kind, record, name, field }: FormProps) {
  const { catalogue } = useLive();
  const store = useStore();
  const stored = (record as unknown as Readonly<Record<string, unknown>>)[name];
  const [draft, setDraft] = useState<{ readonly value: unknown; readonly of: unknown } | null>(null);
  // Someone else's change takes the place of what was begun on another state.
  const value = draft && draft.of === stored ? draft.value : stored;
  const faults: string[] = [];
  const here = around(catalogue);
  field.check(value, {
    has: (k, id) => here.has(k, id),
    fault: (path, message) => faults.push(path ? `${place(path)}: ${message}` : message),
  });
  const change = (next: unknown) => {
    const wrong: string[] = [];
    field.check(next, { has: (k, id) => here.has(k, id), fault: (_, message) => wrong.push(message) });
    setDraft({ value: next, of: stored });
    if (!wrong.length && !same(next, stored))
      void store.submit([{ op: "set", kind, id: record.id, field: name, from: stored, to: next } as never]);
  };
  return (
    <>
      <ValueForm field={field} label={labelOf(name, field)} value={value} onChange={change} />
      {faults.length > 0 && (
        <p role="alert" className="mt-1 text-[12px] text-copper">
          Not saved yet. {faults[0].replace(/There is no (\w+) “null”.*/, "Choose a $1.")}{" "}
          <button type="button" className="underline" onClick={() => setDraft(null)}>
            Discard
          </button>
        </p>
      )}
    </>
  );
}
const place = (path: string): string => path.replace(/^(\d+)\./, "entry $1, ").replace(/\.(is|does)\b/g, "");

/** Values by record: those that are there, and an input for another. */
export function MapForm({ kind, record, name, field }: FormProps) {
  const { catalogue } = useLive();
  const store = useStore();
  const here = around(catalogue);
  const { parts } = field;
  const [adding, setAdding] = useState("");
  const [message, setMessage] = useState<string | null>(null);
  if (!parts) return null;
  const value = (record as unknown as Readonly<Record<string, unknown>>)[name];
  const ids = parts.names(value) as Id[];
  const add = () => {
    const found = here.names(parts.kind).find(adding);
    if (found.found !== "one") return setMessage(`There is no ${parts.kind} called “${adding}”.`);
    const one = parts.each(here, found.id);
    const initial = one.initial ?? (one.numeric ? 0 : one.type === "formula" ? "0" : null);
    setMessage(null);
    setAdding("");
    if (initial !== null && !ids.includes(found.id))
      void store.submit([
        { op: "set", kind, id: record.id, field: `${name}.${found.id}`, from: null, to: initial } as never,
      ]);
  };
  return (
    <>
      {ids.map((id) => (
        <FieldRow key={id} kind={kind} record={record} path={`${name}.${id}`} label={here.nameOf(parts.kind, id)} />
      ))}
      <span className="flex items-center gap-1.5 pt-1">
        <input
          aria-label={`Another ${parts.kind}`}
          className={cx("field w-44!", message && "border-beet!")}
          placeholder={`Name of a ${parts.kind}`}
          list={`${name}-names`}
          value={adding}
          onChange={(e) => setAdding(e.target.value)}
          onKeyDown={(e) => e.key === "Enter" && add()}
        />
        <datalist id={`${name}-names`}>
          {adding !== "" &&
            [...here.names(parts.kind).names()].slice(0, 400).map((each) => <option key={each} value={each} />)}
        </datalist>
        <Button onClick={add} disabled={!adding.trim()}>
          Add
        </Button>
      </span>
      {message && (
        <p role="alert" className="text-[12px] text-beet">
          {message}
        </p>
      )}
    </>
  );
}
