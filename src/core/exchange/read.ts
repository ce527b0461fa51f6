/** Reads a bundle into edits. Every fault is reported with its place; with one fault or more nothing is written. */
import { type ParseError, parse as parseTolerantly, printParseErrorCode } from "jsonc-parser";
import { type Catalogue, emptyCatalogue, keyIndex, recordAt } from "../catalogue/catalogue";
import { apply, difference, type Edit, fieldWord, setField, type Value } from "../catalogue/changes";
import { fold, KeyAllocator, keyFrom, nearest, newId } from "../catalogue/names";
import {
  type AnyRecord,
  blank,
  type Field,
  FIELDS,
  type Id,
  isWeight,
  type Item,
  type Kind,
  kindWord,
  type Line,
  NEW_PANTRY,
  type Pantry,
  PANTRY_FIELDS,
  type Recipe,
  type Role,
  type Source,
} from "../catalogue/records";
import { isPlain, pantryFaults } from "../catalogue/rules";
import { cut, shown } from "../catalogue/text";
import { NameBook } from "../notation/book";
import { givenName } from "../notation/format";
import { parseLine, type Words } from "../notation/parser";
import { lineFrom, words } from "../notation/write";
import { add, fromNumber, toNumber } from "../numbers/fraction";
import { parseTicks } from "../numbers/ticks";
import { BUNDLE_FORMAT, BUNDLE_VERSION, type Json, LISTS, resting, SECTIONS, type Section } from "./bundle";

export interface Problem {
  /** Where in the file: "recipes[3].outputs[0].item", "line 12, column 4". */
  readonly place: string;
  readonly says: string;
}

export interface Plan {
  readonly problems: readonly Problem[];
  /** Remarks that do not stop the import, such as names that become stubs. */
  readonly notes: readonly Problem[];
  readonly edits: readonly Edit[];
  readonly added: number;
  readonly changed: number;
  readonly removed: number;
  readonly same: number;
  /** Settings of the pantry that would change. */
  readonly settings: number;
}

type Row = { [name: string]: Json };
const isRow = (value: unknown): value is Row => isPlain(value);

/** Most problems, and most notes, that are told of one bundle. */
const TOLD = 500;
/** Larger texts are not gone through a second time to find the place where they stop being JSON. */
const SEARCHED = 2_000_000;
/** After so many problems near names are no longer looked for. */
const OFFERED = 20;

/** The JSON of a bundle, or where it stops being JSON. */
export function parseBundle(text: string): { bundle: Row } | { problems: Problem[] } {
  let value: unknown;
  try {
    value = JSON.parse(text.replace(/^\uFEFF/, ""));
  } catch (error) {
    return { problems: [notJson(text, error as Error)] };
  }
  if (!isRow(value))
    return { problems: [{ place: "file", says: `A bundle is one JSON object with "format": "${BUNDLE_FORMAT}".` }] };
  if (value.format !== BUNDLE_FORMAT)
    return { problems: [{ place: "format", says: `Expected "${BUNDLE_FORMAT}", found ${shown(value.format)}.` }] };
  if (value.version !== BUNDLE_VERSION)
    return {
      problems: [
        { place: "version", says: `This program reads version ${BUNDLE_VERSION}, found ${shown(value.version)}.` },
      ],
    };
  return { bundle: value };
}

/** The engine's own message has no position for short texts: a tolerant parser finds the place. */
function notJson(text: string, { message }: Error): Problem {
  const errors: ParseError[] = [];
  try {
    if (text.length < SEARCHED) parseTolerantly(text, errors, { disallowComments: true });
  } catch {
    // Nested so deep that the tolerant parser gives up: the place stays unknown.
  }
  const said = Number(/at position (\d+)/.exec(message)?.[1] ?? Number.NaN);
  const offset = errors[0]?.offset ?? (Number.isFinite(said) ? said : text.length);
  const before = text.slice(0, offset);
  const lines = before.split("\n").length;
  const place = `line ${lines}, column ${offset - before.lastIndexOf("\n")}`;
  const reason = errors[0]
    ? printParseErrorCode(errors[0].error)
        .replace(/([a-z])([A-Z])/g, "$1 $2")
        .toLowerCase()
    : cut(message, 200);
  return { place, says: `This is not JSON (${reason}).` };
}

/**
 * Settings of a new pantry for a bundle, resting values where it says nothing; what can't be one is told with its
 * place.
 */
