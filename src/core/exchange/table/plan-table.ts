/**
 * What a table would do to a pantry, cell by cell, before anything is written: which rows are new, which change what,
 * which are refused and why. A row with a cell that is refused is left out whole; the others can go in without it.
 */
import { type Catalogue, recordAt } from "../../catalogue/catalogue";
import { difference, type Edit } from "../../catalogue/edit";
import { ownProblem } from "../../catalogue/fields";
import { keyIndex } from "../../catalogue/keys";
import { around, namesOf } from "../../catalogue/surroundings";
import { NewNames } from "../../editing/new-names";
import {
  type AnyRecord,
  definition,
  isKind,
  type Kind,
  kindWord,
  type OwnField,
  type Stat,
  withDefaults,
} from "../../kinds/index";
import { cut } from "../../schema/characters";
import type { Field, Typing } from "../../schema/field";
import { type Id, newId } from "../../schema/id";
import { MOST_EDITS } from "../../schema/limits";
import { normalise } from "../../schema/names";
import type { OwnValue } from "../../schema/own-value";
import { fieldAt, type Path, pathOf, valueAt, withValue } from "../../schema/record";
import { pathByKey } from "../../catalogue/filters";
import { withoutUnit } from "../../numbers/typed";
import { isPercent } from "../../numbers/measures";
import { cellProblem, type DecimalSign, formatOf, isDate, readLocal } from "./local";
import type { Cells, Table } from "./read-table";
import { NEW_FIELD, NEW_STAT, NOTHING, type Target } from "./targets";

export interface TableOptions {
  readonly kind: Kind;
  /** For each column what it is read into. */
  readonly targets: readonly Target[];
  readonly decimal: DecimalSign;
  /** Kinds whose records are made where a name is new. */
  readonly make: ReadonlySet<Kind>;
  /** Whether an empty cell takes out what stands there; else it leaves it. */
  readonly clears: boolean;
}

export interface PlannedCell {
  readonly column: number;
  readonly before: string;
  readonly after: string;
}
export interface RefusedCell {
  /** −1: the row as a whole. */
  readonly column: number;
  readonly message: string;
}
export interface PlannedRow {
  /** Of the file, from 1. */
  readonly number: number;
  readonly state: "new" | "changed" | "same" | "refused";
  readonly name: string;
  readonly cells: readonly PlannedCell[];
  readonly refused: readonly RefusedCell[];
}
export interface TablePlan {
  readonly rows: readonly PlannedRow[];
  /** What keeps all of it from being read. */
  readonly message: string | null;
  /** Names that are not there, by kind, and how many cells name them. */
  readonly unknown: ReadonlyMap<Kind, ReadonlyMap<string, number>>;
  readonly edits: readonly Edit[];
}

/** Kinds that a name can be made of where someone says so: nothing else has to be known of them. */
export const MAKEABLE: readonly Kind[] = ["item", "type", "tag", "rarity", "slot", "cooldown", "currency", "situation"];

interface Column {
  readonly at: Path;
  readonly field: Field;
  readonly number: number;
}

type Identified =
  | { readonly name: string; readonly key: string; readonly record?: AnyRecord }
  | { readonly name: string; readonly key: string; readonly column: number; readonly message: string };
/** A row, and the record that it is or becomes. */
interface Begun {
  readonly cells: Cells;
  readonly number: number;
  readonly found: Identified;
  readonly before: AnyRecord | null;
  readonly start: AnyRecord;
}
/** What a row comes to. */
interface Judged {
  readonly id: Id;
  readonly planned: PlannedRow;
  readonly edits: readonly Edit[];
  /** Records that other rows become and that this one names. */
  readonly names: ReadonlySet<Id>;
}

/** Rows behind those that they name, so that what is written in parts names nothing that is not there yet. */
function namedFirst(rows: readonly Judged[]): readonly Judged[] {
  const byId = new Map(rows.map((row) => [row.id, row]));
  const ordered = new Set<Judged>();
  const begun = new Set<Judged>();
  for (const start of rows) {
    const waiting = [start];
    while (waiting.length) {
      const row = waiting[waiting.length - 1];
      const first = begun.has(row) ? [] : [...row.names].flatMap((id) => byId.get(id) ?? []);
      begun.add(row);
      const open = first.filter((each) => !begun.has(each));
      if (open.length) waiting.push(...open);
      else ordered.add(waiting.pop() as Judged);
    }
  }
  return [...ordered];
}

/** Edits in parts that each fit in one change. */
export function editsInParts(edits: readonly Edit[], most = MOST_EDITS): readonly (readonly Edit[])[] {
  const parts: (readonly Edit[])[] = [];
  for (let from = 0; from < edits.length; from += most) parts.push(edits.slice(from, from + most));
  return parts;
}

