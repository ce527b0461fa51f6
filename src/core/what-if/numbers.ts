/** Every number that someone wrote into a record, so that another can be tried: fields, stats, quantities and chances. */
import { type Catalogue, nameOf, recordAt } from "../catalogue/catalogue";
import { type Edit, fieldWord, setField, type Value, valueAt } from "../catalogue/edit";
import { around } from "../catalogue/surroundings";
import { definition, type Kind, type Subject } from "../kinds/index";
import { type Line, sayNamed } from "../notation/line";
import { capital } from "../numbers/format";
import { tidy } from "../numbers/tidy";
import type { Field } from "../schema/field";
import type { Id } from "../schema/id";
import { fieldAt, pathOf } from "../schema/record";

/** A number of a record: a field, or a member of an entry of one. */
export interface Authored {
  readonly kind: Subject;
  readonly id: Id;
  /** Path of the field, as in an edit. */
  readonly path: string;
  /** Within the value: an entry and its member; "amount" is what both ends of a quantity are. Empty: the value itself. */
  readonly within: readonly [entry: number, member: string] | readonly [];
  /** "Sell price", "Price of Net float", "Quantity of Coarse salt". */
  readonly label: string;
  readonly value: number;
  readonly bounds: { readonly min: number; readonly max: number; readonly whole?: boolean };
  /** What it is written and read as. */
  readonly field: Field;
}

/** Both ends of a quantity that is the same at its least and at its most. */
const AMOUNT = "amount";
/** Roles of which one is enough. */
const COUNTLESS: readonly string[] = ["station", "tool"];
const QUANTITY_WORDS: { readonly [member: string]: string } = {
  [AMOUNT]: "quantity",
  min: "least quantity",
  max: "most quantity",
  chance: "chance",
  uses: "uses",
};

const subjectAt = (catalogue: Catalogue, kind: Subject, id: Id): object | undefined =>
  kind === "pantry" ? catalogue.pantry : recordAt(catalogue, kind, id);

/** In the order of the record's fields. */
export function numbersOf(catalogue: Catalogue, kind: Subject, id: Id): Authored[] {
  const record = subjectAt(catalogue, kind, id);
  if (!record) return [];
  const here = around(catalogue);
  return Object.entries(definition(kind).fields).flatMap(([name, field]): Authored[] => {
    const value = (record as never)[name] as unknown;
    const paths = field.parts ? field.parts.names(value).map((part) => `${name}.${part}`) : [name];
    return paths.flatMap((path): Authored[] => {
      const at = pathOf(definition(kind), path);
      const of = at && fieldAt(at, here);
      const held = valueAt(kind, record, path);
      if (!of || held === null) return [];
      const authored = { kind, id, path };
      if (typeof held === "number" && of.bounds)
        return [
          {
            ...authored,
            within: [],
            label: capital(fieldWord(catalogue, kind, path)),
            value: held,
            bounds: of.bounds,
            field: of,
          },
        ];
      return Array.isArray(held) ? inEntries(catalogue, authored, of, held) : [];
    });
  });
}

