/** What a record must satisfy to be written at all. What is merely suspicious is a check's business, not a rule's. */
import { type Catalogue, keyIndex, lineage, recordAt } from "./catalogue";
import { add, compare, type Fraction, fromNumber, ZERO } from "../numbers/fraction";
import { fold } from "./names";
import { type AnyRecord, type Draw, type Field, FIELDS, type Id, isWeight, type Kind, kindWord, type Line, LEAST, MOST, PANTRY_FIELDS, type Pantry } from "./records";

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

/** @param before  the record as it was, if it was: a key that stays is not looked up again */
export function faultsOf(catalogue: Catalogue, kind: Kind, record: AnyRecord, before?: AnyRecord): Fault[] {
  const faults: Fault[] = [];
  const fault = (field: string, says: string) => faults.push({ kind, id: record.id, key: record.key, field, says });
  if (typeof record.id !== "string" || !/^[0-9a-z]{12}$/.test(record.id)) fault("id", "An id is 12 characters of 0-9 and a-z.");
  const values = record as unknown as Record<string, unknown>;
  for (const [name, field] of Object.entries(FIELDS[kind]) as [string, Field][]) {
    for (const { at, says } of problems(catalogue, field, values[name])) fault(at ? `${name}.${at}` : name, says);
  }
  for (const name of Object.keys(values)) {
    if (name !== "id" && !(name in FIELDS[kind])) fault(name, `${kind === "item" ? "An" : "A"} ${kindWord(kind)} has no field “${name}”. Its fields: ${Object.keys(FIELDS[kind]).join(", ")}.`);
  }
  if (faults.length) return faults;
  const other = before?.key === record.key ? undefined : keyIndex(catalogue, kind).get(fold(record.key));
  if (other !== undefined && other !== record.id)
    fault("key", `The key “${record.key}” belongs to another ${kindWord(kind)} already. Choose one that is free, such as ${record.key}_2.`);
  if (kind === "type" && lineage(catalogue, record.id).some((t) => t.parent === record.id))
    fault("parent", "This would make the type its own ancestor. Choose a type outside its own branch.");
  return faults;
}

export function pantryFaults(catalogue: Catalogue, pantry: Pantry): Fault[] {
  const values = pantry as unknown as Record<string, unknown>;
  return (Object.entries(PANTRY_FIELDS) as [string, Field][]).flatMap(([name, field]) =>
    problems(catalogue, field, values[name]).map(({ says }) => ({ kind: "pantry" as const, id: pantry.id, key: pantry.key, field: name, says })),
  );
}

type Problem = { at?: string; says: string };

function problems(catalogue: Catalogue, field: Field, value: unknown): Problem[] {
  switch (field.as) {
    case "text":
      if (value === null && !field.required) return [];
      if (typeof value !== "string") return [{ says: "Expected text." }];
      if (field.required && !value.trim()) return [{ says: "A name is needed: at least one letter." }];
      if (value !== value.trim() && field.max <= 120) return [{ says: "Spaces at the beginning or end. Remove them." }];
      return value.length > field.max ? [{ says: `${value.length} characters; at most ${field.max} fit.` }] : [];
    case "key":
      return typeof value === "string" && value.length <= 90 && KEY.test(value)
        ? []
        : [{ says: `“${String(value)}” is not a key. Use lower-case letters, digits and single “_” between them, such as coarse_salt.` }];
    case "colour":
      return typeof value === "string" && /^#[0-9a-f]{6}$/i.test(value)
        ? []
        : [{ says: `“${String(value)}” is not an opaque colour. Use six hex digits, such as #2c6e8f.` }];
    case "number":
      return value === null && field.optional ? [] : numberProblem(value, field.min, field.max, field.whole);
    case "choice":
      return field.of.includes(value as string) ? [] : [{ says: `“${String(value)}” is none of ${field.of.join(", ")}.` }];
    case "ref":
      if (value === null && field.optional) return [];
      return refProblem(catalogue, field.to, value);
    case "refs":
      if (!Array.isArray(value)) return [{ says: "Expected a list." }];
      if (new Set(value).size < value.length) return [{ says: "The same entry stands here twice." }];
      return value.flatMap((id) => refProblem(catalogue, field.to, id));
    case "stats":
      if (typeof value !== "object" || value === null || Array.isArray(value)) return [{ says: "Expected stats with numbers." }];
      return Object.entries(value).flatMap(([id, amount]) =>
        [...refProblem(catalogue, "stat", id), ...numberProblem(amount, -MOST, MOST)].map((p) => ({ at: id, says: p.says })),
      );
    case "lines":
      if (!Array.isArray(value)) return [{ says: "Expected a list of lines." }];
      if (value.length > 200) return [{ says: `${value.length} lines; at most 200 fit.` }];
      return [...value.flatMap((l, i) => lineProblems(catalogue, field.roles, l).map((says) => ({ at: String(i + 1), says }))), ...drawProblems(value)];
  }
}

