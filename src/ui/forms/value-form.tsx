"use client";
/** A value of any shape as a form: lists with their entries, one of several sorts, names, numbers, formulas. */
import { ArrowDown, ArrowUp, X } from "lucide-react";
import { around } from "@/core/catalogue/surroundings";
import type { Field, Fields } from "@/core/schema/field";
import { labelOf } from "../grid/field-columns";
import { Button, cx } from "../kit/kit";
import { TypedInput } from "../kit/typed-input";
import { useReading } from "./field-input";
import { useLive } from "../pantry/provider";

interface Props {
  readonly field: Field;
  readonly label: string;
  readonly value: unknown;
  readonly onChange: (value: unknown) => void;
}
type Values = Readonly<Record<string, unknown>>;
const initialOf = (fields: Fields): Values =>
  Object.fromEntries(
    Object.entries(fields).flatMap(([name, f]) => (f.initial === undefined ? [] : [[name, f.initial]])),
  );

export function ValueForm({ field, label, value, onChange }: Props) {
  const { inner } = field;
  if (inner?.is === "list") {
    const all = (value ?? []) as readonly unknown[];
    const put = (k: number, by: readonly unknown[]) => onChange([...all.slice(0, k), ...by, ...all.slice(k + 1)]);
    const swap = (k: number) => onChange([...all.slice(0, k), all[k + 1], all[k], ...all.slice(k + 2)]);
    return (
      <fieldset aria-label={label} className="space-y-1">
        {all.map((each, k) => (
          <div key={k} className="flex items-start gap-1 border-l-2 border-hair pl-2">
            <div className="min-w-0 flex-1">
              <ValueForm field={inner.of} label={`${inner.noun} ${k + 1}`} value={each} onChange={(v) => put(k, [v])} />
            </div>
            <span className="flex">
              <Button
                look="quiet"
                className="px-1.5!"
                disabled={k === 0}
                onClick={() => swap(k - 1)}
                aria-label={`Move ${inner.noun} ${k + 1} up`}
              >
                <ArrowUp size={13} aria-hidden />
              </Button>
              <Button
                look="quiet"
                className="px-1.5!"
                disabled={k === all.length - 1}
                onClick={() => swap(k)}
                aria-label={`Move ${inner.noun} ${k + 1} down`}
              >
                <ArrowDown size={13} aria-hidden />
              </Button>
              <Button
                look="quiet"
                className="px-1.5!"
                onClick={() => put(k, [])}
                aria-label={`Remove ${inner.noun} ${k + 1}`}
              >
                <X size={13} aria-hidden />
              </Button>
            </span>
          </div>
        ))}
        <Button look="quiet" className="px-1!" onClick={() => onChange([...all, inner.of.initial])}>
          Add {inner.noun}
        </Button>
      </fieldset>
    );
  }
  if (inner?.is === "group")
    return <Members fields={inner.fields} value={(value ?? {}) as Values} onChange={onChange} />;
  if (inner?.is === "union") {
    const { is, ...others } = (value ?? {}) as Values & { readonly is: string };
    return (
      <div className="flex flex-wrap items-end gap-x-2 gap-y-1">
        <select
          aria-label={label}
          className="field w-auto!"
          value={is}
          onChange={(e) => onChange({ is: e.target.value, ...initialOf(inner.variants[e.target.value]) })}
        >
          {Object.keys(inner.variants).map((word) => (
            <option key={word}>{word}</option>
          ))}
        </select>
        <Members
          fields={inner.variants[is] ?? {}}
          value={others}
          onChange={(v) => onChange({ is, ...(v as object) })}
        />
      </div>
    );
  }
  return <Simple field={field} label={label} value={value} onChange={onChange} />;
}

function Members({ fields, value, onChange }: { fields: Fields; value: Values; onChange: (value: unknown) => void }) {
  return (
    <div className="flex flex-wrap items-end gap-x-2 gap-y-1">
      {Object.entries(fields).map(([name, field]) => {
        const label = labelOf(name, field);
        // What is never said and may stay so takes no room of its own in a line.
        const wide = field.inner?.is === "list";
        return (
          // biome-ignore lint/a11y/noLabelWithoutControl: the control is made of the field
          <label key={name} className={cx("block min-w-0", wide && "w-full")} title={field.options.help}>
            {field.inner?.is !== "union" && <span className="block text-[11px] leading-4 text-second">{label}</span>}
            <ValueForm
              field={field}
              label={label}
              value={value[name]}
              onChange={(v) => onChange({ ...value, [name]: v })}
            />
          </label>
        );
      })}
    </div>
  );
}

/** One input: what is typed is read by the field, and kept as typed while it can't be. */
function Simple({ field, label, value, onChange }: Props) {
  const { catalogue } = useLive();
  const here = around(catalogue);
  const { read } = useReading(field);
  const stored = value === null || value === undefined ? "" : field.format(value, here);
  if (field.type === "flag" && !("optional" in field.options && field.options.optional))
    return (
      <input
        type="checkbox"
        aria-label={label}
        checked={value === true}
        onChange={(e) => onChange(e.target.checked)}
        className="size-4 accent-kelp"
      />
    );
  if (field.type === "choice" && field.initial !== null)
    return (
      <select aria-label={label} className="field w-auto!" value={stored} onChange={(e) => onChange(e.target.value)}>
        {field.completions?.(here).map((word) => (
          <option key={word}>{word}</option>
        ))}
      </select>
    );
  return (
    <TypedInput
      label={label}
      shown={stored}
      read={read}
      onDone={(next) => JSON.stringify(next) !== JSON.stringify(value) && onChange(next)}
      numeric={field.numeric}
      className={field.numeric ? "w-16!" : field.type === "formula" ? "w-40!" : "w-32!"}
      names={() => (field.completions ? field.completions(here).slice(0, 400) : [])}
    />
  );
}
