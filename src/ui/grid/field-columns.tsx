"use client";
/** Columns of a grid that follow from the fields of a kind. */
import type { ReactNode } from "react";
import { type Catalogue, recordsOf } from "@/core/catalogue/catalogue";
import { around } from "@/core/catalogue/surroundings";
import { type AnyRecord, definition, isKind, type Kind } from "@/core/kinds/index";
import { sayQuantity } from "@/core/numbers/format";
import type { Field, Surroundings } from "@/core/schema/field";
import { cx, Icon } from "../kit/kit";
import type { Column } from "./columns";

const NARROW = 76;
const none = <span className="text-third">–</span>;
type Values = Readonly<Record<string, unknown>>;

/** All fields but the key, then the key; a field that is edited in parts has a column for each. */
export function fieldColumns(kind: Kind, catalogue: Catalogue): Column<AnyRecord>[] {
  const here = around(catalogue);
  const { key, ...fields } = definition(kind).fields;
  return [...Object.entries(fields), ["key", key] as const].flatMap(([name, field]) =>
    field.parts ? partColumns(name, field, catalogue, here) : [column(name, field, here, (r) => (r as never)[name])],
  );
}

function partColumns(name: string, field: Field, catalogue: Catalogue, here: Surroundings): Column<AnyRecord>[] {
  const { parts } = field;
  if (!parts || !isKind(parts.kind)) return [];
  return [...recordsOf(catalogue, parts.kind).values()].map((part) => ({
    ...column(`${name}.${part.id}`, parts.of, here, (r) => parts.get((r as unknown as Values)[name], part.id)),
    title: part.name,
    width: field.options.width ?? NARROW,
  }));
}

/** "feeCurrency" → "Fee currency". */
export function titleOf(name: string, { options }: Field): string {
  const title = options.title ?? options.label ?? name;
  return title.charAt(0).toUpperCase() + title.slice(1);
}

function column(name: string, field: Field, here: Surroundings, value: (r: AnyRecord) => unknown): Column<AnyRecord> {
  const { type, numeric, options } = field;
  const empty = (v: unknown) => v === null || v === undefined || (v === 0 && field.members !== undefined);
  const text = (r: AnyRecord) => (empty(value(r)) ? "" : field.format(value(r), here));
  const cell = (r: AnyRecord): ReactNode => {
    const shown = text(r);
    if (!shown) return none;
    const said = numeric && type !== "duration" ? sayQuantity(value(r) as number) : shown;
    if (options.drawn)
      return (
        <span className="flex items-center gap-1.5 truncate">
          {options.drawn === "icon" ? (
            <Icon name={shown} size={15} />
          ) : (
            <span aria-hidden className="size-3.5 shrink-0 rounded-sm" style={{ background: shown }} />
          )}
          {shown}
        </span>
      );
    return (
      <span
        className={cx("truncate", name === "name" && "font-semibold", name === "key" && "text-second")}
        title={shown.length > 30 ? shown : undefined}
      >
        {said}
      </span>
    );
  };
  return {
    id: name,
    title: titleOf(name, field),
    width: options.width ?? NARROW,
    numeric,
    edit: field.completions ? { names: () => field.completions?.(here) ?? [] } : {},
    text,
    cell,
    sort: (r) => (numeric ? ((value(r) as number | null | undefined) ?? null) : text(r).toLowerCase()),
  };
}