/** Reads a whole table; work that grows with its cells, and with nothing else. */
export function planTable(catalogue: Catalogue, table: Table, options: TableOptions): TablePlan {
  return new Planning(catalogue, table, options).plan();
}

class Planning {
  private readonly unknown = new Map<Kind, Map<string, number>>();
  private readonly names: NewNames;
  private readonly typing: Typing;
  /** Records that are made of names, by kind and name. */
  private readonly made = new Map<string, { readonly kind: Kind; readonly record: AnyRecord }>();
  private readonly madeNames = new Map<Id, string>();
  /** Records that rows become, by name and key; null: of several. */
  private readonly rowIds = new Map<string, Id | null>();
  /** Those of them that the row names which is read. */
  private named = new Set<Id>();
  /** Stats and fields that columns make. */
  private readonly columnsMade: Edit[] = [];
  private readonly keys = new Map<string, number>();
  /** Columns that are read into something. */
  private readonly read = new Set<number>();

  constructor(
    private readonly catalogue: Catalogue,
    private readonly table: Table,
    private readonly options: TableOptions,
  ) {
    this.names = new NewNames(catalogue);
    const numbers = formatOf(options.decimal);
    this.typing = {
      ...around(catalogue),
      numbers,
      make: (kind, name) => this.coming(kind, name) ?? this.make(kind, name),
      coming: (kind, name) => this.coming(kind, name),
    };
  }

  plan(): TablePlan {
    const { targets } = this.options;
    const none = (message: string): TablePlan => ({ rows: [], message, unknown: this.unknown, edits: [] });
    if (!targets.includes("key") && !targets.includes("name"))
      return none("Choose the column with the name or the key, which identifies the record of each row.");
    const twice = targets.find((t, k) => t !== NOTHING && !t.startsWith("new ") && targets.indexOf(t) < k);
    if (twice) return none(`Two columns are imported into ${twice}. Skip one of them.`);
    const columns = targets.flatMap((target, number) => this.column(target, number) ?? []);
    for (const { number } of columns) this.read.add(number);
    const begun = this.table.rows.flatMap((cells, k): Begun[] =>
      cells.every((cell) => cell.trim() === "") ? [] : [this.begin(columns, cells, this.table.first + k)],
    );
    const judged = this.withoutRefused(begun.map((row) => this.row(columns, row)));
    const rows = judged.map(({ planned }) => planned);
    const edits = namedFirst(judged).flatMap((row) => row.edits);
    const made = [...this.made.values()].map((each): Edit => ({ op: "add", ...each }));
    const something = edits.length > 0;
    return {
      rows,
      message: null,
      unknown: this.unknown,
      edits: something ? [...this.columnsMade, ...made, ...edits] : [],
    };
  }

  private column(target: Target, number: number): Column | null {
    const { kind } = this.options;
    if (target === NOTHING) return null;
    if (target === NEW_STAT || target === NEW_FIELD) return this.newColumn(target, number);
    const path = pathByKey(this.catalogue, kind, target);
    const at = pathOf(definition(kind), path);
    return at && { at, number, field: fieldAt(at, around(this.catalogue)) };
  }

  /** A column that becomes a stat or a field of its own; of a field the form follows from what stands in it. */
  private newColumn(target: Target, number: number): Column | null {
    const { kind, decimal } = this.options;
    const name = cut(this.table.head[number] || `Column ${number + 1}`, 100);
    const cells = this.table.rows.flatMap((row) => row[number]?.trim() || []);
    const numbers = cells.map((cell) => readLocal(cell, decimal));
    // What is counted in one unit throughout is counted in it; in several, it is no number.
    const units = new Set(cells.map((cell) => withoutUnit(cell).unit));
    const [unit = ""] = units;
    const numeric = cells.length > 0 && units.size === 1 && numbers.every((n) => n !== null);
    const percent = numeric && isPercent(unit);
    const whole = numeric && !percent && numbers.every(Number.isInteger);
    const form = percent ? "percent" : whole ? "whole" : "decimal";
    const counted = numeric && !percent ? { unit } : {};
    const made = target === NEW_STAT ? "stat" : "field";
    const given = { id: newId(), key: this.names.keys.next(made, name), name };
    const record =
      made === "stat"
        ? withDefaults("stat", { ...given, ...counted, form } as Partial<Stat> & typeof given)
        : withDefaults("field", {
            ...given,
            ...counted,
            of: kind as OwnField["of"],
            form: numeric ? form : cells.some((c) => c.length > 200) ? "long text" : "text",
          } as Partial<OwnField> & typeof given);
    const at = pathOf(definition(kind), `${made === "stat" ? "stats" : "own"}.${given.id}`);
    if (!at) return null;
    this.columnsMade.push({ op: "add", kind: made, record });
    const here = around(this.catalogue);
    const field = fieldAt(at, { ...here, record: (k, id) => (id === given.id ? record : here.record(k, id)) });
    return { at, number, field };
  }

