/**
 * What a record must satisfy to be written at all. Takes whatever came from outside: own and known fields only, exact
 * types,
 * bounded sizes. What is merely suspicious is a check's business, not a rule's.
 */
import { add, compare, type Fraction, fromNumber, ZERO } from "../numbers/fraction";
import { type Catalogue, recordAt } from "./catalogue";
import {
  type AnyRecord,
  type Draw,
  type Field,
  FIELDS,
  type Id,
  isWeight,
  type Kind,
  kindWord,
  LEAST,
  type Line,
  MOST,
  MOST_CHANCE,
  MOST_LINES,
  MOST_LISTED,
  MOST_TIMES,
  PANTRY_FIELDS,
  type Pantry,
} from "./records";
import { cut, shown, textProblem } from "./text";

/** A refusal: where, why, and what would work. */
export interface Fault {
  readonly kind: Kind | "pantry";
  readonly id: Id;
  /** Key of the record as far as it is known, for people. */
  readonly key: string;
  readonly field: string;
  readonly says: string;
}

const KEY = /^[a-z0-9]+(_[a-z0-9]+)*$/;
const ID = /^[0-9a-z]{12}$/;
export const isId = (value: unknown): value is Id => typeof value === "string" && value.length === 12 && ID.test(value);
export const isKey = (value: unknown): value is string =>
  typeof value === "string" && value.length <= 90 && KEY.test(value);
/** A plain object as JSON has them. */
export const isPlain = (value: unknown): value is { readonly [name: string]: unknown } =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** The field of a kind by a name from outside; undefined for names that only the language knows. */
export const fieldNamed = (kind: Kind | "pantry", name: string): Field | undefined => {
  const fields: object = kind === "pantry" ? PANTRY_FIELDS : FIELDS[kind];
  return Object.hasOwn(fields, name) ? (fields as { readonly [name: string]: Field })[name] : undefined;
};

/** Most problems that are told of one list. */
const TOLD = 20;

/** @param before  the record as it was, if it was: what stays as it is was judged when it was written */
export function faultsOf(catalogue: Catalogue, kind: Kind, record: AnyRecord, before?: AnyRecord): Fault[] {
  const faults = fieldFaults(catalogue, kind, record, before);
  if (!isId(record.id))
    faults.unshift({ kind, id: record.id, key: "", field: "id", says: "An id is 12 characters of 0-9 and a-z." });
  return faults;
}

export const pantryFaults = (catalogue: Catalogue, pantry: Pantry, before?: Pantry): Fault[] =>
  fieldFaults(catalogue, "pantry", pantry, before);

function fieldFaults(
  catalogue: Catalogue,
  kind: Kind | "pantry",
  record: AnyRecord | Pantry,
  before?: AnyRecord | Pantry,
): Fault[] {
  const faults: Fault[] = [];
  const key = typeof record.key === "string" ? cut(record.key, 90) : "";
  const fault = (field: string, says: string) => faults.push({ kind, id: record.id, key, field, says });
  const values = record as unknown as Record<string, unknown>;
  const was = before as unknown as Record<string, unknown> | undefined;
  const fields = (kind === "pantry" ? PANTRY_FIELDS : FIELDS[kind]) as { readonly [name: string]: Field };
  for (const name of Object.keys(fields)) {
    if (!Object.hasOwn(values, name)) fault(name, "This field is missing.");
    else if (!was || was[name] !== values[name])
      for (const { at, says } of problems(catalogue, fields[name], values[name]))
        fault(at ? `${name}.${at}` : name, says);
  }
  for (const name of Object.keys(values))
    if (name !== "id" && !Object.hasOwn(fields, name))
      fault(
        cut(name, 60),
        `${kind === "item" ? "An" : "A"} ${kindWord(kind)} has no field ${shown(name)}. Its fields: ${Object.keys(fields).join(", ")}.`,
      );
  return faults;
}

