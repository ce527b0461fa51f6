/** Reads a file into edits. Every fault is reported with its place; with one fault or more nothing is written. */
import { apply } from "../catalogue/apply";
import { type Catalogue, emptyCatalogue, recordAt, recordsOf } from "../catalogue/catalogue";
import { difference, type Edit, fieldWord, setField, type Value, valueAt } from "../catalogue/edit";
import { keyIndex } from "../catalogue/keys";
import { issuesOf } from "../catalogue/rules";
import { around } from "../catalogue/surroundings";
import { NewNames } from "../editing/new-names";
import {
  type AnyRecord,
  definition,
  isKind,
  type Kind,
  KINDS,
  kindWord,
  type Pantry,
  PANTRY_DEFAULTS,
  type Subject,
} from "../kinds/index";
import { NameBook } from "../notation/book";
import { iconsOf } from "../catalogue/icons";
import { shown } from "../schema/characters";
import type { BundleReading, Surroundings } from "../schema/field";
import { type Id, newId } from "../schema/id";
import type { Issue } from "../schema/issue";
import type { Json, JsonObject } from "../schema/json";
import { normalise, keyFrom, nearest } from "../schema/names";
import { bundleDefaults, bundleNames, fieldOf, fromBundle } from "../schema/record";
import type { Format, Row, Rows } from "./format";
import { idOfNamed, type Identity, identify, sentence } from "./identities";
import { bundleFormat, isRow } from "./parse";
import type { ReadPicture } from "./pictures";
import { type OnProgress, TOLD_EVERY } from "./progress";
import { Report } from "./report";

export interface Plan {
  readonly issues: readonly Issue[];
  /** Remarks that do not stop the import, such as names that become stubs. */
  readonly notes: readonly Issue[];
  readonly edits: readonly Edit[];
  /** The catalogue as it will be then. */
  readonly next: Catalogue;
  readonly added: number;
  readonly changed: number;
  readonly removed: number;
  readonly same: number;
  /** Settings of the pantry that would change. */
  readonly settings: number;
  /** Pictures that come along. */
  readonly pictures: readonly ReadPicture[];
  /** Icons that records of the file newly have and that do not come along: those that no one knows are to be told. */
  readonly icons: readonly SaidIcon[];
}
export interface SaidIcon {
  readonly icon: string;
  /** Where it stands first in the file. */
  readonly place: string;
  /** How many records of the file say it. */
  readonly times: number;
}

/** After so many issues near names are no longer looked for. */
const OFFERED = 20;

/** The settings that a bundle gives, by field. */
const settingsOf = (row: JsonObject, from: BundleReading): { readonly [field: string]: unknown } =>
  fromBundle(definition("pantry"), row, "pantry", from, undefined);

/** Settings of a new pantry for a file, defaults where it says nothing; what can't be one is reported. */
function newPantry(given: Row | null, report: Report): Omit<Pantry, "id"> {
  const from: BundleReading = {
    fault: report.error,
    unknown: report.unknown,
    ticksPerSecond: 20,
    reference: () => null,
  };
  const known = settingsOf(given?.row ?? {}, from) as Partial<Pantry>;
  const name = known.name ?? (typeof known.key === "string" ? sentence(known.key) : "Pantry");
  const key = known.key ?? keyFrom(typeof name === "string" ? name : "", "pantry");
  const settings = { ...PANTRY_DEFAULTS, ...known, key, name };
  const whole: Pantry = { id: newId(), ...settings };
  for (const { path, message } of issuesOf(emptyCatalogue(whole), "pantry", whole))
    report.error(`pantry.${path}`, message);
  return settings;
}

/** The same for a bundle that was read already. */
export function bundlePantry(bundle: JsonObject): {
  readonly settings: Omit<Pantry, "id">;
  readonly issues: readonly Issue[];
} {
  const report = new Report();
  const { pantry } = bundle;
  if (pantry !== undefined && !isRow(pantry))
    report.error("pantry", `Expected an object with the pantry's settings, not ${shown(pantry)}.`);
  const settings = newPantry(isRow(pantry) ? { row: pantry, place: "pantry" } : null, report);
  return { settings, issues: report.issues };
}

