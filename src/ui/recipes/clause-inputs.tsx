"use client";
/** The inputs for what a recipe's clauses say, made from their list: numbers and times as typed, records by name. */
import { namesOf } from "@/core/catalogue/surroundings";
import { ALL_CLAUSES, type ClauseStatement } from "@/core/clauses/all";
import type { Clause, ItemName } from "@/core/clauses/clause";
import { recordsOf } from "@/core/catalogue/catalogue";
import type { Kind } from "@/core/kinds/index";
import type { Id } from "@/core/schema/id";
import type { ReactNode } from "react";
import { FieldInput } from "../forms/field-input";
import { titleOf } from "../grid/field-columns";
import { NameInput } from "../kit/name-input";
import { useCatalogue } from "../pantry/provider";

type Values = { readonly [field: string]: unknown };
type Write = (values: Values) => void;

export function ClauseInputs({
  said,
  onSaid,
}: {
  said: ClauseStatement;
  onSaid: (part: Partial<ClauseStatement>) => void;
}) {
  return (
    <div className="flex flex-wrap gap-2">
      {ALL_CLAUSES.map((clause) => (
        <ClauseInput key={clause.word} clause={clause} values={said as unknown as Values} write={onSaid as Write} />
      ))}
    </div>
  );
}

/** One clause: its first field, and beside it what belongs to that one, such as a fee's currency. */
function ClauseInput({ clause, values, write }: { clause: Clause; values: Values; write: Write }) {
  const [[name, field], ...beside] = Object.entries(clause.fields);
  const title = titleOf(name, field);
  const catalogue = useCatalogue();
  /** What belongs to it goes with it, and is the first record there is where it comes. */
  const follow = (value: unknown): Values =>
    Object.fromEntries(
      beside.map(([other, of]) => {
        const [first] = recordsOf(catalogue, of.targets[0] as Kind).keys();
        return [other, !value ? null : values[name] ? values[other] : (first ?? null)];
      }),
    );
  if (clause.items.includes(name))
    return (
      <Titled title={title} width="w-64">
        <ItemInput
          title={title}
          placeholder={clause.placeholder}
          value={values[name] as ItemName | null}
          onDone={(item) => write({ [name]: item })}
        />
      </Titled>
    );
  return (
    <Titled title={title} width={beside.length ? "w-50" : "w-21"}>
      <span className="flex gap-1">
        <FieldInput
          narrow
          label={title}
          field={field}
          value={values[name]}
          placeholder={clause.placeholder}
          onDone={(value) => write({ [name]: value, ...follow(value) })}
        />
        {beside.map(([other, of]) => (
          <RecordSelect
            key={other}
            title={titleOf(other, of)}
            kind={of.targets[0] as Kind}
            value={values[other] as Id | null}
            onDone={(id) => write({ [other]: id })}
          />
        ))}
      </span>
    </Titled>
  );
}

function ItemInput({
  title,
  placeholder,
  value,
  onDone,
}: {
  title: string;
  placeholder: string;
  value: ItemName | null;
  onDone: (item: ItemName | null) => void;
}) {
  const catalogue = useCatalogue();
  return (
    <NameInput
      label={title}
      placeholder={placeholder}
      value={value?.name ?? ""}
      names={[...catalogue.records.item.values()].map((i) => i.name)}
      onDone={(name) => {
        const found = namesOf(catalogue, "item").find(name);
        const item = found.found === "one" ? { name: found.name, item: found.id } : { name, item: null };
        onDone(name ? item : null);
      }}
    />
  );
}

function RecordSelect({
  title,
  kind,
  value,
  onDone,
}: {
  title: string;
  kind: Kind;
  value: Id | null;
  onDone: (id: Id | null) => void;
}) {
  const records = [...recordsOf(useCatalogue(), kind).values()] as readonly {
    readonly id: Id;
    readonly name: string;
  }[];
  return (
    <select
      aria-label={title}
      className="field w-28! shrink-0 px-1!"
      value={value ?? ""}
      onChange={(e) => onDone((e.target.value || null) as Id | null)}
    >
      <option value="">{kind === "currency" ? "value units" : "none"}</option>
      {records.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}

function Titled({ title, width, children }: { title: string; width: string; children: ReactNode }) {
  return (
    <div className={width}>
      <span className="head block pb-0.5">{title}</span>
      {children}
    </div>
  );
}