export function bundlePantry(bundle: Row): {
  readonly settings: Omit<Pantry, "id">;
  readonly problems: readonly Problem[];
} {
  const given = isRow(bundle.pantry) ? bundle.pantry : {};
  const known = Object.fromEntries(
    Object.entries(given).filter(([name]) => Object.hasOwn(PANTRY_FIELDS, name)),
  ) as Partial<Pantry>;
  const name = known.name ?? (typeof known.key === "string" ? sentence(known.key) : "Pantry");
  const settings = {
    ...NEW_PANTRY,
    ...known,
    key: known.key ?? keyFrom(typeof name === "string" ? name : "", "pantry"),
    name,
  };
  const whole = { id: newId(), ...settings };
  const problems = pantryFaults(emptyCatalogue(whole), whole).map((f) => ({
    place: `pantry.${f.field}`,
    says: f.says,
  }));
  if (bundle.pantry !== undefined && !isRow(bundle.pantry))
    problems.push({
      place: "pantry",
      says: `Expected an object with the pantry's settings, not ${shown(bundle.pantry)}.`,
    });
  return { settings, problems };
}

/**
 * The edits that bring a catalogue to what the bundle says. Records are matched by key. Records and fields the bundle
 * does
 * not name stay as they are; with `replace` the pantry becomes exactly what the bundle says. Names that exist nowhere
 * become stubs.
 */
export function planImport(catalogue: Catalogue, text: string, replace = false): Plan {
  const parsed = parseBundle(text);
  if ("problems" in parsed)
    return { problems: parsed.problems, notes: [], edits: [], added: 0, changed: 0, removed: 0, same: 0, settings: 0 };
  return new Import(catalogue, parsed.bundle, replace).plan();
}

class Import {
  private readonly problems: Problem[] = [];
  private readonly notes: Problem[] = [];
  private readonly ids = new Map<Kind, Map<string, { id: Id; name: string; key: string }>>();
  private readonly stubs = new Map<string, Item>();
  private readonly stubKeys = new KeyAllocator(
    (folded) => keyIndex(this.catalogue, "item").has(folded) || (this.ids.get("item")?.has(folded) ?? false),
  );
  private readonly ticksPerSecond: number;
  private words: Words | null = null;

  constructor(
    private readonly catalogue: Catalogue,
    private readonly bundle: Row,
    private readonly replace: boolean,
  ) {
    const given = isRow(bundle.pantry) ? bundle.pantry.ticksPerSecond : undefined;
    this.ticksPerSecond =
      typeof given === "number" && Number.isInteger(given) && given >= 1 && given <= 1000
        ? given
        : catalogue.pantry.ticksPerSecond;
  }

  plan(): Plan {
    const known = new Set(["format", "version", "pantry", "$schema", ...Object.keys(SECTIONS)]);
    for (const name of Object.keys(this.bundle)) if (!known.has(name)) this.unknown("", name, [...known]);
    const rows = Object.fromEntries(
      Object.keys(SECTIONS).map((section) => [section, this.rows(section as Section)]),
    ) as Record<Section, { row: Row; place: string }[]>;
    const records: { kind: Kind; record: AnyRecord; place: string }[] = [];
    for (const [section, kind] of Object.entries(SECTIONS) as [Section, Kind][])
      if (kind !== "recipe") this.name(kind, rows[section]);
    const itemsOf = this.ids.get("item") ?? new Map();
    const items = new NameBook(
      [...this.catalogue.item.values()].filter((i) => !itemsOf.has(fold(i.key))).concat([...itemsOf.values()] as never),
    );
    const money = this.ids.get("currency") ?? new Map();
    const currencies = new NameBook(
      [...this.catalogue.currency.values()].filter((c) => !money.has(fold(c.key))).concat([...money.values()] as never),
    );
    this.words = words(items, currencies, this.ticksPerSecond);
    for (const [section, kind] of Object.entries(SECTIONS) as [Section, Kind][])
      if (kind !== "recipe")
        for (const { row, place } of rows[section]) this.keep(records, kind, this.record(kind, row, place), place);
    const lines = rows.recipes.map(({ row, place }) => ({
      row,
      place,
      line: Object.hasOwn(row, "line") ? this.line(row, place) : null,
    }));
    for (const { row, line } of lines) if (line) row.name ??= line.name;
    this.name("recipe", lines);
    for (const { row, place, line } of lines)
      this.keep(records, "recipe", this.record("recipe", row, place, line ?? undefined), place);
    return this.edits(records);
  }

