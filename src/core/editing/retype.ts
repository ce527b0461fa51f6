/** A designers' field becomes another: what each of its values would be then, what would be lost, and the edits. */
import type { Catalogue } from "../catalogue/catalogue";
import { type Edit, setField, type Value } from "../catalogue/edit";
import { ownProblem } from "../catalogue/fields";
import { referrersTo } from "../catalogue/references";
import { around } from "../catalogue/surroundings";
import type { AnyRecord, Kind, OwnField } from "../kinds/index";
import { fieldOfDefinition } from "../kinds/own";
import type { Id } from "../schema/id";
import { same } from "../schema/json";
import { normalise } from "../schema/names";
import type { OwnValue } from "../schema/own-value";
import { NewNames } from "./new-names";

/** What of a field may become another together with its form. */
export type Redefinition = Partial<Pick<OwnField, "form" | "of" | "to" | "options">>;

export interface RetypeOptions {
  /** Decimals become whole numbers by rounding; else those that are not whole are lost. */
  readonly round: boolean;
  /** Words that are no option of a choice become options of it; else they are lost. */
  readonly widen: boolean;
}

/** One value: what it is, what it would be, or why it would be lost. */
export interface RetypeRow {
  readonly kind: Kind;
  readonly record: AnyRecord;
  readonly before: string;
  readonly after: string | null;
  readonly message: string | null;
}
export interface RetypePlan {
  readonly rows: readonly RetypeRow[];
  readonly lost: number;
  readonly edits: readonly Edit[];
  /** Records that are made because a text names one that is not there. */
  readonly made: number;
}

const NUMBERS = ["whole", "decimal", "percent", "duration"];
const WORDS = ["text", "long text", "choice", "file"];

/**
 * Numbers stay the numbers that they are, of durations the ticks. Everything else is read again from what it is written
 * as, by the rules that hold for typing.
 */
export function planRetype(
  catalogue: Catalogue,
  field: OwnField,
  wanted: Redefinition,
  { round, widen }: RetypeOptions,
): RetypePlan {
  const here = around(catalogue);
  const names = new NewNames(catalogue);
  const holders = [...referrersTo(catalogue, "field", new Set([field.id]))].flatMap(({ kind, record }) => {
    const value = "own" in record ? (record.own as { readonly [id: string]: OwnValue })[field.id] : undefined;
    return value === undefined ? [] : [{ kind, record, value }];
  });
  const before = fieldOfDefinition(field);
  let after: OwnField = { ...field, ...wanted };
  if (after.form === "choice" && widen)
    after = {
      ...after,
      options: widened(
        after.options,
        holders.map(({ value }) => before.format(value, here)),
      ),
    };
  const made = fieldOfDefinition(after);
  const has = (kind: string, id: Id) =>
    here.has(kind, id) || names.edits.some((e) => e.op === "add" && e.record.id === id);

  const convert = (value: OwnValue): { readonly value: OwnValue } | { readonly message: string } => {
    const numeric = NUMBERS.includes(field.form) && NUMBERS.includes(after.form);
    if (numeric && typeof value === "number") {
      const whole = after.form === "whole" || after.form === "duration";
      return { value: whole && round ? Math.round(value) + 0 : value };
    }
    if (field.form === after.form && field.to === after.to) return { value };
    // A line can hold what several said, with spaces where lines ended.
    const written = before.format(value, here);
    const text = after.form !== "long text" && WORDS.includes(after.form) ? written.replace(/\s*\n\s*/g, " ") : written;
    if (after.form === "whole" && round && Number.isFinite(Number(text)))
      return { value: Math.round(Number(text)) + 0 };
    return made.parse(text.trim(), names.typing);
  };

  const edits: Edit[] = [];
  const rows = holders.map(({ kind, record, value }): RetypeRow => {
    const read = convert(value);
    const message = "message" in read ? read.message : ownProblem(after, kind, read.value, has);
    const to = message === null && "value" in read ? read.value : null;
    if (!same(to, value)) edits.push(setField(catalogue, kind, record.id, `own.${field.id}`, to as Value));
    const written = to === null ? null : made.format(to, around(catalogue));
    return { kind, record, before: before.format(value, here), after: written, message };
  });
  const redefined = (["of", "form", "to", "options"] as const)
    .filter((name) => !same(field[name], after[name]))
    .map((name) => setField(catalogue, "field", field.id, name, after[name] as Value));
  return {
    rows,
    lost: rows.filter((r) => r.after === null).length,
    edits: [...names.edits, ...redefined, ...edits],
    made: names.edits.length,
  };
}

/** Options with the words that are none of them yet. */
function widened(options: readonly string[], words: readonly string[]): readonly string[] {
  const found = new Map(options.map((word) => [normalise(word), word]));
  for (const text of words) {
    const word = text
      .replace(/[,;\n]+/g, " ")
      .trim()
      .slice(0, 60)
      .trim();
    if (word && !found.has(normalise(word))) found.set(normalise(word), word);
  }
  return [...found.values()];
}