  /** What a new name becomes: a record, where that was ticked. */
  private make(kind: string, name: string): Id | null {
    if (!isKind(kind) || !MAKEABLE.includes(kind)) return null;
    const normalised = `${kind} ${normalise(name)}`;
    const there = this.made.get(normalised);
    if (there) return there.record.id;
    if (!this.options.make.has(kind)) {
      const names = this.unknown.get(kind) ?? new Map<string, number>();
      names.set(name, (names.get(name) ?? 0) + 1);
      this.unknown.set(kind, names);
      return null;
    }
    const given = { id: newId(), key: this.names.keys.next(kind, name), name: cut(name, 100).trim() };
    const record = withDefaults(kind, { ...given, ...definition(kind).fromName } as never) as AnyRecord;
    this.made.set(normalised, { kind, record });
    this.madeNames.set(record.id, record.name);
    return record.id;
  }

  private has = (kind: string, id: Id): boolean =>
    this.typing.has(kind, id) ||
    this.madeNames.has(id) ||
    this.columnsMade.some((e) => e.op === "add" && e.record.id === id);

  /** Which record a row is. What it is called may be named by any other row, above it or below. */
  private begin(columns: readonly Column[], cells: Cells, number: number): Begun {
    const found = this.identify(columns, (c) => (cells[c.number] ?? "").trim(), number);
    const before = ("record" in found ? found.record : undefined) ?? null;
    const start = before ?? this.fresh(found.name, found.key);
    if (!before && !("message" in found)) {
      // A name of several is the name of none of them.
      for (const called of new Set([normalise(start.name), normalise(start.key)]))
        this.rowIds.set(called, this.rowIds.has(called) ? null : start.id);
      this.madeNames.set(start.id, start.name);
    }
    return { cells, number, found, before, start };
  }

  /** The record that a row of this table becomes. */
  private coming(kind: string, name: string): Id | null {
    const id = kind === this.options.kind ? (this.rowIds.get(normalise(name)) ?? null) : null;
    if (id) this.named.add(id);
    return id;
  }

  /** A row that names one that is refused can't be written without it. */
  private withoutRefused(judged: readonly Judged[]): readonly Judged[] {
    const gone = new Map(
      judged.flatMap(({ id, planned }) => (planned.state === "refused" ? [[id, planned.name] as const] : [])),
    );
    let rows = judged;
    for (let size = -1; gone.size > size; ) {
      size = gone.size;
      rows = rows.map((row) => {
        const missing = row.planned.state === "refused" ? undefined : [...row.names].find((id) => gone.has(id));
        if (!missing) return row;
        gone.set(row.id, row.planned.name);
        const message = `It refers to ${gone.get(missing)}, whose row was rejected.`;
        return {
          ...row,
          edits: [],
          planned: { ...row.planned, state: "refused", cells: [], refused: [{ column: -1, message }] },
        };
      });
    }
    return rows;
  }

  private row(columns: readonly Column[], { cells, number, found, before, start }: Begun): Judged {
    const { kind, clears } = this.options;
    const refused: RefusedCell[] = [];
    this.named = new Set();
    const text = (c: Column): string => (cells[c.number] ?? "").trim();
    const stray = cells.findIndex((cell, k) => cell.trim() !== "" && !this.table.head[k] && !this.read.has(k));
    if (stray >= 0)
      refused.push({
        column: -1,
        message: `“${cut(cells[stray], 40)}” is in cell ${stray + 1}, which has no column heading.`,
      });
    const title = found.name || `Row ${number}`;
    if ("message" in found) refused.push({ column: found.column, message: found.message });
    let after: AnyRecord = start;
    const changed: PlannedCell[] = [];
    for (const column of columns) {
      const typed = text(column);
      if (typed === "" && (!clears || column.at.name === "key" || column.at.name === "name")) continue;
      // What stands there already was judged when it was written.
      if (before && typed !== "" && this.written(column, before) === typed) continue;
      const read = this.cell(column, typed);
      if ("message" in read) {
        refused.push({ column: column.number, message: read.message });
        continue;
      }
      const next = withValue(after, column.at, read.value);
      const was = this.shown(column, before ? valueAt(before, column.at) : null);
      const is = this.shown(column, valueAt(next, column.at));
      after = next;
      if (was !== is) changed.push({ column: column.number, before: was, after: is });
    }
    const { id } = start;
    const names = this.named;
    if (refused.length)
      return { id, names, edits: [], planned: { number, state: "refused", name: title, cells: [], refused } };
    const edits = before ? difference(kind, before, after) : [{ op: "add", kind, record: after } as Edit];
    const state = before ? (edits.length ? "changed" : "same") : "new";
    return { id, names, edits, planned: { number, state, name: title, cells: changed, refused } };
  }

