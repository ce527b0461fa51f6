"use client";
/** What a grid shows as a file: CSV, TSV or a workbook, which are read back without loss. */
import { useState } from "react";
import { type AnyRecord, definition, type Kind, kindWord } from "@/core/kinds/index";
import { pathOf } from "@/core/schema/record";
import type { Column } from "../grid/columns";
import { Button } from "../kit/kit";
import { Popup } from "../kit/popup";
import { useLive } from "../pantry/provider";
import { save } from "./save";

const FORMATS = ["CSV", "TSV", "Workbook"] as const;

interface Props<R extends AnyRecord> {
  readonly kind: Kind;
  readonly rows: readonly R[];
  readonly columns: readonly Column<R>[];
}

export function TakeOut<R extends AnyRecord>({ kind, rows, columns }: Props<R>) {
  const { catalogue } = useLive();
  const [inherited, setInherited] = useState(false);
  const take = async (format: (typeof FORMATS)[number]) => {
    const [{ writeDelimited }, { writeWorkbook }, { writeTable }] = await Promise.all([
      import("@/core/exchange/table/read-table"),
      import("@/core/exchange/table/workbook"),
      import("@/core/exchange/table/write-table"),
    ]);
    const cells = writeTable(
      catalogue,
      kind,
      rows,
      columns.map((c) =>
        pathOf(definition(kind), c.id) ? c.id : { title: c.title, text: (r: AnyRecord) => c.text(r as R) },
      ),
      { inherited },
    );
    const name = kindWord(kind, true);
    if (format === "Workbook") save(`${name}.xlsx`, await writeWorkbook(cells, name));
    else save(`${name}.${format.toLowerCase()}`, writeDelimited(cells, format === "CSV" ? "," : "\t"));
  };
  return (
    <Popup
      button={(opener) => <Button {...opener}>Export</Button>}
      align="end"
      label="Export as a file"
      className="w-72"
    >
      <p className="pb-2 text-second">
        {rows.length} rows, {columns.length} columns, including the key. Importing the file again changes nothing.
      </p>
      <label className="flex items-center gap-2 pb-2">
        <input type="checkbox" checked={inherited} onChange={(e) => setInherited(e.target.checked)} />
        include inherited values
      </label>
      <div className="flex gap-1.5">
        {FORMATS.map((format) => (
          <Button key={format} onClick={() => void take(format)}>
            {format}
          </Button>
        ))}
      </div>
    </Popup>
  );
}
