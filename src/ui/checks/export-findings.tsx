"use client";
/** The findings that are shown, as a CSV file or as cells for a spreadsheet. */
import { useState } from "react";
import type { Finding } from "@/core/checks/check";
import { findingRows } from "@/core/checks/grouping";
import { count } from "@/core/numbers/format";
import { Button } from "../kit/kit";
import { Popup } from "../kit/popup";
import { useLivePart } from "../pantry/provider";
import { save } from "../tables/save";

export function ExportFindings({ findings }: { readonly findings: readonly Finding[] }) {
  const decisions = useLivePart(({ judged }) => judged.decisions);
  const [done, setDone] = useState("");
  const text = async (separator: "," | "\t") => {
    const { writeDelimited } = await import("@/core/exchange/table/read-table");
    return writeDelimited(findingRows(findings, decisions), separator);
  };
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(await text("\t"));
      setDone(`Copied ${count(findings.length, "finding")}.`);
    } catch {
      setDone("The browser doesn't allow copying here. Save the file instead.");
    }
  };
  return (
    <Popup
      button={(opener) => <Button {...opener}>Export</Button>}
      align="start"
      label="Export findings"
      className="w-72"
    >
      <p className="pb-2 text-second">{count(findings.length, "finding")}, as filtered.</p>
      <div className="flex gap-1.5">
        <Button onClick={async () => save("findings.csv", await text(","))}>Save as CSV</Button>
        <Button onClick={() => void copy()}>Copy</Button>
      </div>
      <p role="status" className="pt-2 text-second empty:hidden">
        {done}
      </p>
    </Popup>
  );
}