  private keep(
    records: { kind: Kind; record: AnyRecord; place: string }[],
    kind: Kind,
    record: AnyRecord | null,
    place: string,
  ) {
    if (record) records.push({ kind, record, place });
  }

  private rows(section: Section): { row: Row; place: string }[] {
    const list = this.bundle[section] ?? [];
    if (!Array.isArray(list)) {
      this.problem(section, "Expected a list.");
      return [];
    }
    return list.flatMap((entry, i) => {
      const place = `${section}[${i}]`;
      if (section === "recipes" && typeof entry === "string") return [{ row: { line: entry } as Row, place }];
      if (isRow(entry)) return [{ row: entry, place }];
      this.problem(place, "Expected an object.");
      return [];
    });
  }

  /** Gives every row its key, name and id before anything refers to it. */
  private name(kind: Kind, rows: { row: Row; place: string }[]): void {
    const index = keyIndex(this.catalogue, kind);
    const ids = new Map<string, { id: Id; name: string; key: string }>();
    const keep = (row: Row, key: string, name: string) => {
      Object.assign(row, { key, name });
      ids.set(fold(key), { id: index.get(fold(key)) ?? newId(), name, key });
    };
    const keyless: { row: Row; name: string }[] = [];
    for (const { row, place } of rows) {
      const texts = ["key", "name"].filter((field) => Object.hasOwn(row, field) && typeof row[field] !== "string");
      for (const field of texts) this.problem(`${place}.${field}`, `Expected text, not ${shown(row[field])}.`);
      if (texts.length) continue;
      const given = row.key as string | undefined;
      const there = given ? recordAt(this.catalogue, kind, index.get(fold(given)) ?? ("" as Id)) : undefined;
      const name = (row.name as string | undefined) ?? there?.name ?? (given ? sentence(given) : "");
      if (!name) this.problem(place, `A ${kindWord(kind)} needs a "key" or a "name".`);
      else if (given === undefined) keyless.push({ row, name });
      else if (ids.has(fold(given)))
        this.problem(
          `${place}.key`,
          `The key ${shown(given)} stands here twice. Keys are unique within a kind, ignoring case and “_”.`,
        );
      else keep(row, given, name);
    }
    if (keyless.length) this.nameKeyless(kind, keyless, ids, keep);
    this.ids.set(kind, ids);
  }

  /**
   * Rows without a key are the pantry's record of the same name whose key is made of it; where there is none, they get
   * a key that is free.
   */
  private nameKeyless(
    kind: Kind,
    rows: readonly { row: Row; name: string }[],
    ids: ReadonlyMap<string, unknown>,
    keep: (row: Row, key: string, name: string) => void,
  ): void {
    const index = keyIndex(this.catalogue, kind);
    const byName = new Map<string, string[]>();
    for (const { name, key } of (this.catalogue[kind] as ReadonlyMap<Id, AnyRecord>).values()) {
      const made = keyFrom(name, kind);
      if (key !== made && !(key.startsWith(`${made}_`) && /^\d+$/.test(key.slice(made.length + 1)))) continue;
      const same = byName.get(fold(name));
      if (same) same.push(key);
      else byName.set(fold(name), [key]);
    }
    for (const keys of byName.values()) keys.sort((a, b) => b.length - a.length || (a < b ? 1 : -1));
    const free = new KeyAllocator((folded) => ids.has(folded) || index.has(folded));
    for (const { row, name } of rows) {
      let key = byName.get(fold(name))?.pop();
      while (key !== undefined && ids.has(fold(key))) key = byName.get(fold(name))?.pop();
      keep(row, key ?? free.next(keyFrom(name, kind)), name);
    }
  }

