"use client";
/** A record of Setup on a sheet: simple fields as rows, lists as forms, uses and trials as their lines. */
import { X } from "lucide-react";
import { useState } from "react";
import { around } from "@/core/catalogue/surroundings";
import { recordAt } from "@/core/catalogue/catalogue";
import { rewriteUse } from "@/core/editing/uses";
import { definition, type Kind, kindWord, type Trial, type TrialSubject, type Use } from "@/core/kinds/index";
import { formatUse } from "@/core/notation/use-line";
import { formatSteps, parseSteps } from "@/core/notation/trial-line";
import type { Field } from "@/core/schema/field";
import { same } from "@/core/schema/json";
import type { Id } from "@/core/schema/id";
import { labelOf } from "../grid/field-columns";
import { Button } from "../kit/kit";
import { useLive, useStore } from "../pantry/provider";
import { FieldRow } from "../sheet/field-row";
import { Section } from "../sheet/section";
import { LineInput, STEP_NAMES } from "../uses/line-input";
import { UseLine } from "../uses/uses-section";
import { FormulaCurve } from "./formula-curve";
import { hasValueAt } from "@/core/catalogue/inheritance";
import { FoldedFields } from "../sheet/folded-fields";
import { MapForm, NestedForm } from "./nested-form";

export function RecordSheet({
  kind,
  id,
  onClose,
}: {
  readonly kind: Kind;
  readonly id: Id;
  readonly onClose: () => void;
}) {
  const { catalogue } = useLive();
  const store = useStore();
  const record = recordAt(catalogue, kind, id);
  if (!record) return null;
  const fields = Object.entries(definition(kind).fields);
  // What a use does stands here as its line and as a form; steps of a trial are lines only.
  const line = kind === "trial" ? ["steps"] : [];
  const rest = fields.filter(([name]) => !line.includes(name));
  const formed = (field: Field) => field.inner !== undefined || field.parts !== undefined;
  const simple = rest.filter(([, field]) => !formed(field));
  const nested = rest.filter(([, field]) => field.inner !== undefined);
  const mapped = rest.filter(([name, field]) => field.parts !== undefined && name !== "own");
  const writeUse = async (text: string, create = false) => {
    const edits = rewriteUse(catalogue, record as Use, text, create);
    return edits !== null && (edits.length === 0 || (await store.submit(edits)).ok);
  };
  return (
    <aside
      aria-label={`${kindWord(kind)} ${record.name}`}
      className="flex w-[460px] shrink-0 flex-col border-l border-line bg-salt"
    >
      <header className="flex items-center gap-2 border-b border-line px-4 py-2">
        <h2 className="min-w-0 flex-1 truncate text-[16px]">{record.name}</h2>
        <Button look="quiet" className="px-1!" onClick={onClose} aria-label="Close the sheet">
          <X size={16} aria-hidden />
        </Button>
      </header>
      {/** biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keyboard */}
      {/** biome-ignore lint/a11y/useSemanticElements: a role after the ARIA pattern, without the looks and limits of the element */}
      <div tabIndex={0} role="region" aria-label="Record" className="min-h-0 flex-1 overflow-auto px-4 pb-6">
        {kind === "use" && (
          <Section title="Line">
            <UseLine
              label={`Line of ${record.name}`}
              stored={formatUse(record as never, around(catalogue))}
              onWrite={writeUse}
            />
          </Section>
        )}
        {kind === "trial" && (
          <Section title="Steps, one per line">
            <StepsEditor trial={record as Trial} />
          </Section>
        )}
        <Section title="Fields">
          {simple
            .filter(([name]) => hasValueAt(catalogue, kind, record, name))
            .map(([name]) => (
              <FieldRow key={name} kind={kind} record={record} path={name} />
            ))}
          <FoldedFields
            kind={kind}
            record={record}
            of={simple
              .filter(([name]) => !hasValueAt(catalogue, kind, record, name))
              .map(([path, field]) => ({ path, label: labelOf(path, field), help: field.options.help }))}
          />
        </Section>
        {[...nested, ...mapped].map(([name, field]) => (
          <Section key={name} title={labelOf(name, field)}>
            {field.options.help && <p className="text-second">{field.options.help}</p>}
            {kind === "subject" && name === "growth" && <PasteGrowth record={record as TrialSubject} />}
            {field.parts ? (
              <MapForm kind={kind} record={record} name={name} field={field} />
            ) : (
              <NestedForm kind={kind} record={record} name={name} field={field} />
            )}
          </Section>
        ))}
        {formulasIn(record as unknown as object, fields).map(({ label, kept }) => (
          <FormulaCurve key={`${label}${kept}`} label={label} kept={kept} />
        ))}
      </div>
    </aside>
  );
}