interface Problem {
  readonly at?: string;
  readonly says: string;
}

/** What is wrong with a value as a field of a catalogue; takes anything. */
function problems(catalogue: Catalogue, field: Field, value: unknown): Problem[] {
  switch (field.as) {
    case "text": {
      if (value === null && field.optional) return [];
      const says = textProblem(value, { max: field.max, lines: field.lines, name: !field.lines });
      if (says) return [{ says }];
      const text = value as string;
      if (field.required && !text.trim()) return [{ says: "A name is needed: at least one letter." }];
      return text !== text.trim() && !field.lines ? [{ says: "Spaces at the beginning or end. Remove them." }] : [];
    }
    case "key":
      return isKey(value)
        ? []
        : [
            {
              says: `${shown(value)} is not a key. Use lower-case letters, digits and single “_” between them, such as coarse_salt.`,
            },
          ];
    case "colour":
      return typeof value === "string" && /^#[0-9a-f]{6}$/i.test(value)
        ? []
        : [{ says: `${shown(value)} is not an opaque colour. Use six hex digits, such as #2c6e8f.` }];
    case "number":
      return value === null && field.optional ? [] : numberProblem(value, field.min, field.max, field.whole);
    case "choice":
      return field.of.includes(value as string) ? [] : [{ says: `${shown(value)} is none of ${field.of.join(", ")}.` }];
    case "ref":
      return value === null && field.optional ? [] : refProblem(catalogue, field.to, value);
    case "refs":
      if (!Array.isArray(value)) return [{ says: "Expected a list." }];
      if (value.length > MOST_LISTED) return [{ says: `${value.length} entries; at most ${MOST_LISTED} fit.` }];
      if (new Set(value).size < value.length) return [{ says: "The same entry stands here twice." }];
      return value.flatMap((id) => refProblem(catalogue, field.to, id)).slice(0, TOLD);
    case "stats": {
      if (!isPlain(value)) return [{ says: "Expected stats with numbers." }];
      const names = Object.keys(value);
      if (names.length > MOST_LISTED) return [{ says: `${names.length} stats; at most ${MOST_LISTED} fit.` }];
      return names
        .flatMap((id) =>
          [...refProblem(catalogue, "stat", id), ...numberProblem(value[id], -MOST, MOST)].map((p) => ({
            at: cut(id, 60),
            says: p.says,
          })),
        )
        .slice(0, TOLD);
    }
    case "lines":
      if (!Array.isArray(value)) return [{ says: "Expected a list of lines." }];
      if (value.length > MOST_LINES) return [{ says: `${value.length} lines; at most ${MOST_LINES} fit.` }];
      return lineListProblems(catalogue, field.roles, value);
  }
}

function lineListProblems(catalogue: Catalogue, roles: readonly string[], lines: readonly unknown[]): Problem[] {
  const found = lines.flatMap((l, i) => lineProblems(catalogue, roles, l).map((says) => ({ at: String(i + 1), says })));
  return found.length ? found.slice(0, TOLD) : drawProblems(lines as readonly Line[]);
}

const LINE_FIELDS = ["role", "item", "min", "max", "chance", "uses", "draw"];
const DRAW_FIELDS = ["group", "times", "weight", "of"];
const unknownNames = (value: object, known: readonly string[], of: string): Problem[] =>
  Object.keys(value)
    .flatMap((name) =>
      known.includes(name) ? [] : [{ says: `A ${of} has no field ${shown(name)}. Its fields: ${known.join(", ")}.` }],
    )
    .slice(0, TOLD);

