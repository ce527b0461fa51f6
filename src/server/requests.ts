/**
 * What may come in over HTTP: each body and query is a class of class-validator, of which nothing but its members is
 * taken. The shape of edits is one constraint of ours; what edits and records mean is for the core's rules.
 */
import "reflect-metadata";
import {
  getMetadataStorage,
  IsOptional,
  IsString,
  Length,
  Matches,
  MaxLength,
  Validate,
  type ValidationArguments,
  ValidatorConstraint,
  type ValidatorConstraintInterface,
  validateSync,
  type ValidationError,
} from "class-validator";
import type { Edit } from "../core/catalogue/edit";
import { type Issue, issue } from "../core/schema/issue";
import { isPlain } from "../core/schema/json";
import { shapedEdits } from "../core/catalogue/shape";
import { shown, textProblem } from "../core/schema/characters";

/** What is checked: a class whose members say what they may be. Anything beside them is refused. */
export type Shape<T> = new () => T;
export type Checked<T> = { readonly ok: true; readonly of: T } | { readonly ok: false; readonly issues: Issue[] };

const namesOf = (shape: Shape<object>): readonly string[] => [
  ...new Set(
    getMetadataStorage()
      .getTargetValidationMetadatas(shape, "", true, false)
      .map((m) => m.propertyName),
  ),
];
const unknownIn = (names: Iterable<string>, known: readonly string[], message: (name: string) => string): Issue[] =>
  [...names]
    .filter((name) => !known.includes(name))
    .slice(0, 20)
    .map((name) => issue(shown(name).slice(1, -1), message(name)));

/** What is wrong within the edits of a body, with the place of each fault. */
const WITHIN = new WeakMap<object, readonly Issue[]>();

/** Edits as their shape allows (core/catalogue/shape.ts); what they mean is for the rules. */
@ValidatorConstraint({ name: "shapedEdits" })
class ShapedEdits implements ValidatorConstraintInterface {
  validate(value: unknown, { object }: ValidationArguments): boolean {
    const shaped = shapedEdits(value);
    if ("issues" in shaped) WITHIN.set(object, shaped.issues);
    return "edits" in shaped;
  }
  defaultMessage(): string {
    return "Expected a list of edits.";
  }
}

export class ChangeBody {
  @Validate(ShapedEdits)
  edits!: readonly Edit[];
  @IsOptional()
  @IsString()
  @MaxLength(500)
  note?: string;
}

export class PantryBody {
  @IsString()
  @Length(1, 120)
  name!: string;
}

/** A file of a picture; what is in it is judged by its bytes. */
export class PictureBody {
  @IsString()
  @Length(1, 700_000)
  @Matches(/^[A-Za-z0-9+/]+={0,2}$/, { message: "Expected the bytes of a file as base64." })
  base64!: string;
}

/** The name of the pantry, typed once more. */
export class DeleteBody extends PantryBody {}

const told = (errors: readonly ValidationError[]): Issue[] =>
  errors.flatMap((e) => {
    const within = e.constraints?.shapedEdits === undefined ? undefined : WITHIN.get(e.target as object);
    return within ?? Object.values(e.constraints ?? {}).map((message) => issue(e.property, message));
  });
const texts = (body: object): Issue[] =>
  Object.entries(body).flatMap(([place, value]) => {
    const message = typeof value === "string" ? textProblem(value, { max: 500, lines: true }) : null;
    return message ? [issue(place, message)] : [];
  });

/** The body as an instance, or everything that is wrong with it. Only own members of known names are read. */
export function checked<T extends object>(
  shape: Shape<T>,
  value: unknown,
  /** Whether texts in it are for people, and held to what may stand in those. */
  { texts: people = true }: { readonly texts?: boolean } = {},
): Checked<T> {
  if (!isPlain(value)) return { ok: false, issues: [issue("body", `Expected a JSON object, not ${shown(value)}.`)] };
  const known = namesOf(shape);
  const body = new shape();
  for (const name of known) if (Object.hasOwn(value, name)) (body as Record<string, unknown>)[name] = value[name];
  const issues = [
    ...unknownIn(Object.keys(value), known, () => `Unknown. Allowed: ${known.join(", ")}.`),
    ...told(validateSync(body)),
    ...(people ? texts(body) : []),
  ];
  return issues.length ? { ok: false, issues } : { ok: true, of: body };
}

/** The same for what stands behind the question mark of an address. A member that is a list may stand several times. */
export function asked<T extends object>(shape: Shape<T>, query: URLSearchParams): Checked<T> {
  const known = namesOf(shape);
  const of = new shape() as Record<string, unknown>;
  const twice: Issue[] = [];
  for (const name of known) {
    const all = query.getAll(name);
    if (Array.isArray(of[name])) of[name] = all;
    else if (all.length) of[name] = all[0];
    if (!Array.isArray(of[name]) && all.length > 1) twice.push(issue(name, `${name} appears ${all.length} times.`));
  }
  const issues = [
    ...unknownIn(new Set(query.keys()), known, (name) =>
      known.length
        ? `${shown(name)} isn't a known parameter. Use: ${known.join(", ")}.`
        : `${shown(name)} isn't a known parameter: this address takes none.`,
    ),
    ...twice,
    ...(known.length ? told(validateSync(of)) : []),
  ];
  return issues.length ? { ok: false, issues } : { ok: true, of: of as T };
}

/** A change's edits and note, or what is wrong with them. */
export function checkedChange(
  value: unknown,
): { ok: true; edits: readonly Edit[]; note: string } | { ok: false; issues: readonly Issue[] } {
  const read = checked(ChangeBody, value);
  return read.ok ? { ok: true, edits: read.of.edits, note: read.of.note ?? "" } : read;
}