  private line(
    row: Row,
    place: string,
  ): {
    lines: Line[];
    kind: Recipe["kind"];
    name: string;
    ticks: number;
    fee: number;
    feeCurrency: Id | null;
    level: number | null;
    taughtBy: Id | null;
  } | null {
    if (typeof row.line !== "string") {
      this.problem(`${place}.line`, "Expected a recipe line in quotes.");
      return null;
    }
    const parsed = parseLine(row.line, this.words as Words);
    for (const remark of parsed.remarks) {
      const found = { place: `${place}${row.line ? ".line" : ""}, column ${remark.from + 1}`, says: remark.says };
      if (remark.level === "error") this.problem(found.place, found.says);
      else this.note(found.place, found.says);
    }
    if (!parsed.ok) return null;
    const stub = (unknown: string) => this.stub(unknown, keyFrom(unknown, "item"));
    const lines = parsed.entries.map((e) => lineFrom(e, stub));
    const taughtBy = parsed.taughtBy && (parsed.taughtBy.item ?? stub(parsed.taughtBy.name));
    const name = parsed.label ?? givenName(parsed.kind, (role) => parsed.entries.find((e) => e.role === role)?.name);
    return {
      lines,
      kind: parsed.kind,
      name,
      ticks: parsed.ticks,
      fee: parsed.fee,
      feeCurrency: parsed.feeCurrency,
      level: parsed.level,
      taughtBy,
    };
  }

  private stub(name: string, key: string): Id {
    const there = this.stubs.get(fold(name));
    if (there) return there.id;
    const item = blank("item", {
      id: newId(),
      key: this.stubKeys.next(key),
      name: cut(name, 120).trim(),
      status: "stub",
    });
    this.stubs.set(fold(name), item);
    return item.id;
  }

  private record(kind: Kind, row: Row, place: string, fromLine?: object): AnyRecord | null {
    const known = typeof row.key === "string" ? this.ids.get(kind)?.get(fold(row.key)) : undefined;
    if (!known || known.key !== row.key || (Object.hasOwn(row, "line") && !fromLine)) {
      if (!this.failed) this.problem(place, "This can't be read.");
      return null;
    }
    // A record that is there already keeps what the bundle does not say, unless the bundle is to replace everything.
    const before = this.replace ? undefined : recordAt(this.catalogue, kind, known.id);
    const out: Record<string, unknown> = {
      ...(before ?? resting(kind)),
      id: known.id,
      key: known.key,
      name: row.name,
      ...(fromLine ?? {}),
    };
    const fields = FIELDS[kind] as Record<string, Field>;
    const names = bundleFields(kind);
    for (const [name, value] of Object.entries(row)) {
      if (!names.has(name)) {
        this.unknown(place, name, [...names]);
        continue;
      }
      if (fromLine && ["kind", "time", "fee", "level", "taughtBy", "draws", ...Object.values(LISTS)].includes(name))
        this.problem(`${place}.${name}`, `The line says this already. Give "${name}" or the line, not both.`);
      const field = fields[name];
      if (name === "line" || name === "gives" || name === "draws" || Object.values(LISTS).includes(name)) continue;
      if (name === "time") out.ticks = this.time(value, `${place}.time`);
      else if (name === "fee" || name === "price") Object.assign(out, this.money(name, value, `${place}.${name}`));
      else if (field.as === "ref")
        out[name] = value === null ? null : this.reference(field.to, value, `${place}.${name}`);
      else if (field.as === "refs")
        out[name] = this.references(kind, known.id, name, field.to, value, `${place}.${name}`);
      else if (field.as === "stats") out[name] = this.stats(value, `${place}.${name}`);
      else out[name] = value;
    }
    if (fromLine) out.name = row.name ?? (fromLine as { name: string }).name;
    else if (
      (kind === "recipe" || kind === "source") &&
      (!before || [...Object.values(LISTS), "gives", "draws"].some((list) => Object.hasOwn(row, list)))
    )
      out.lines = inOrderOf(
        (recordAt(this.catalogue, kind, known.id) as Recipe | Source | undefined)?.lines,
        this.lists(kind, row, place),
      );
    return out as unknown as AnyRecord;
  }

  private lists(kind: Kind, row: Row, place: string): Line[] {
    const roles: [string, Role][] =
      kind === "source"
        ? [["gives", "output"]]
        : (Object.entries(LISTS).map(([role, list]) => [list, role]) as [string, Role][]);
    const order: Role[] = ["ingredient", "output", "station", "tool"];
    roles.sort((a, b) => order.indexOf(a[1]) - order.indexOf(b[1]));
    const drawn = this.draws(row.draws ?? [], `${place}.draws`);
    const lines = roles.flatMap(([list, role]) => {
      const rows = row[list] ?? [];
      if (!Array.isArray(rows)) {
        this.problem(`${place}.${list}`, "Expected a list.");
        return [];
      }
      return rows
        .map((entry, i) =>
          this.entry(role, typeof entry === "string" ? { item: entry } : entry, `${place}.${list}[${i}]`),
        )
        .filter((l) => l !== null);
    });
    return [...lines, ...drawn];
  }

