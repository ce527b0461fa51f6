"use client";
/** A table is brought in: its columns are mapped, every row is told before anything is written, then it is one change. */
import { Upload } from "lucide-react";
import { useDeferredValue, useMemo, useRef, useState } from "react";
import { decimalSignOf, type DecimalSign } from "@/core/exchange/table/local";
import { formatMapping, targetsBy } from "@/core/exchange/table/mappings";
import { editsInParts, type PlannedRow, planTable, refusedTable } from "@/core/exchange/table/plan-table";
import { readDelimited, readTextTable, type Table, writeDelimited } from "@/core/exchange/table/read-table";
import { guessTargets, NOTHING, type Target } from "@/core/exchange/table/targets";
import { isWorkbook, readWorkbook } from "@/core/exchange/table/workbook";
import { FreeKeys } from "@/core/editing/new-names";
import { HOLDERS } from "@/core/kinds/field";
import { type Kind, kindWord, type RecordOf, withDefaults } from "@/core/kinds/index";
import { count } from "@/core/numbers/format";
import { newId } from "@/core/schema/id";
import type { Issue } from "@/core/schema/issue";
import { useQuery } from "@tanstack/react-query";
import { iconsIn, noIcons } from "@/core/catalogue/icons";
import { Button } from "../kit/kit";
import { DialogFrame, Scrolled } from "../kit/dialog-frame";
import { useLive, useStore } from "../pantry/provider";
import { save } from "./save";
import { MappedColumns } from "./mapped-columns";
import { PlannedRows } from "./planned-rows";

interface Opened {
  readonly name: string;
  readonly encoding: string;
  readonly table: Table;
}
type Mapping = RecordOf<"mapping">;

export function BringIn({ kind, onClose }: { readonly kind: Kind; readonly onClose: () => void }) {
  const [opened, setOpened] = useState<Opened | null>(null);
  const [issues, setIssues] = useState<readonly Issue[]>([]);
  const [busy, setBusy] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const open = async (file: File) => {
    setBusy(true);
    const bytes = new Uint8Array(await file.arrayBuffer());
    const read = isWorkbook(bytes) ? await readWorkbook(bytes) : readTextTable(bytes);
    setBusy(false);
    setIssues(read.issues);
    setOpened(read.table ? { name: file.name, encoding: read.encoding, table: read.table } : null);
  };
  const paste = (text: string) => {
    const { table, issues: found } = readDelimited(text);
    setIssues(text.trim() ? found : []);
    setOpened(table ? { name: "Pasted table", encoding: "", table } : null);
  };
  if (opened)
    return <Mapped key={opened.name} kind={kind} opened={opened} onOther={() => setOpened(null)} onClose={onClose} />;
  return (
    <DialogFrame
      title={`Import a table of ${kindWord(kind, true)}`}
      description="CSV, TSV or a workbook (.xlsx) whose first row holds the column headings. Nothing is saved before you have seen every row."
      onClose={onClose}
      foot={
        <Button look="quiet" onClick={onClose}>
          Cancel
        </Button>
      }
    >
      <div className="flex flex-col gap-3 px-5 py-4">
        <div className="flex items-center gap-3">
          <Button look="solid" disabled={busy} onClick={() => input.current?.click()}>
            <Upload size={14} aria-hidden /> Choose a file
          </Button>
          <span role="status" className="text-second">
            {busy ? "Reading…" : "or paste cells from a spreadsheet:"}
          </span>
        </div>
        <input
          ref={input}
          type="file"
          aria-label="Table file"
          accept=".csv,.tsv,.txt,.xlsx,text/csv,text/tab-separated-values"
          className="hidden"
          onChange={(e) => {
            const file = e.target.files?.[0];
            e.target.value = "";
            if (file) void open(file);
          }}
        />
        <textarea
          aria-label="Pasted table"
          className="field min-h-32"
          placeholder={"Name\tType\tSell\nSmoked eel\tKept fare\t13"}
          onChange={(e) => paste(e.target.value)}
        />
        {issues.length > 0 && (
          <ul role="alert" className="text-beet">
            {issues.map((i) => (
              <li key={i.path + i.message}>
                <b>{i.path}</b>: {i.message}
              </li>
            ))}
          </ul>
        )}
      </div>
    </DialogFrame>
  );
}