function lineProblems(catalogue: Catalogue, roles: readonly string[], line: unknown): string[] {
  if (!isPlain(line)) return ["Expected a line."];
  const { role, item, min, max, chance, uses, draw } = line;
  if (!roles.includes(role as string)) return [`${shown(role)} is none of ${roles.join(", ")}.`];
  const says = [
    ...unknownNames(line, LINE_FIELDS, "line"),
    ...refProblem(catalogue, "item", item),
    ...[min, max].flatMap((n) => amountProblem(n, MOST)),
    ...amountProblem(chance, MOST_CHANCE),
  ];
  if (uses !== null)
    says.push(
      ...(role === "tool" ? numberProblem(uses, 1, MOST, true) : [{ says: "Only a tool has a number of uses." }]),
    );
  if (Object.hasOwn(line, "draw")) says.push(...oneDrawProblems(role, chance, draw));
  return says.map((p) => p.says);
}

/** Amounts so small that what they are divided by leaves all numbers are refused. */
const amountProblem = (value: unknown, max: number): Problem[] =>
  typeof value === "number" && value > 0 && value < LEAST
    ? [{ says: `${value} is too small to be counted with. Write 0, or at least ${LEAST.toFixed(9)}.` }]
    : numberProblem(value, 0, max);

const MILLION = fromNumber(1e6);
const WEIGHT = "A weight is a number from 0 to 1000000 with at most six decimal places.";
function oneDrawProblems(role: unknown, chance: unknown, draw: unknown): Problem[] {
  if (!isPlain(draw)) return [{ says: "Expected a draw." }];
  if (role !== "output" || chance !== 1)
    return [{ says: "Only what comes out can be drawn, and its weight stands for its chance." }];
  const { group, times, weight, of } = draw;
  const whole = typeof of === "number" && of > 0 && of <= MOST && Number(of.toFixed(6)) === of;
  return [
    ...unknownNames(draw, DRAW_FIELDS, "draw"),
    ...numberProblem(group, 1, MOST_LINES, true),
    ...numberProblem(times, 1, MOST_TIMES, true),
    ...(isWeight(weight) ? [] : [{ says: WEIGHT }]),
    ...(whole ? [] : [{ says: "The weights of a draw sum to a number above 0 with at most six decimal places." }]),
  ];
}

/** The lines of a draw agree on how often it is made and on its whole weight. */
function drawProblems(lines: readonly Line[]): Problem[] {
  const found: Problem[] = [];
  const whole = new Map<number, { draw: Draw; weight: Fraction }>();
  for (const [at, { draw }] of lines.entries()) {
    if (!draw) continue;
    const first = whole.get(draw.group);
    if (first && (first.draw.times !== draw.times || first.draw.of !== draw.of))
      found.push({
        at: String(at + 1),
        says: "The lines of one draw differ in how often it is made or in its whole weight.",
      });
    whole.set(draw.group, { draw, weight: add(first?.weight ?? ZERO, fromNumber(draw.weight)) });
  }
  for (const { draw, weight } of whole.values()) {
    const rest = compare(weight, fromNumber(draw.of));
    if (rest > 0) found.push({ says: `The weights of a draw sum to more than ${draw.of}.` });
    else if (compare(add(weight, MILLION), fromNumber(draw.of)) < 0)
      found.push({ says: `What is left of ${draw.of} for drawing nothing is more than a weight can be: 1000000.` });
  }
  return found.slice(0, TOLD);
}

const refProblem = (catalogue: Catalogue, kind: Kind, id: unknown): Problem[] =>
  isId(id) && recordAt(catalogue, kind, id)
    ? []
    : [{ says: `There is no ${kindWord(kind)} ${shown(id)} in this pantry.` }];

function numberProblem(value: unknown, min: number, max: number, whole?: boolean): Problem[] {
  if (typeof value !== "number" || !Number.isFinite(value)) return [{ says: `${shown(value)} is not a number.` }];
  if (Object.is(value, -0)) return [{ says: "-0 is no number of its own. Write 0." }];
  if (whole && !Number.isInteger(value)) return [{ says: `${value} is not a whole number.` }];
  if (value < min || value > max) return [{ says: `${value} is outside ${min} to ${max}.` }];
  return [];
}