  private draws(given: Json, place: string): Line[] {
    if (!Array.isArray(given)) {
      this.problem(place, "Expected a list of draws.");
      return [];
    }
    return given.flatMap((draw, g) => {
      const at = `${place}[${g}]`;
      if (!isRow(draw) || !Array.isArray(draw.entries) || !draw.entries.length) {
        this.problem(
          at,
          'Expected an object such as { "times": 3, "entries": [{ "weight": 5, "item": "rope" }], "nothing": 1 }.',
        );
        return [];
      }
      const allowed = ["times", "entries", "nothing"];
      for (const name of Object.keys(draw)) if (!allowed.includes(name)) this.unknown(at, name, allowed);
      const { times = 1, nothing = 0 } = draw;
      const weighed = draw.entries.map((entry, i) => {
        const { weight = 1, ...rest } = isRow(entry) ? entry : { item: entry };
        if (!isWeight(weight))
          this.problem(
            `${at}.entries[${i}].weight`,
            "Expected a weight: a number from 0 to 1000000 with at most six decimal places.",
          );
        return { weight: isWeight(weight) ? weight : 0, line: this.entry("output", rest, `${at}.entries[${i}]`) };
      });
      if (!isWeight(nothing))
        this.problem(
          `${at}.nothing`,
          "Expected the weight of drawing nothing: a number from 0 to 1000000 with at most six decimal places.",
        );
      const of = toNumber(
        weighed.reduce((t, e) => add(t, fromNumber(e.weight)), fromNumber(isWeight(nothing) ? nothing : 0)),
      );
      return weighed.flatMap(({ weight, line }) =>
        line ? [{ ...line, draw: { group: g + 1, times: times as number, weight, of } }] : [],
      );
    });
  }

  private entry(role: Role, entry: Json, place: string): Line | null {
    if (!isRow(entry)) {
      this.problem(place, 'Expected an object such as { "item": "river_eel", "quantity": 2 }.');
      return null;
    }
    const allowed = ["item", "quantity", "chance", ...(role === "tool" ? ["uses"] : [])];
    for (const name of Object.keys(entry)) if (!allowed.includes(name)) this.unknown(place, name, allowed);
    const { quantity = 1, chance = 1, uses = null } = entry;
    const range = Array.isArray(quantity) ? quantity : [quantity, quantity];
    if (range.length !== 2 || range.some((q) => typeof q !== "number"))
      this.problem(`${place}.quantity`, "Expected a number, or a range of two such as [1, 3].");
    if (typeof chance !== "number")
      this.problem(`${place}.chance`, "Expected a probability between 0 and 1, such as 0.4.");
    return {
      role,
      item: this.reference("item", entry.item, `${place}.item`) as Id,
      min: range[0] as number,
      max: range[1] as number,
      chance: chance as number,
      uses: uses as number | null,
    };
  }

  private reference(kind: Kind, value: Json | undefined, place: string): Id | null {
    if (typeof value !== "string" || !value) {
      this.problem(place, `Expected the key of ${kindWord(kind) === "item" ? "an item" : `a ${kindWord(kind)}`}.`);
      return null;
    }
    const here = this.ids.get(kind)?.get(fold(value));
    const there = keyIndex(this.catalogue, kind).get(fold(value));
    if (here) return here.id;
    if (there) return there;
    if (kind === "item") {
      const found = this.words?.items.find(value);
      if (found?.found === "one") return found.id;
      const name = sentence(value);
      if (!this.stubs.has(fold(name))) this.note(place, `There is no item ${shown(value)}; it becomes a stub.`);
      return this.stub(name, keyFrom(value, "item"));
    }
    const offers =
      this.problems.length > OFFERED
        ? []
        : nearest(
            value,
            [...(this.ids.get(kind)?.values() ?? [])]
              .map((k) => k.key)
              .concat([...keyIndex(this.catalogue, kind).keys()]),
          );
    this.problem(
      place,
      `There is no ${kindWord(kind)} ${shown(value)}.${offers.length ? ` Did you mean ${offers.join(" or ")}?` : ` Add it to "${sectionOf(kind)}".`}`,
    );
    return null;
  }

