"use client";
/** Fields without a value, folded into one line; typing finds one. */
import { useState } from "react";
import { normalise } from "@/core/schema/names";
import type { AnyRecord, Kind } from "@/core/kinds/index";
import { count } from "@/core/numbers/format";
import { Button } from "../kit/kit";
import { SearchField } from "../kit/search-field";
import { FieldValue, Row } from "./field-row";

export interface EmptyField {
  readonly path: string;
  readonly label: string;
  readonly help?: string;
}

export function FoldedFields({
  kind,
  record,
  of,
}: {
  readonly kind: Kind;
  readonly record: AnyRecord;
  readonly of: readonly EmptyField[];
}) {
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState("");
  if (!of.length) return null;
  const wanted = normalise(typed);
  const found = of.filter(({ label }) => normalise(label).includes(wanted));
  return (
    <section aria-label="Empty fields" className="pt-2">
      <div className="flex flex-wrap items-center gap-x-2">
        <Button look="quiet" aria-expanded={open} className="px-1!" onClick={() => setOpen(!open)}>
          {open ? "Hide" : "Show"} {count(of.length, "empty field")}
        </Button>
        {open && of.length > 6 && (
          <SearchField
            label="Find an empty field"
            placeholder="Find a field"
            className="w-44!"
            autoFocus
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
          />
        )}
      </div>
      {open && (
        <div className="two-columns">
          {found.map(({ path, label, help }) => (
            <Row key={path} label={label} help={help}>
              <FieldValue kind={kind} record={record} path={path} label={label} />
            </Row>
          ))}
        </div>
      )}
      {open && found.length === 0 && <p className="text-second">No empty field matches “{typed}”.</p>}
    </section>
  );
}
