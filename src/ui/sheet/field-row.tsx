"use client";
/** A field of a record on its sheet: its name, its value in its ink, edited in place. */
import { type ReactNode, useState } from "react";
import { heldAt } from "@/core/catalogue/inheritance";
import { readEntry } from "@/core/editing/entry";
import { around } from "@/core/catalogue/surroundings";
import { type AnyRecord, definition, type Kind } from "@/core/kinds/index";
import { fieldAt, pathOf } from "@/core/schema/record";
import { labelOf, shownAs } from "../grid/field-columns";
import { Inline } from "../kit/inline";
import { Icon } from "../kit/jars";
import { useLive } from "../pantry/provider";
import { useWrite } from "../pantry/use-write";
import { useMove } from "../setup/move-dialog";
import { wordsOf } from "../kit/refusal";

export function Row({ label, help, children }: { label: string; help?: string; children: ReactNode }) {
  return (
    <div className="flex min-h-7 items-center justify-between gap-2 border-b border-dotted border-line">
      <span className="max-w-[64%] py-0.5 leading-4 text-second" title={help || label}>
        {label}
      </span>
      <span className="min-w-0 text-right">{children}</span>
    </div>
  );
}

interface Props {
  readonly kind: Kind;
  readonly record: AnyRecord;
  /** A field, or one part of one. */
  readonly path: string;
  /** Where it is not the field's own. */
  readonly label?: string;
}

/** The value alone. */
export function FieldValue({ kind, record, path, label }: Props) {
  const { catalogue } = useLive();
  const write = useWrite();
  const moving = useMove();
  const [refused, setRefused] = useState<string | null>(null);
  const at = pathOf(definition(kind), path);
  if (!at) return null;
  const { here, above } = heldAt(catalogue, kind, record, path);
  const names = around(catalogue);
  const field = fieldAt(at, names);
  const text = here.from === "none" ? "" : field.format(here.value, names);
  const called = label ?? labelOf(at.name, at.field);
  if (field.type === "choice" && at.part === null && !at.field.options.inheritable)
    return (
      <select
        aria-label={called}
        className="rounded-sm bg-transparent px-1 text-right hover:bg-pick"
        value={text}
        onChange={(e) => void write(kind, record.id, path, e.target.value)}
      >
        {field.initial === null && <option value="">–</option>}
        {field.completions?.(names).map((word) => (
          <option key={word}>{word}</option>
        ))}
      </select>
    );
  const moves = (kind === "item" && path === "type") || (kind === "type" && path === "parent");
  const move = async (typed: string) => {
    const read = readEntry(catalogue, kind, record.id, path, typed);
    return "message" in read ? read.message : moving.write(read.edits);
  };
  const inline = (
    <Inline
      label={called}
      held={here}
      // Values stand under each other at the right edge of the row.
      numeric
      long={field.type === "long text"}
      show={here.from === "none" ? "" : shownAs(field, here.value, names)}
      text={text}
      names={field.type === "refs" ? undefined : field.completions?.(names)}
      onWrite={moves ? move : (typed) => write(kind, record.id, path, typed)}
      onPutBack={
        here.from === "own" && above.from === "inherited" ? () => void write(kind, record.id, path, "") : undefined
      }
    />
  );
  const value = (
    <>
      {inline}
      {moves && moving.asking}
    </>
  );
  const { drawn } = field.options;
  if (!drawn || !text) return value;
  return (
    <span className="inline-flex max-w-full items-center gap-1.5">
      {drawn === "icon" ? (
        <Icon name={text} size={16} />
      ) : (
        <input
          type="color"
          aria-label={`Choose the ${called.toLowerCase()}`}
          className="size-5 shrink-0 cursor-pointer rounded-sm border border-line bg-transparent p-0"
          defaultValue={text}
          key={text}
          onBlur={(e) => {
            if (e.target.value === text) return;
            const picked = e.target;
            void write(kind, record.id, path, picked.value).then((message) => {
              setRefused(message && wordsOf(message));
              if (message) picked.value = text;
            });
          }}
        />
      )}
      {value}
      {refused && (
        <span role="alert" className="text-beet">
          {refused}
        </span>
      )}
    </span>
  );
}

export function FieldRow(props: Props) {
  const at = pathOf(definition(props.kind), props.path);
  if (!at) return null;
  const label = props.label ?? labelOf(at.name, at.field);
  return (
    <Row label={at.field.options.unit ? `${label}, ${at.field.options.unit}` : label}>
      <FieldValue {...props} />
    </Row>
  );
}