  /** A set of records: where the pantry holds the same set already, it keeps its order. */
  private references(kind: Kind, id: Id, name: string, to: Kind, value: Json, place: string): (Id | null)[] {
    if (!Array.isArray(value)) {
      this.problem(place, "Expected a list of keys.");
      return [];
    }
    const ids = value.map((v, i) => this.reference(to, v, `${place}[${i}]`));
    const before = (recordAt(this.catalogue, kind, id) as unknown as Record<string, Id[]> | undefined)?.[name];
    return before && before.length === ids.length && before.every((b) => ids.includes(b)) ? before : ids;
  }

  private stats(value: Json, place: string): Record<string, unknown> {
    if (!isRow(value)) {
      this.problem(place, 'Expected an object such as { "vigour": 42 }.');
      return {};
    }
    const stats = new Map<string, unknown>();
    for (const [key, amount] of Object.entries(value)) {
      const stat = this.reference("stat", key, `${place}.${cut(key, 60)}`);
      if (stat && stats.has(stat)) this.problem(`${place}.${cut(key, 60)}`, "This stat stands here twice.");
      if (stat) stats.set(stat, amount);
    }
    return Object.fromEntries(stats);
  }

  private time(value: Json, place: string): number {
    const ticks =
      typeof value === "number" || typeof value === "string" ? parseTicks(String(value), this.ticksPerSecond) : null;
    if (ticks === null)
      this.problem(
        place,
        `Expected a time such as "90s", "1m30s", "1800t" or a number of seconds, in whole ticks (${this.ticksPerSecond} a second).`,
      );
    return ticks ?? 0;
  }

  private money(name: "fee" | "price", value: Json, place: string): object {
    const currency = name === "fee" ? "feeCurrency" : "currency";
    if (typeof value === "number") return { [name]: value, [currency]: null };
    if (!isRow(value) || typeof value.amount !== "number") {
      this.problem(place, 'Expected a number of value units, or { "amount": 2, "currency": "shells" }.');
      return {};
    }
    for (const field of Object.keys(value))
      if (field !== "amount" && field !== "currency") this.unknown(place, field, ["amount", "currency"]);
    return {
      [name]: value.amount,
      [currency]:
        value.currency === undefined || value.currency === null
          ? null
          : this.reference("currency", value.currency, `${place}.currency`),
    };
  }

  private edits(records: { kind: Kind; record: AnyRecord; place: string }[]): Plan {
    const stubs = [...this.stubs.values()].map((record) => ({
      kind: "item" as Kind,
      record: record as AnyRecord,
      place: "",
    }));
    const edits: Edit[] = [];
    const tally = { added: 0, changed: 0, removed: 0, same: 0 };
    const named = new Set<Id>();
    for (const { kind, record } of [...stubs, ...records]) {
      named.add(record.id);
      const before = recordAt(this.catalogue, kind, record.id);
      if (!before) {
        edits.push({ op: "add", kind, record });
        tally.added++;
        continue;
      }
      const changes = difference(kind, before as never, record as never);
      edits.push(...changes);
      tally[changes.length ? "changed" : "same"]++;
    }
    const settings = this.settings();
    edits.push(...settings);
    if (this.replace)
      for (const kind of Object.values(SECTIONS).reverse())
        for (const record of (this.catalogue[kind] as ReadonlyMap<Id, AnyRecord>).values())
          if (!named.has(record.id)) {
            edits.push({ op: "remove", kind, record });
            tally.removed++;
          }
    if (!this.problems.length) {
      const outcome = apply(this.catalogue, edits);
      const places = new Map(records.map((r) => [r.record.id, r.place]));
      if (!outcome.ok)
        for (const f of outcome.faults)
          this.problem(`${places.get(f.id) ?? f.kind}.${this.nameInBundle(f.kind, f.field)}`, f.says);
    }
    return {
      problems: this.problems,
      notes: this.notes,
      edits: this.failed ? [] : edits,
      ...tally,
      settings: settings.length,
    };
  }