const NONE: readonly string[] = [];
function Mapped({
  kind,
  opened: { name, encoding, table },
  onOther,
  onClose,
}: {
  readonly kind: Kind;
  readonly opened: Opened;
  readonly onOther: () => void;
  readonly onClose: () => void;
}) {
  const { catalogue } = useLive();
  const store = useStore();
  const [targets, setTargets] = useState<readonly Target[]>(() => guessTargets(catalogue, kind, table));
  const [decimal, setDecimal] = useState<DecimalSign>(() => decimalSignOf(table));
  const [make, setMake] = useState<ReadonlySet<Kind>>(new Set());
  const [clears, setClears] = useState(false);
  const [called, setCalled] = useState("");
  const [writing, setWriting] = useState<string | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const holds = (HOLDERS as readonly Kind[]).includes(kind);
  const options = useDeferredValue(
    useMemo(() => ({ kind, targets, decimal, make, clears }), [kind, targets, decimal, make, clears]),
  );
  const plan = useMemo(() => planTable(catalogue, table, options), [catalogue, table, options]);
  const countOf = (state: PlannedRow["state"]) => plan.rows.filter((r) => r.state === state).length;
  const counts = { new: countOf("new"), changed: countOf("changed"), refused: countOf("refused") };
  const mappings = [...catalogue.records.mapping.values()].filter((m) => m.of === kind);
  const icons = useMemo(() => iconsIn(plan.edits), [plan]);
  const { data: strange = NONE } = useQuery({
    queryKey: ["unknown icons", icons],
    enabled: icons.length > 0,
    queryFn: () => store.api.strangeIcons(icons),
  });
  const unread = table.head.filter((head, k) => head && targets[k] === NOTHING);

  const write = async () => {
    setWriting("Saving…");
    setMessage(null);
    const note = `Imported ${name}: ${counts.new} new, ${counts.changed} changed`;
    const done = await written(note);
    setWriting(null);
    if (done === null) onClose();
    else setMessage(done);
  };
  /** What is too large for one change goes in in several, one after the other: each says what it found before. */
  const written = async (note: string): Promise<string | null> => {
    const parts = editsInParts(plan.edits);
    for (const [k, edits] of parts.entries()) {
      const part = parts.length > 1 ? `, part ${k + 1} of ${parts.length}` : "";
      if (part) setWriting(`Saving${part.slice(1)}…`);
      const answer = await store.submit(edits, `${note}${part}`.slice(0, 300));
      if (!answer.ok)
        return k === 0
          ? answer.message
          : `${answer.message} The ${count(k, "part")} before it ${k === 1 ? "was" : "were"} saved.`;
    }
    return null;
  };
  const keep = async () => {
    const given = { id: newId(), key: new FreeKeys(catalogue).next("mapping", called), name: called.trim() };
    const record = withDefaults("mapping", {
      ...given,
      of: kind as Mapping["of"],
      columns: formatMapping(table.head, targets),
      decimal,
    });
    const answer = await store.submit([{ op: "add", kind: "mapping", record }]);
    if (answer.ok) setCalled("");
    else setMessage(answer.message);
  };
  const toggle = (of: Kind) => {
    const next = new Set(make);
    if (!next.delete(of)) next.add(of);
    setMake(next);
  };
  return (
    <DialogFrame
      width="wide"
      title={`${name}: ${count(plan.rows.length, "row")} of ${kindWord(kind, true)}`}
      description={`${encoding ? `Read as ${encoding.toUpperCase()}. ` : ""}Choose the field for each column. The preview below shows the result for each row.`}
      onClose={onClose}
      head={
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2 pt-3">
          {mappings.length > 0 && (
            <select
              aria-label="Mapping"
              className="field w-40!"
              value=""
              onChange={(e) => {
                const mapping = mappings.find((m) => m.id === e.target.value);
                if (!mapping) return;
                setTargets(targetsBy(mapping.columns, table.head));
                setDecimal(mapping.decimal);
              }}
            >
              <option value="">Use a saved mapping</option>
              {mappings.map((m) => (
                <option key={m.id} value={m.id}>
                  {m.name}
                </option>
              ))}
            </select>
          )}
          <label className="flex items-center gap-2 text-second">
            Decimal separator
            <select className="field w-14!" value={decimal} onChange={(e) => setDecimal(e.target.value as DecimalSign)}>
              <option value=".">.</option>
              <option value=",">,</option>
            </select>
          </label>
          <label className="flex items-center gap-2">
            <input type="checkbox" checked={clears} onChange={(e) => setClears(e.target.checked)} />
            Empty cells clear existing values
          </label>
          {holds && (
            <form
              className="flex items-center gap-2"
              onSubmit={(e) => {
                e.preventDefault();
                if (called.trim()) void keep();
              }}
            >
              <input
                aria-label="Name of the mapping"
                placeholder="Save this mapping as"
                className="field w-44!"
                value={called}
                onChange={(e) => setCalled(e.target.value)}
              />
              <Button type="submit" disabled={!called.trim()}>
                Save
              </Button>
            </form>
          )}
        </div>
      }
      foot={
        <>
          <Button look="solid" disabled={!plan.edits.length || writing !== null} onClick={() => void write()}>
            Save {count(counts.new + counts.changed, "row")}
          </Button>
          {counts.refused > 0 && (
            <Button
              onClick={() =>
                save(`rejected ${name.replace(/\.\w+$/, "")}.csv`, writeDelimited(refusedTable(table, plan)))
              }
            >
              Save rejected rows
            </Button>
          )}
          <Button onClick={onOther}>Choose another file</Button>
          <Button look="quiet" onClick={onClose}>
            Cancel
          </Button>
          <p role="status" className="text-second">
            {writing ??
              (unread.length > 0
                ? `Skipped columns: ${unread.slice(0, 6).join(", ")}${unread.length > 6 ? ", …" : ""}`
                : "")}
          </p>
          {strange.length > 0 && (
            <p role="alert" className="basis-full text-beet">
              {noIcons(strange)}
            </p>
          )}
          {message && (
            <p role="alert" className="basis-full text-beet">
              {message}
            </p>
          )}
        </>
      }
    >
      <Scrolled label="Columns and rows">
        <MappedColumns kind={kind} table={table} targets={targets} onTargets={setTargets} />
        {[...plan.unknown].map(([of, names]) => (
          <label key={of} className="mt-2 flex items-baseline gap-2 rounded-sm bg-copper-wash px-2.5 py-1.5">
            <input type="checkbox" checked={make.has(of)} onChange={() => toggle(of)} />
            <span>
              Create {count(names.size, `new ${kindWord(of)}`, `new ${kindWord(of, true)}`)}:{" "}
              {[...names.keys()].slice(0, 8).join(", ")}
              {names.size > 8 && ", …"}
            </span>
          </label>
        ))}
        {[...make].map((of) => (
          <label key={of} className="mt-2 flex items-baseline gap-2 rounded-sm bg-kelp-wash px-2.5 py-1.5">
            <input type="checkbox" checked onChange={() => toggle(of)} />
            <span>New {kindWord(of, true)} are created for new names.</span>
          </label>
        ))}
        {plan.message && (
          <p role="alert" className="py-3 text-beet">
            {plan.message}
          </p>
        )}
        {!plan.message && <PlannedRows head={table.head} rows={plan.rows} />}
      </Scrolled>
    </DialogFrame>
  );
}
