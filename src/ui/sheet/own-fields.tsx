"use client";
/** The designers' own fields of a record, in the order in which they are read. */
import { fieldsOfItem, fieldsOfKind } from "@/core/catalogue/fields";
import { hasValueAt } from "@/core/catalogue/inheritance";
import type { AnyRecord, Item, Kind, OwnField } from "@/core/kinds/index";
import { useLive } from "../pantry/provider";
import { FieldValue, Row } from "./field-row";
import { Section } from "./section";

/** Longer than half of a sheet is wide. */
const WIDE: readonly OwnField["form"][] = ["long text", "links", "file"];

export function OwnFields({
  kind,
  record,
  folds = false,
}: {
  readonly kind: Kind;
  readonly record: AnyRecord;
  /** Fields without a value are listed elsewhere. */
  readonly folds?: boolean;
}) {
  const { catalogue } = useLive();
  const has = fieldsFor();
  const said = "own" in record ? Object.keys(record.own) : [];
  // What it says although no one asks is shown too: nothing that is stored stays hidden.
  const beside = fieldsOfKind(catalogue, kind).filter((f) => said.includes(f.id) && !has.includes(f));
  const all = kind === "type" ? has : [...has, ...beside];
  const fields = folds ? all.filter((f) => hasValueAt(catalogue, kind, record, `own.${f.id}`)) : all;
  if (!fields.length) return null;
  const rows = (of: readonly OwnField[]) =>
    of.map((field) => (
      <Row key={field.id} label={field.unit ? `${field.name}, ${field.unit}` : field.name} help={field.help}>
        <FieldValue kind={kind} record={record} path={`own.${field.id}`} label={field.name} />
      </Row>
    ));
  return (
    <Section title={kind === "type" ? "Values of the type itself" : "Custom fields"}>
      <div className="two-columns">{rows(fields.filter((f) => !WIDE.includes(f.form)))}</div>
      {rows(fields.filter((f) => WIDE.includes(f.form)))}
    </Section>
  );

  function fieldsFor(): readonly OwnField[] {
    if (kind === "item") return fieldsOfItem(catalogue, record as Item);
    const all = fieldsOfKind(catalogue, kind);
    // What its items inherit from a type stands among what it asks of them.
    return kind === "type" ? all.filter((f) => f.of === "type") : all;
  }
}