function lineProblems(catalogue: Catalogue, roles: readonly string[], line: Line): string[] {
  if (typeof line !== "object" || line === null) return ["Expected a line."];
  if (!roles.includes(line.role)) return [`“${String(line.role)}” is none of ${roles.join(", ")}.`];
  const says = [...refProblem(catalogue, "item", line.item), ...[line.min, line.max].flatMap((n) => amountProblem(n, MOST)), ...amountProblem(line.chance, 100)];
  if (line.uses !== null) says.push(...(line.role === "tool" ? numberProblem(line.uses, 1, MOST, true) : [{ says: "Only a tool has a number of uses." }]));
  if (line.draw !== undefined) says.push(...oneDrawProblems(line));
  return says.map((p) => p.says);
}

/** Amounts so small that what they are divided by leaves all numbers are refused. */
const amountProblem = (value: unknown, max: number): Problem[] =>
  typeof value === "number" && value > 0 && value < LEAST ? [{ says: `${value} is too small to be counted with. Write 0, or at least ${LEAST.toFixed(9)}.` }] : numberProblem(value, 0, max);

const WEIGHT = "A weight is a number from 0 to 1000000 with at most six decimal places.";
function oneDrawProblems({ role, chance, draw }: Line): Problem[] {
  if (typeof draw !== "object" || draw === null) return [{ says: "Expected a draw." }];
  if (role !== "output" || chance !== 1) return [{ says: "Only what comes out can be drawn, and its weight stands for its chance." }];
  return [...numberProblem(draw.group, 1, 200, true), ...numberProblem(draw.times, 1, 1000, true), ...(isWeight(draw.weight) ? [] : [{ says: WEIGHT }]), ...(draw.of > 0 ? numberProblem(draw.of, 0, MOST) : [{ says: "A draw needs a weight above 0." }])];
}

/** The lines of a draw agree on how often it is made and on its whole weight. */
function drawProblems(lines: readonly Line[]): Problem[] {
  const found: Problem[] = [];
  const whole = new Map<number, { draw: Draw; weight: Fraction }>();
  for (const [at, { draw }] of lines.entries()) {
    if (!draw || !Number.isFinite(draw.weight)) continue;
    const first = whole.get(draw.group);
    if (first && (first.draw.times !== draw.times || first.draw.of !== draw.of)) found.push({ at: String(at + 1), says: "The lines of one draw differ in how often it is made or in its whole weight." });
    whole.set(draw.group, { draw, weight: add(first?.weight ?? ZERO, fromNumber(draw.weight)) });
  }
  for (const { draw, weight } of whole.values()) if (Number.isFinite(draw.of) && compare(weight, fromNumber(draw.of)) > 0) found.push({ says: `The weights of a draw sum to more than ${draw.of}.` });
  return found;
}

const refProblem = (catalogue: Catalogue, kind: Kind, id: unknown): Problem[] =>
  typeof id === "string" && recordAt(catalogue, kind, id as Id) ? [] : [{ says: `There is no ${kindWord(kind)} “${String(id)}” in this pantry.` }];

function numberProblem(value: unknown, min: number, max: number, whole?: boolean): Problem[] {
  if (typeof value !== "number" || !Number.isFinite(value)) return [{ says: `“${String(value)}” is not a number.` }];
  if (whole && !Number.isInteger(value)) return [{ says: `${value} is not a whole number.` }];
  if (value < min || value > max) return [{ says: `${value} is outside ${min} to ${max}.` }];
  return [];
}