/**
 * The edits that bring a catalogue to what a file says. Records are matched by key. Records and fields the file does not
 * name stay as they are; with `replace` the pantry becomes exactly what the file says. Names that exist nowhere become
 * stubs.
 */
export function planImport(catalogue: Catalogue, text: string, options: ImportOptions = {}): Plan {
  const { replace = false, format = bundleFormat, progress = () => undefined } = options;
  const report = new Report();
  const rows = format.read(text, report);
  if (rows) return new Import(catalogue, rows, replace, report, progress).plan();
  const { issues, notes } = report;
  return {
    issues,
    notes,
    edits: [],
    next: catalogue,
    added: 0,
    changed: 0,
    removed: 0,
    same: 0,
    settings: 0,
    pictures: [],
    icons: [],
  };
}

export interface ImportOptions {
  /** Whether records that the file does not name are taken out. */
  readonly replace?: boolean;
  readonly format?: Format;
  readonly progress?: OnProgress;
}

interface ReadRecord {
  readonly kind: Kind;
  readonly record: AnyRecord;
  readonly place: string;
}

class Import {
  private readonly identities = new Map<Kind, Map<string, Identity>>();
  private readonly stubs: NewNames;
  private readonly ticksPerSecond: number;
  private readonly from: BundleReading;
  private readonly books = new Map<string, NameBook>();
  /** Rows in all, and those that were read. */
  private readonly of: number;
  private done = 0;

  constructor(
    private readonly catalogue: Catalogue,
    private readonly rows: Rows,
    private readonly replace: boolean,
    private readonly report: Report,
    private readonly progress: OnProgress,
  ) {
    this.of = [...rows.records.values()].reduce((sum, list) => sum + list.length, 0);
    this.stubs = new NewNames(catalogue, {
      taken: (kind, normalised) => this.identities.get(kind)?.has(normalised) ?? false,
      idFor: (kind, nth) => idOfNamed(catalogue, kind, nth),
    });
    const given = rows.settings?.row.ticksPerSecond;
    const clock = definition("pantry").fields.ticksPerSecond;
    let wrong = given === undefined;
    clock.check(given, { has: () => false, fault: () => (wrong = true) });
    this.ticksPerSecond = wrong ? catalogue.pantry.ticksPerSecond : (given as number);
    const { error: fault, unknown } = this.report;
    this.from = { ticksPerSecond: this.ticksPerSecond, fault, unknown, reference: this.reference.bind(this) };
  }

  plan(): Plan {
    const records: ReadRecord[] = [];
    const identifyAll = (kind: Kind) => {
      this.identities.set(kind, identify(this.catalogue, kind, this.rowsOf(kind), this.report));
    };
    // Lines are read when the names of everything else are known: they name records, and give names.
    const [written, structured] = [true, false].map((has) =>
      KINDS.filter((k) => (definition(k).notation !== undefined) === has),
    );
    for (const kind of structured) identifyAll(kind);
    const lines = written.map((kind) => {
      const read = this.rowsOf(kind).map((row) => ({ row, line: this.line(kind, row) }));
      for (const { row, line } of read) if (line) row.row.name ??= line.name as string;
      identifyAll(kind);
      return [kind, read] as const;
    });
    for (const kind of structured) for (const row of this.rowsOf(kind)) this.read(records, kind, row, null);
    for (const [kind, read] of lines) for (const { row, line } of read) this.read(records, kind, row, line);
    return this.edits(records);
  }

  private rowsOf(kind: Kind): readonly Row[] {
    return this.rows.records.get(kind) ?? [];
  }

  /** Names of a kind as they will be: those of the bundle, and of the pantry's records that it does not name. */
  private names(kind: string): NameBook {
    let book = this.books.get(kind);
    if (!book) {
      const here = isKind(kind) ? this.identities.get(kind) : undefined;
      const there = isKind(kind) ? [...recordsOf(this.catalogue, kind).values()] : [];
      book = new NameBook([...there.filter((r) => !here?.has(normalise(r.key))), ...(here?.values() ?? [])]);
      this.books.set(kind, book);
    }
    return book;
  }