function inEntries(
  catalogue: Catalogue,
  authored: Pick<Authored, "kind" | "id" | "path">,
  of: Field,
  entries: readonly unknown[],
): Authored[] {
  const here = around(catalogue);
  return entries.flatMap((entry, k): Authored[] => {
    if (of.type === "lines") {
      const line = entry as Line;
      // In a pattern each place has one item, and what is drawn has a weight in place of a chance.
      const isCounted = line.cells === undefined && !COUNTLESS.includes(line.role);
      const amounts = !isCounted ? [] : line.min === line.max ? [AMOUNT] : ["min", "max"];
      const isLeft = isCounted && !line.draw && (line.role === "output" || line.chance !== 1);
      const members = [...amounts, ...(isLeft ? ["chance"] : []), "uses"];
      return members.flatMap((member): Authored[] => {
        const value = member === AMOUNT ? line.min : line[member as "min"];
        const field = lineMember(of, member);
        if (typeof value !== "number" || !field?.bounds) return [];
        const label = `${capital(QUANTITY_WORDS[member])} of ${sayNamed(line, here)}`;
        return [{ ...authored, within: [k, member], label, value, bounds: field.bounds, field }];
      });
    }
    const inner = of.inner?.is === "list" ? of.inner.of.inner : undefined;
    if (inner?.is !== "group") return [];
    const values = entry as Readonly<Record<string, unknown>>;
    const named = Object.entries(inner.fields).find(
      ([name, f]) => f.type === "ref" && typeof values[name] === "string",
    );
    const called = named
      ? ` of ${nameOf(catalogue, named[1].targets[0] as Kind, values[named[0]] as Id)}`
      : ` ${k + 1}`;
    return Object.entries(inner.fields).flatMap(([member, field]): Authored[] => {
      const value = values[member];
      if (typeof value !== "number" || !field.bounds) return [];
      const label = `${capital(field.options.label ?? member)}${called}`;
      return [{ ...authored, within: [k, member], label, value, bounds: field.bounds, field }];
    });
  });
}
/** What a member of a line is: the list of lines says so of each entry. */
const lineMember = (of: Field, member: string): Field | undefined => of.entry?.[member === AMOUNT ? "min" : member];

/** The edit that gives a number another value. */
export function withNumber(catalogue: Catalogue, of: Authored, value: number): Edit {
  const [entry, member] = of.within;
  if (entry === undefined || member === undefined) return setField(catalogue, of.kind, of.id, of.path, value);
  const record = subjectAt(catalogue, of.kind, of.id) as object;
  const entries = valueAt(of.kind, record, of.path) as readonly Value[];
  const to = entries.map((each, k) => {
    if (k !== entry) return each;
    const changed = member === AMOUNT ? { min: value, max: value } : { [member]: value };
    return { ...(each as object), ...changed } as Value;
  });
  return setField(catalogue, of.kind, of.id, of.path, to);
}

/** Where a slider of a number begins and ends: a tenth to ten times what it is, within what it may be. */
export function sliderOf({ value, bounds }: Pick<Authored, "value" | "bounds">): {
  readonly min: number;
  readonly max: number;
} {
  const { min, max, whole } = bounds;
  // What has a short range, as a chance or a level, is looked at in full.
  if (max - min <= 100) return { min, max };
  if (value === 0) return { min: Math.max(min, 0), max: Math.min(max, 10) };
  const [low, high] = [value / 10, value * 10].sort((a, b) => a - b);
  return {
    min: Math.max(min, whole ? Math.ceil(low) : tidy(low)),
    max: Math.min(max, whole ? Math.floor(high) : tidy(high)),
  };
}

/** A value of a slider, rounded to what a person would write: three digits, and whole where it must be. */
export function atSlider(
  share: number,
  { min, max }: { readonly min: number; readonly max: number },
  whole = false,
): number {
  const value = min > 0 && max / min > 20 ? min * (max / min) ** share : min + (max - min) * share;
  const rounded = Number(value.toPrecision(3));
  return Math.min(max, Math.max(min, whole ? Math.round(rounded) : rounded));
}
/** The value that a slider is moved to: another than before, also where whole numbers are further apart than its steps. */
export function movedTo(
  { value, bounds: { whole } }: Pick<Authored, "value" | "bounds">,
  share: number,
  range: { readonly min: number; readonly max: number },
): number {
  const next = atSlider(share, range, whole);
  if (next !== value || !whole) return next;
  return Math.min(range.max, Math.max(range.min, value + Math.sign(share - shareOf(value, range))));
}
/** Where a value stands between 0 and 1; the inverse of `atSlider`. */
export function shareOf(value: number, { min, max }: { readonly min: number; readonly max: number }): number {
  if (max <= min) return 0;
  const share = min > 0 && max / min > 20 ? Math.log(value / min) / Math.log(max / min) : (value - min) / (max - min);
  return Math.min(1, Math.max(0, share));
}
