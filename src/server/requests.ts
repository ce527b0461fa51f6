/** What may come in over HTTP. Shape is checked here by class-validator; meaning by the core's rules. */
import "reflect-metadata";
import { plainToInstance, Type } from "class-transformer";
import { Allow, ArrayMaxSize, ArrayMinSize, IsArray, IsIn, IsObject, IsOptional, IsString, Length, Matches, MaxLength, ValidateIf, ValidateNested, validateSync, type ValidationError } from "class-validator";
import type { Edit } from "../core/catalogue/changes";
import { KINDS } from "../core/catalogue/records";

export class EditBody {
  @IsIn(["add", "remove", "set"])
  op!: string;
  @IsIn([...KINDS, "pantry"])
  kind!: string;
  @ValidateIf((e: EditBody) => e.op !== "set")
  @IsObject()
  record?: object;
  @ValidateIf((e: EditBody) => e.op === "set")
  @Matches(/^[0-9a-z]{12}$/, { message: "id must be 12 characters of 0-9 and a-z" })
  id?: string;
  @ValidateIf((e: EditBody) => e.op === "set")
  @IsString()
  @Length(1, 60)
  field?: string;
  @Allow()
  from?: unknown;
  @Allow()
  to?: unknown;
}

export class ChangeBody {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(50_000)
  @ValidateNested({ each: true })
  @Type(() => EditBody)
  edits!: EditBody[];
  @IsOptional()
  @IsString()
  @MaxLength(500)
  note?: string;

  /** Their shape is right; what they mean is for the core's rules to judge. */
  asEdits(): Edit[] {
    return this.edits as unknown as Edit[];
  }
}

export class PantryBody {
  @IsString()
  @Length(1, 120)
  name!: string;
}

export interface Complaint {
  readonly place: string;
  readonly says: string;
}

const flatten = (errors: readonly ValidationError[], path = ""): Complaint[] =>
  errors.flatMap((e) => {
    const place = /^\d+$/.test(e.property) ? `${path}[${e.property}]` : path ? `${path}.${e.property}` : e.property;
    return [...Object.values(e.constraints ?? {}).map((says) => ({ place, says })), ...flatten(e.children ?? [], place)];
  });

/** The body as an instance, or everything that is wrong with it. */
export function checked<T extends object>(shape: new () => T, value: unknown): { ok: true; body: T } | { ok: false; complaints: Complaint[] } {
  if (typeof value !== "object" || value === null || Array.isArray(value)) return { ok: false, complaints: [{ place: "body", says: "Expected a JSON object." }] };
  const body = plainToInstance(shape, value);
  const errors = validateSync(body, { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true });
  return errors.length ? { ok: false, complaints: flatten(errors) } : { ok: true, body };
}