  /** What the line of a row says, where it has one. */
  private line(kind: Kind, { row, place }: Row): { readonly [field: string]: unknown } | null {
    const { notation } = definition(kind);
    if (!notation || !Object.hasOwn(row, "line")) return null;
    if (typeof row.line !== "string") {
      this.report.error(`${place}.line`, "Expected a recipe line in quotes.");
      return null;
    }
    const here: Surroundings = {
      ...around(this.catalogue),
      ticksPerSecond: this.ticksPerSecond,
      names: this.names.bind(this),
    };
    const { fields, issues } = notation.read(row.line, here, this.stubs.named);
    for (const { path, message, severity, suggestions } of issues)
      this.report[severity === "error" ? "error" : "note"](
        `${place}${row.line ? ".line" : ""}, ${path}`,
        message,
        suggestions,
      );
    return fields;
  }

  private read(records: ReadRecord[], kind: Kind, row: Row, line: { readonly [field: string]: unknown } | null): void {
    if (++this.done % TOLD_EVERY === 0) this.progress({ stage: "reading", done: this.done, of: this.of });
    const record = this.record(kind, row, line);
    if (record) records.push({ kind, record, place: row.place });
  }

  private record(kind: Kind, { row, place }: Row, line: object | null): AnyRecord | null {
    const known = typeof row.key === "string" ? this.identities.get(kind)?.get(normalise(row.key)) : undefined;
    if (!known || known.key !== row.key || (Object.hasOwn(row, "line") && !line)) {
      if (!this.report.failed) this.report.error(place, "This can't be read.");
      return null;
    }
    const there = recordAt(this.catalogue, kind, known.id) as Readonly<Record<string, unknown>> | undefined;
    const names = bundleNames(definition(kind));
    const said = line ? (definition(kind).notation?.coveredFields ?? []) : [];
    for (const name of Object.keys(row)) {
      if (!names.has(name)) this.report.unknown(place, name, [...names]);
      else if (said.includes(name))
        this.report.error(`${place}.${name}`, `The line already contains this. Use either "${name}" or the line.`);
    }
    // A record that is there already keeps what the bundle does not say, unless the bundle is to replace everything.
    const kept = this.replace ? undefined : there;
    const out: Record<string, unknown> = { ...(kept ?? bundleDefaults(definition(kind))), ...line, id: known.id };
    const structured = Object.fromEntries(Object.entries(row).filter(([name]) => !said.includes(name)));
    Object.assign(out, fromBundle(definition(kind), structured, place, this.from, there));
    return out as unknown as AnyRecord;
  }

  private reference(kind: string, value: Json | undefined, place: string): Id | null {
    if (!isKind(kind)) return null;
    if (typeof value !== "string" || !value) {
      this.report.error(place, `Expected the key of ${kind === "item" ? "an item" : `a ${kindWord(kind)}`}.`);
      return null;
    }
    const normalised = normalise(value);
    const here = this.identities.get(kind)?.get(normalised)?.id ?? keyIndex(this.catalogue, kind).get(normalised);
    if (here) return here;
    if ((definition(kind).fromName as { status?: string } | undefined)?.status === "stub") {
      const found = this.names(kind).find(value);
      if (found.found === "one") return found.id;
      const name = sentence(value);
      if (!this.stubs.has(kind, name))
        this.report.note(place, `There is no ${kindWord(kind)} ${shown(value)}; it becomes a stub.`);
      return this.stubs.make(kind, name, value);
    }
    const keys = () => [...(this.identities.get(kind)?.values() ?? [])].map((k) => k.key);
    const offers =
      this.report.issues.length > OFFERED ? [] : nearest(value, [...keys(), ...keyIndex(this.catalogue, kind).keys()]);
    this.report.error(
      place,
      `There is no ${kindWord(kind)} ${shown(value)}.${offers.length ? ` Did you mean ${offers.join(" or ")}?` : ` Add it to "${definition(kind).section}".`}`,
      offers,
    );
    return null;
  }