  /**
   * What the bundle sets of the pantry itself; each is told, for it is easily overlooked among thousands of records.
   */
  private settings(): Edit[] {
    const { pantry } = this.catalogue;
    for (const { place, says } of bundlePantry(this.bundle).problems) this.problem(place, says);
    return Object.entries(isRow(this.bundle.pantry) ? this.bundle.pantry : {}).flatMap(([name, value]): Edit[] => {
      if (!Object.hasOwn(PANTRY_FIELDS, name)) this.unknown("pantry", name, Object.keys(PANTRY_FIELDS));
      else if (pantry[name as keyof typeof PANTRY_FIELDS] === value) return [];
      else if (name === "key")
        this.note(
          "pantry.key",
          `The bundle is of the pantry with the key ${shown(value)}; this one keeps its own, “${pantry.key}”.`,
        );
      else {
        this.note(
          `pantry.${name}`,
          `${name === "name" ? "The pantry's name" : `The setting “${fieldWord(this.catalogue, name)}”`} changes from ${shown(pantry[name as keyof typeof PANTRY_FIELDS])} to ${shown(value)}.`,
        );
        return [setField(this.catalogue, "pantry", pantry.id, name, value as Value)];
      }
      return [];
    });
  }

  /** A record's field as bundles name it. */
  private nameInBundle(kind: Kind | "pantry", field: string): string {
    const stat = field.startsWith("stats.") ? (field.slice(6) as Id) : null;
    if (stat)
      return `stats.${[...(this.ids.get("stat")?.values() ?? [])].find((s) => s.id === stat)?.key ?? this.catalogue.stat.get(stat)?.key ?? stat}`;
    const names = new Map([
      ["ticks", "time"],
      ["feeCurrency", "fee"],
      ...(kind === "source"
        ? ([
            ["currency", "price"],
            ["lines", "gives"],
          ] as const)
        : []),
    ]);
    return names.get(field) ?? field;
  }

  private unknown(place: string, name: string, allowed: readonly string[]): void {
    const offers = nearest(name, allowed);
    const at = cut(name, 60);
    this.problem(
      place ? `${place}.${at}` : at,
      `Unknown field.${offers.length ? ` Did you mean ${offers.join(" or ")}?` : ` Known here: ${allowed.join(", ")}.`}`,
    );
  }
  private problem(place: string, says: string): void {
    if (this.problems.length < TOLD) this.problems.push({ place, says });
    else if (!this.more)
      this.problems.push({ place: "file", says: "There is more than is told here. Mend this first." });
    if (this.problems.length > TOLD) this.more = true;
  }
  private note(place: string, says: string): void {
    if (this.notes.length < TOLD) this.notes.push({ place, says });
    else if (this.notes.length === TOLD)
      this.notes.push({ place: "file", says: "There are more notes than are told here." });
  }
  private more = false;
  private get failed(): boolean {
    return this.problems.length > 0;
  }
}

/** Lines by role and draw, each group of them in its order; draws are numbered as they come. */
function byList(lines: readonly Line[]): string {
  const draws = new Map<number, number>();
  const lists = new Map<string, unknown[]>();
  for (const { draw, ...line } of lines) {
    if (draw && !draws.has(draw.group)) draws.set(draw.group, draws.size + 1);
    const list = draw ? `draw ${draws.get(draw.group)}` : line.role;
    lists.set(list, [
      ...(lists.get(list) ?? []),
      [line.item, line.min, line.max, line.chance, line.uses, draw?.times, draw?.weight, draw?.of],
    ]);
  }
  return JSON.stringify([...lists].sort(([a], [b]) => (a < b ? -1 : 1)));
}
/**
 * A bundle lists lines by role: where the pantry holds the same lists already, it keeps the order in which they stand.
 */
const inOrderOf = (before: readonly Line[] | undefined, lines: Line[]): readonly Line[] =>
  before?.length === lines.length && byList(before) === byList(lines) ? before : lines;

const sentence = (key: string): string => {
  const words = key.replace(/_/g, " ").trim();
  return words.charAt(0).toUpperCase() + words.slice(1);
};
const sectionOf = (kind: Kind): string => (Object.entries(SECTIONS).find(([, k]) => k === kind) as [string, Kind])[0];

/** Names of the fields that a record of this kind may have in a bundle. */
export function bundleFields(kind: Kind): Set<string> {
  const names = new Set(Object.keys(FIELDS[kind]));
  if (kind === "recipe") for (const name of ["line", "time", "draws", ...Object.values(LISTS)]) names.add(name);
  if (kind === "source") for (const name of ["gives", "time", "draws"]) names.add(name);
  for (const name of ["lines", "ticks", "feeCurrency", ...(kind === "source" ? ["currency"] : [])]) names.delete(name);
  return names;
}