/** What a kept formula is no mere number by. */
const NAMES = /["a-z]/;
/** Every formula of a record that names something, however deep it stands. */
function formulasIn(
  record: object,
  fields: readonly (readonly [string, Field])[],
): { readonly label: string; readonly kept: string }[] {
  const found: { label: string; kept: string }[] = [];
  const look = (field: Field, value: unknown, label: string): void => {
    if (found.length >= 8 || value === null || value === undefined) return;
    if (field.type === "formula") {
      if (NAMES.test(String(value))) found.push({ label, kept: String(value) });
    } else if (field.inner?.is === "list") {
      const { of, noun } = field.inner;
      for (const [k, each] of (value as readonly unknown[]).entries()) look(of, each, `${noun} ${k + 1}`);
    } else if (field.inner?.is === "group")
      for (const [name, of] of Object.entries(field.inner.fields))
        look(of, (value as Record<string, unknown>)[name], label);
    else if (field.parts) for (const each of Object.values(value as object)) look(field.parts.of, each, label);
  };
  for (const [name, field] of fields) look(field, (record as Record<string, unknown>)[name], labelOf(name, field));
  return found;
}

/** Rows out of a spreadsheet: a level and a value on each line, for one stat. */
function PasteGrowth({ record }: { readonly record: TrialSubject }) {
  const { catalogue } = useLive();
  const store = useStore();
  const [message, setMessage] = useState("");
  const stats = [...catalogue.records.stat.values()];
  const [stat, setStat] = useState<string>(stats[0]?.id ?? "");
  const take = (text: string) => {
    const rows = text.split(/\r?\n/).filter((line) => line.trim());
    const read = rows.map((line) =>
      line
        .trim()
        .split(/[\t;,\s]+/)
        .map(Number),
    );
    const wrong = read.findIndex(
      ([level, value]) => !Number.isInteger(level) || level < 0 || level > 1000 || !Number.isFinite(value),
    );
    if (wrong >= 0)
      return setMessage(`Line ${wrong + 1}, “${rows[wrong]}”, isn't a level and a value. Use lines such as 10 24.`);
    setMessage("");
    const others = record.growth.filter((row) => row.stat !== stat);
    const to = [...others, ...read.map(([level, value]) => ({ stat: stat as Id, level, value }))];
    void store.submit([
      { op: "set", kind: "subject", id: record.id, field: "growth", from: record.growth, to } as never,
    ]);
  };
  return (
    <div className="flex flex-wrap items-center gap-1.5 py-1">
      <select
        aria-label="Stat of the pasted table"
        className="field w-auto!"
        value={stat}
        onChange={(e) => setStat(e.target.value)}
      >
        {stats.map((s) => (
          <option key={s.id} value={s.id}>
            {s.name}
          </option>
        ))}
      </select>
      <textarea
        aria-label="Paste levels and values"
        rows={1}
        className="field w-56! resize-none"
        placeholder="Paste lines: level and value"
        value=""
        onChange={(e) => take(e.target.value)}
      />
      {message && (
        <p role="alert" className="text-[12px] text-beet">
          {message}
        </p>
      )}
    </div>
  );
}

/** The steps of a trial as text. */
export function StepsEditor({ trial }: { readonly trial: Trial }) {
  const { catalogue } = useLive();
  const store = useStore();
  const here = around(catalogue);
  const stored = formatSteps(trial.steps as never, here);
  const [typed, setTyped] = useState<string | null>(null);
  const text = typed ?? stored;
  const { steps, issues } = parseSteps(text, here);
  const dirty = typed !== null && typed !== stored;
  const write = async () => {
    if (!steps) return;
    const edit = { op: "set", kind: "trial", id: trial.id, field: "steps", from: trial.steps, to: steps };
    if (same(steps, trial.steps) || (await store.submit([edit as never])).ok) setTyped(null);
  };
  return (
    <>
      <LineInput
        {...STEP_NAMES}
        lines
        label={`Steps of ${trial.name}`}
        className="min-h-28"
        placeholder={
          "wear Oilskin coat\ndamage Vigour 0.5 per second\nexpect Vigour >= 10 throughout\nuse Eel pie every 5m\nwait 20m"
        }
        text={text}
        onText={setTyped}
        onWrite={() => void write()}
        onEscape={() => setTyped(null)}
      />
      <ul>
        {issues.slice(0, 6).map((i) => (
          <li key={`${i.from}${i.message}`} className="text-[12px] text-beet">
            line {text.slice(0, i.from).split("\n").length}: {i.message}{" "}
            {i.suggestions.slice(0, 3).map((by) => (
              <button
                key={by}
                type="button"
                className="mr-1 underline"
                onClick={() => setTyped(`${text.slice(0, i.from)}${by}${text.slice(i.to)}`)}
              >
                {by}
              </button>
            ))}
          </li>
        ))}
      </ul>
      {dirty && (
        <div className="mt-1 flex gap-1.5">
          <Button look="solid" disabled={!steps} onClick={() => void write()}>
            Save steps
          </Button>
          <Button look="quiet" onClick={() => setTyped(null)}>
            Discard
          </Button>
        </div>
      )}
    </>
  );
}