  private edits(records: readonly ReadRecord[]): Plan {
    const edits: Edit[] = [...this.stubs.edits];
    const tally = { added: edits.length, changed: 0, removed: 0, same: 0 };
    const named = new Set<Id>();
    for (const { kind, record } of records) {
      named.add(record.id);
      const before = recordAt(this.catalogue, kind, record.id);
      if (!before) {
        edits.push({ op: "add", kind, record });
        tally.added++;
        continue;
      }
      const changes = difference(kind, before, record);
      edits.push(...changes);
      tally[changes.length ? "changed" : "same"]++;
    }
    const settings = this.settings();
    edits.push(...settings);
    if (this.replace)
      for (const kind of [...KINDS].reverse())
        for (const record of recordsOf(this.catalogue, kind).values())
          if (!named.has(record.id)) {
            edits.push({ op: "remove", kind, record });
            tally.removed++;
          }
    const icons = this.icons(records);
    const told = { ...tally, settings: settings.length, pictures: this.rows.pictures, icons };
    const outcome = this.report.failed ? null : apply(this.catalogue, edits);
    if (outcome?.ok) {
      const { issues, notes } = this.report;
      return { issues, notes, edits: outcome.edits, next: outcome.catalogue, ...told };
    }
    const places = new Map(records.map((r) => [r.record.id, r.place]));
    for (const f of outcome?.issues ?? [])
      this.report.error(`${places.get(f.id) ?? f.kind}.${this.placeOf(f.kind, f.path)}`, f.message);
    const { issues, notes } = this.report;
    return { issues, notes, edits: [], next: this.catalogue, ...told };
  }

  /**
   * What the bundle sets of the pantry itself; each is told, for it is easily overlooked among thousands of records.
   */
  private settings(): Edit[] {
    const { pantry } = this.catalogue;
    newPantry(this.rows.settings, this.report);
    const given = this.rows.settings?.row ?? {};
    const names = bundleNames(definition("pantry"));
    for (const name of Object.keys(given)) if (!names.has(name)) this.report.unknown("pantry", name, [...names]);
    const quiet: BundleReading = { ...this.from, fault: () => undefined, unknown: () => undefined };
    return Object.entries(settingsOf(given, quiet)).flatMap(([field, value]): Edit[] => {
      const before = valueAt("pantry", pantry, field);
      if (before === value) return [];
      if (field === "key") {
        this.report.note(
          "pantry.key",
          `The bundle's pantry has the key ${shown(value)}; this one keeps its key, “${pantry.key}”.`,
        );
        return [];
      }
      const what =
        field === "name" ? "The pantry's name" : `The setting “${fieldWord(this.catalogue, "pantry", field)}”`;
      this.report.note(`pantry.${field}`, `${what} changes from ${shown(before)} to ${shown(value)}.`);
      return [setField(this.catalogue, "pantry", pantry.id, field, value as Value)];
    });
  }

  private icons(records: readonly ReadRecord[]): SaidIcon[] {
    const known = new Set(this.rows.pictures.map((p) => p.name));
    const said = new Map<string, SaidIcon>();
    for (const { kind, record, place } of records) {
      const before = recordAt(this.catalogue, kind, record.id);
      for (const { field, icon } of iconsOf(kind, record)) {
        if (known.has(icon) || (before && iconsOf(kind, before).some((i) => i.icon === icon))) continue;
        const there = said.get(icon);
        if (there) said.set(icon, { ...there, times: there.times + 1 });
        else said.set(icon, { icon, place: `${place}.${this.placeOf(kind, field)}`, times: 1 });
      }
    }
    return [...said.values()];
  }

  /** The place of a record's field as bundles name it. */
  private placeOf(kind: Subject, path: string): string {
    const [name, ...rest] = path.split(".");
    const field = fieldOf(definition(kind), name);
    if (!field) return path;
    const called = field.members?.(name).called ?? field.options.within ?? field.options.bundled ?? name;
    const part =
      field.parts && isKind(field.parts.kind) && rest.length ? this.keyOf(field.parts.kind, rest[0]) : rest[0];
    return [called, ...(part === undefined ? [] : [part]), ...rest.slice(1)].join(".");
  }

  private keyOf(kind: Kind, id: string): string {
    for (const each of this.identities.get(kind)?.values() ?? []) if (each.id === id) return each.key;
    return recordAt(this.catalogue, kind, id as Id)?.key ?? id;
  }
}
