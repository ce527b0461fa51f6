/** What is done with a whole record of a kind: paths into it, differences, rules, and how it stands in a bundle. */
import { cut, shown } from "./characters";
import type { BundleReading, BundleWriting, Field, Fields, Members, Surroundings } from "./field";
import type { Id } from "./id";
import type { Definitions, JsonObject, JsonSchema } from "./json";
import { same } from "./json";
import { capital } from "../numbers/format";
import { aKind } from "./kind-word";

type Values = Readonly<Record<string, unknown>>;
/** What of a kind is asked for here. */
interface Any {
  readonly name: string;
  readonly fields: Fields;
  readonly bundle: readonly Members[];
  readonly notation?: unknown;
  rules?(record: object, fault: (field: string, message: string) => void): void;
}

/** The field of a name from outside; undefined for names that only the language knows. */
export const fieldOf = ({ fields }: Any, name: string): Field | undefined =>
  Object.hasOwn(fields, name) ? fields[name] : undefined;

/** A field, or one part of a field that is edited in parts: "stats.<id>". */
export interface Path {
  readonly name: string;
  readonly field: Field;
  readonly part: string | null;
}
/** null where the kind has no such field, or it has no such part, or is edited in parts only. */
export function pathOf(kind: Any, path: string): Path | null {
  const dot = path.indexOf(".");
  const name = dot < 0 ? path : path.slice(0, dot);
  const field = fieldOf(kind, name);
  if (!field || (field.parts === undefined) !== dot < 0) return null;
  const part = dot < 0 ? null : path.slice(dot + 1);
  return part === null || field.parts?.isPart(part) ? { name, field, part } : null;
}

/** What stands at a path: the field, or what one part of it is. */
export const fieldAt = ({ field, part }: Path, around: Surroundings): Field =>
  part === null ? field : (field.parts?.each(around, part as Id) ?? field);

/** The value a path points at; null where nothing is said. */
export function valueAt(record: object, { name, field, part }: Path): unknown {
  if (!Object.hasOwn(record, name)) return null;
  const value = (record as Values)[name];
  return (part === null ? value : field.parts?.get(value, part)) ?? null;
}

/** The record with another value at a path; null takes out a part. */
export function withValue<R extends object>(record: R, { name, field, part }: Path, value: unknown): R {
  const old = (record as Values)[name];
  return { ...record, [name]: part === null || !field.parts ? value : field.parts.with(old, part, value) };
}

export interface Change {
  readonly path: string;
  readonly from: unknown;
  readonly to: unknown;
}

/** What makes a record equal to another: one change per field that differs, or per part of one. */
export function differences({ fields }: Any, before: object, after: object): Change[] {
  const found: Change[] = [];
  const compare = (path: Path, text: string) => {
    const [from, to] = [valueAt(before, path), valueAt(after, path)];
    if (!same(from, to)) found.push({ path: text, from, to });
  };
  for (const [name, field] of Object.entries(fields)) {
    const { parts } = field;
    if (!parts) compare({ name, field, part: null }, name);
    else {
      const own = (record: object) => parts.names((record as Values)[name]);
      for (const part of new Set([...own(before), ...own(after)])) compare({ name, field, part }, `${name}.${part}`);
    }
  }
  return found;
}

/** Most problems that are told of one field. */
const TOLD = 20;

/**
 * Holds a record from anywhere to the rules of its kind: own and known fields only, each as it must be.
 * @param was  the record as it was: what stays as it is was judged when it was written
 */
export function checkRecord(
  { name: kind, fields, rules }: Any,
  record: object,
  was: object | undefined,
  to: { has(kind: string, id: string): boolean; fault(field: string, message: string): void },
): void {
  const [values, old] = [record as Values, was as Values | undefined];
  let faults = 0;
  for (const name of Object.keys(fields)) {
    if (!Object.hasOwn(values, name)) {
      if (fields[name].initial !== undefined) {
        faults++;
        to.fault(name, "This field is missing.");
      }
    } else if (!old || old[name] !== values[name]) {
      let told = 0;
      fields[name].check(values[name], {
        has: to.has,
        fault(path, message) {
          faults++;
          if (told++ < TOLD) to.fault(path ? `${name}.${path}` : name, message);
        },
      });
    }
  }
  for (const name of Object.keys(values))
    if (name !== "id" && !Object.hasOwn(fields, name))
      to.fault(
        cut(name, 60),
        `${capital(aKind(kind))} has no field ${shown(name)}. Its fields: ${Object.keys(fields).join(", ")}.`,
      );
  if (!faults) rules?.(record, to.fault);
}

/** How a field stands in a record of a bundle: most as one member of its own. */
export function membersOf(name: string, field: Field): Members | null {
  if (field.options.within) return null;
  if (field.members) return field.members(name);
  const called = field.options.bundled ?? name;
  return {
    called,
    names: [called],
    out(record, to) {
      const json = field.toBundle(record[name], to);
      return json === undefined ? {} : { [called]: json };
    },
    in: (row, place, from, before) => ({
      [name]: field.fromBundle(row[called], `${place}.${called}`, from, before?.[name]),
    }),
    schema: (defs) => ({ [called]: field.schema(defs) }),
  };
}

/** Names of the members that a record of this kind may have in a bundle. */
export const bundleNames = ({ bundle, notation }: Any): Set<string> =>
  new Set([...bundle.flatMap((m) => m.names), ...(notation ? ["line"] : [])]);

/** What fields are when a bundle does not say. */
export const bundleDefaults = ({ fields }: Any): { [name: string]: unknown } =>
  Object.fromEntries(
    Object.entries(fields).flatMap(([name, { bundleInitial }]) =>
      bundleInitial === undefined ? [] : [[name, bundleInitial]],
    ),
  );

/** A record as it stands in a bundle; what a bundle need not say is left out. */
export const toBundle = ({ bundle }: Any, record: object, to: BundleWriting): JsonObject =>
  Object.assign({}, ...bundle.map((m) => m.out(record as Values, to)));

/** The fields that a row of a bundle says. What it has that is not known is for whoever reads the row. */
export const fromBundle = (
  { bundle }: Any,
  row: JsonObject,
  place: string,
  from: BundleReading,
  before: object | undefined,
): { [name: string]: unknown } =>
  Object.assign(
    {},
    ...bundle
      .filter((m) => m.names.some((name) => Object.hasOwn(row, name)))
      .map((m) => m.in(row, place, from, before as Values | undefined)),
  );

export const bundleProperties = ({ bundle }: Any, defs: Definitions): { [name: string]: JsonSchema } =>
  Object.assign({}, ...bundle.map((m) => m.schema(defs)));
