"use client";
/** Columns of a grid that follow from the fields of a kind. */
import type { ReactNode } from "react";
import { type Catalogue, recordsOf } from "@/core/catalogue/catalogue";
import { fieldsOfKind } from "@/core/catalogue/fields";
import { type Heir, type Held, heldAt, held, type InheritedField } from "@/core/catalogue/inheritance";
import { around } from "@/core/catalogue/surroundings";
import { type AnyRecord, definition, isKind, type Kind, type Stat } from "@/core/kinds/index";
import { capital, sayCost } from "@/core/numbers/format";
import { briefly } from "@/core/schema/brief";
import type { Field, Surroundings } from "@/core/schema/field";
import type { Id } from "@/core/schema/id";
import { Icon } from "../kit/jars";
import { cx } from "../kit/kit";
import type { Column } from "./columns";

const NARROW = 76;
export const none = <span className="text-third">–</span>;
type Values = Readonly<Record<string, unknown>>;
/** The records as they are now: columns stay the same while records change. */
type Now = () => Catalogue;

/** What a column looks like where that is not what its field makes of it. */
export type Looks<R> = { readonly [field: string]: Partial<Pick<Column<R>, "title" | "width" | "cell" | "sort">> };

/** All fields but the key, then the key; a field that is edited in parts has a column for each. */
export function fieldColumns<R extends AnyRecord>(kind: Kind, now: Now, looks: Looks<R> = {}): Column<R>[] {
  const { key, ...fields } = definition(kind).fields;
  return [...Object.entries(fields), ["key", key] as const].flatMap(([name, field]) => {
    const inherits = field.options.inheritable === true;
    if (field.parts) return partColumns<R>(kind, name, field, now);
    const of = inherits
      ? (r: R): Held<unknown> => held(now(), r as unknown as Heir, name as InheritedField)
      : (r: R) => own((r as unknown as Values)[name]);
    return [{ ...column<R>(name, field, now, of), ...looks[name] }];
  });
}
const own = (value: unknown): Held<unknown> => ({ value, from: "own" });

/** What is edited in parts has a column for each; parts that have members of their own are for a sheet. */
function partColumns<R extends AnyRecord>(kind: Kind, name: string, field: Field, now: Now): Column<R>[] {
  const { parts } = field;
  // Of items there are too many for a column each.
  if (!parts || !isKind(parts.kind) || parts.of.type === "group" || parts.kind === "item") return [];
  const records = parts.kind === "field" ? fieldsOfKind(now(), kind) : recordsOf(now(), parts.kind).values();
  return [...records].map((part) => {
    const { unit } = part as Partial<Stat>;
    const path = `${name}.${part.id as Id}`;
    const one = parts.each(around(now()), part.id);
    return {
      ...column<R>(path, one, now, (r) => heldAt(now(), kind, r, path).here),
      title: unit ? `${part.name} ${unit}` : part.name,
      width: one.options.width ?? field.options.width ?? NARROW,
    };
  });
}

/** Its name where there is room for it. */
export const labelOf = (name: string, { options }: Field): string =>
  capital(options.label ?? options.title ?? name.replace(/[A-Z]/g, (c) => ` ${c.toLowerCase()}`));
/** The head of its column. */
export function titleOf(name: string, field: Field): string {
  const title = capital(field.options.title ?? labelOf(name, field));
  return field.options.unit ? `${title} ${field.options.unit}` : title;
}

/** A value as it is shown: numbers as they stand under each other, others as they are typed. */
export function shownAs(field: Field, value: unknown, here: Surroundings): string {
  const inFormat = (text: string) =>
    here.numbers === "comma" ? text.replace(/(?<=\d)[.,](?=\d)/g, (sign) => (sign === "." ? "," : ".")) : text;
  // A name that several records share is typed as a key, and read as a name.
  if (field.type === "ref" || field.type === "refs") return field.say(value, here);
  if (field.type === "money") return inFormat(sayCost(value as number));
  return field.type === "number" ? inFormat(field.say(value, here)) : field.format(value, here);
}

function column<R extends AnyRecord>(name: string, field: Field, now: Now, of: (row: R) => Held<unknown>): Column<R> {
  const { numeric, options } = field;
  const empty = (v: unknown) => v === null || v === undefined || (v === 0 && field.members !== undefined);
  const text = (r: R) => {
    const { value } = of(r);
    return empty(value) ? "" : field.format(value, around(now()));
  };
  const cell = (r: R): ReactNode => {
    const { value, from, type: above } = of(r);
    const shown = empty(value) ? "" : briefly(field, value, around(now()));
    if (!shown) return none;
    const inked = options.inheritable && (from === "inherited" ? "ink-inherited" : "ink-own");
    const title = above ? `inherited from ${above.name}` : shown.length > 30 ? shown : undefined;
    if (options.drawn)
      return (
        <span className={cx("flex items-center gap-1.5 truncate", inked)} title={title}>
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
        className={cx("truncate", inked, name === "name" && "font-semibold", name === "key" && "text-second")}
        title={title}
      >
        {field.inner ? shown : shownAs(field, value, around(now()))}
      </span>
    );
  };
  return {
    id: name,
    title: titleOf(name, field),
    width: options.width ?? NARROW,
    numeric,
    edit: {
      ...(field.completions ? { names: () => field.completions?.(around(now())) ?? [] } : {}),
      ...(field.type === "flag" ? { toggled: (r: R) => (of(r).value === true ? "no" : "yes") } : {}),
      ...(field.type === "colour" ? { colour: true } : {}),
    },
    text,
    cell,
    sort(r) {
      const { value } = of(r);
      if (empty(value)) return null;
      return numeric ? (value as number) : field.say(value, around(now())).toLowerCase() || null;
    },
  };
}