  private fresh(name: string, key: string): AnyRecord {
    const { kind } = this.options;
    const given = { id: newId(), key: key || this.names.keys.next(kind, name || kindWord(kind)), name };
    return withDefaults(kind, given as never) as AnyRecord;
  }

  /** Which record a row is: by its key, else by its name. Each row is another. */
  private identify(columns: readonly Column[], text: (column: Column) => string, number: number): Identified {
    const { kind } = this.options;
    const [byKey, byName] = ["key", "name"].map((wanted) => columns.find((c) => c.at.name === wanted));
    const key = byKey ? text(byKey) : "";
    const name = byName ? text(byName) : "";
    const at = (byKey ?? byName)?.number ?? -1;
    const wrong = (message: string, column = at) => ({ name: name || key, key, column, message });
    if (!key && !name) return wrong(`The name${byKey ? " and key are" : " is"} missing.`);
    const same = this.keys.get(normalise(key || name));
    if (same !== undefined) return wrong(`Row ${same} is already for this ${kindWord(kind)}.`);
    this.keys.set(normalise(key || name), number);
    if (key) {
      const record = recordAt(this.catalogue, kind, keyIndex(this.catalogue, kind).get(normalise(key)) ?? ("" as Id));
      if (record) return { name: name || record.name, key: record.key, record };
      if (!name) return { name: key.replace(/_/g, " ").replace(/^./, (c) => c.toUpperCase()), key };
      return { name, key };
    }
    const found = namesOf(this.catalogue, kind).find(name);
    if (found.found === "several")
      return wrong(
        `${found.keys.length} ${kindWord(kind, true)} are called “${name}”. Add a column with their keys: ${found.keys.join(", ")}.`,
      );
    if (found.found === "none") return { name, key: "" };
    const record = recordAt(this.catalogue, kind, found.id);
    return record ? { name, key: record.key, record } : { name, key: "" };
  }

  private cell({ at, field }: Column, typed: string): { readonly value: unknown } | { readonly message: string } {
    if (typed === "") return { value: at.part === null ? field.initial : null };
    const unreadable = cellProblem(typed);
    if (unreadable) return { message: unreadable };
    if (field.numeric && field.type !== "duration") {
      if (isDate(typed))
        return {
          message: `“${typed}” is a date: spreadsheets make dates of numbers such as 3/4 or 1.5. Enter the number as text.`,
        };
      if (readLocal(typed, this.options.decimal) === null)
        return { message: `“${cut(typed, 60)}” isn't a number with “${this.options.decimal}” as decimal separator.` };
    }
    const read = field.parse(typed, this.typing);
    if ("message" in read) return read;
    let message: string | null = null;
    field.check(read.value, { has: this.has as never, fault: (_, why) => (message ??= why) });
    const owned = at.name === "own" && at.part ? this.catalogue.records.field.get(at.part as Id) : undefined;
    message ??= owned ? ownProblem(owned, this.options.kind, read.value as OwnValue, this.has) : null;
    return message === null ? read : { message };
  }

  private written({ at, field }: Column, record: AnyRecord): string {
    const value = valueAt(record, at);
    return value === null ? "" : field.format(value, this.typing).trim();
  }

  private shown({ field }: Column, value: unknown): string {
    if (value === null || value === undefined || (Array.isArray(value) && !value.length)) return "";
    const here = around(this.catalogue);
    const nameOf = (kind: string, id: Id) => this.madeNames.get(id) ?? here.nameOf(kind, id);
    return field.depth === 0 && !field.targets.length
      ? field.format(value, here)
      : field.say(value, { ...here, nameOf });
  }
}

/** Rows that were refused as a table of their own, with a column that says why. */
export const REASONS = "Problem";
export function refusedTable(table: Table, plan: TablePlan): Cells[] {
  const rows = plan.rows.filter((r) => r.state === "refused");
  const cellsOf = (number: number): Cells => table.rows[number - table.first];
  // What stood under no head stays where it stood.
  const wide = Math.max(table.head.length, ...rows.map((r) => cellsOf(r.number).length));
  const all = (cells: Cells) => Array.from({ length: wide }, (_, k) => cells[k] ?? "");
  return [
    [...all(table.head), REASONS],
    ...rows.map(({ number, refused }) => {
      const why = refused
        .map(({ column, message }) => (column < 0 ? message : `${table.head[column]}: ${message}`))
        .join(" ");
      return [...all(cellsOf(number)), why];
    }),
  ];
}
