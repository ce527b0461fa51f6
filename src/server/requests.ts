/**
 * What may come in over HTTP. The envelope is checked here by class-validator; edits and records by the core's shape
 * and rules.
 */
import "reflect-metadata";
import {
  Allow,
  IsDefined,
  IsOptional,
  IsString,
  Length,
  Matches,
  MaxLength,
  validateSync,
  type ValidationError,
} from "class-validator";
import type { Edit } from "../core/catalogue/edit";
import { type Issue, issue } from "../core/schema/issue";
import { isPlain } from "../core/schema/json";
import { shapedEdits } from "../core/catalogue/shape";
import { shown, textProblem } from "../core/schema/characters";

/** Names of what a body holds; anything else in it is refused. */
type Shape<T> = { new (): T; readonly names: readonly string[] };

export class ChangeBody {
  static readonly names = ["edits", "note"];
  @IsDefined()
  @Allow()
  edits!: unknown;
  @IsOptional()
  @IsString()
  @MaxLength(500)
  note?: string;
}

export class PantryBody {
  static readonly names = ["name"];
  @IsString()
  @Length(1, 120)
  name!: string;
}

/** A file of a picture; what is in it is judged by its bytes. */
export class PictureBody {
  static readonly names = ["base64"];
  @IsString()
  @Length(1, 700_000)
  @Matches(/^[A-Za-z0-9+/]+={0,2}$/, { message: "Expected the bytes of a file as base64." })
  base64!: string;
}

/** The name of the pantry, typed once more. */
export class DeleteBody extends PantryBody {}

const told = (errors: readonly ValidationError[]): Issue[] =>
  errors.flatMap((e) => Object.values(e.constraints ?? {}).map((says) => issue(e.property, says)));
const texts = (body: object): Issue[] =>
  Object.entries(body).flatMap(([place, value]) => {
    const says = typeof value === "string" ? textProblem(value, { max: 500, lines: true }) : null;
    return says ? [issue(place, says)] : [];
  });

/** The body as an instance, or everything that is wrong with it. Only own members of known names are read. */
export function checked<T extends object>(
  shape: Shape<T>,
  value: unknown,
  /** Whether texts in it are for people, and held to what may stand in those. */
  { texts: people = true }: { readonly texts?: boolean } = {},
): { ok: true; body: T } | { ok: false; issues: Issue[] } {
  if (!isPlain(value)) return { ok: false, issues: [issue("body", `Expected a JSON object, not ${shown(value)}.`)] };
  const unknown = Object.keys(value).flatMap((name) =>
    shape.names.includes(name)
      ? []
      : [issue(shown(name).slice(1, -1), `Unknown. Known here: ${shape.names.join(", ")}.`)],
  );
  const body = new shape();
  for (const name of shape.names) if (Object.hasOwn(value, name)) (body as Record<string, unknown>)[name] = value[name];
  const issues = [
    ...unknown.slice(0, 20),
    ...told(validateSync(body, { forbidUnknownValues: true })),
    ...(people ? texts(body) : []),
  ];
  return issues.length ? { ok: false, issues } : { ok: true, body };
}

/** A change's edits and note, or what is wrong with them. */
export function checkedChange(
  value: unknown,
): { ok: true; edits: readonly Edit[]; note: string } | { ok: false; issues: readonly Issue[] } {
  const read = checked(ChangeBody, value);
  const shaped = shapedEdits(isPlain(value) && Object.hasOwn(value, "edits") ? value.edits : undefined);
  if (read.ok && "edits" in shaped) return { ok: true, edits: shaped.edits, note: read.body.note ?? "" };
  const [outside, inside] = [read.ok ? [] : read.issues, "edits" in shaped ? [] : shaped.issues];
  return {
    ok: false,
    issues: isPlain(value) ? [...outside.filter((c) => c.path !== "edits"), ...inside] : outside,
  };
}
