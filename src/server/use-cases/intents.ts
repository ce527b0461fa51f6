/** What someone wants to do to a pantry, and what that comes to before it is written. */
import { invert, type Edit } from "../../core/catalogue/edit";
import type { Catalogue } from "../../core/catalogue/catalogue";
import type { OnProgress } from "../../core/exchange/progress";
import type { ReadPicture } from "../../core/exchange/pictures";
import { planImport, type SaidIcon } from "../../core/exchange/read";
import { type Issue, issue } from "../../core/schema/issue";
import { tellChange } from "../../core/history/telling";
import { cut } from "../../core/schema/characters";
import { pictureName } from "../../store/picture-name";
import { type Made, prepare, type Prepared, preparedOf, type Refused } from "../../store/prepare";

/** Edits, the inverse of logged ones (pieces of JSON, as `editsAt` gives them), or what a bundle says (UTF-8). */
export type Intent =
  | { readonly do: "edit"; readonly edits: readonly Edit[] }
  | { readonly do: "undo"; readonly edits: readonly string[] }
  | { readonly do: "import"; readonly bundle: Uint8Array; readonly replace: boolean };

export interface PlanSummary {
  readonly added: number;
  readonly changed: number;
  readonly removed: number;
  readonly same: number;
  readonly settings: number;
  readonly edits: number;
  readonly notes: readonly Issue[];
  /** Pictures that come along. */
  readonly pictures: number;
  /** Icons that are new in records; whether there are such is told by whoever has the pictures. */
  readonly icons: readonly SaidIcon[];
}
/** A bundle that can't be read, with what is wrong with it. */
export interface Unread {
  readonly issues: readonly Issue[];
  readonly notes: readonly Issue[];
}
/** What an intent comes to; of a bundle also what it would do, or why it can't be read. */
export type Readied = { readonly answer: Prepared | Refused; readonly plan?: PlanSummary } | Unread;

/** @returns what the intent comes to, and the change to be followed once it is committed; null: there is nothing to write */
export function readied(
  catalogue: Catalogue,
  intent: Intent,
  progress?: OnProgress,
): { readonly readied: Readied; readonly made: Made | null } {
  if (intent.do === "edit") return answered(prepare(catalogue, intent.edits));
  if (intent.do === "undo") {
    const edits = intent.edits.flatMap((piece) => JSON.parse(piece) as Edit[]);
    const note = cut(tellChange(catalogue, edits), 300);
    return answered(prepare(catalogue, invert(edits)), { note });
  }
  let text: string;
  try {
    text = new TextDecoder("utf-8", { fatal: true }).decode(intent.bundle);
  } catch {
    const issues = [issue("file", "This is not UTF-8. Save the file as UTF-8 and import it again.")];
    return { readied: { issues, notes: [] }, made: null };
  }
  const plan = planImport(catalogue, text, { replace: intent.replace, progress });
  const { notes, edits, next, added, changed, removed, same, settings, pictures, icons } = plan;
  const issues = [...plan.issues, ...pictures.flatMap(misnamed)];
  if (issues.length) return { readied: { issues, notes }, made: null };
  const tally = { added, changed, removed, same, settings, edits: edits.length, pictures: pictures.length };
  return answered(
    preparedOf({ next: edits.length ? next : catalogue, edits, pictures }),
    {},
    { ...tally, notes, icons },
  );
}

/** What is wrong with the name of a picture: it follows from its bytes. */
function misnamed({ name, base64, place }: ReadPicture): Issue[] {
  const right = pictureName(Buffer.from(base64, "base64"));
  const message = `This file is not the picture ${name}; its name is ${right}. Use that name here and for the icons.`;
  return right === name ? [] : [issue(`${place}.name`, message, { suggestions: [right] })];
}

function answered(
  result: ReturnType<typeof prepare>,
  more: { readonly note?: string } = {},
  plan?: PlanSummary,
): { readonly readied: Readied; readonly made: Made | null } {
  if ("refused" in result) return { readied: { answer: result.refused, plan }, made: null };
  const { prepared, made } = result;
  const written = prepared.size > 0 || (made.pictures?.length ?? 0) > 0;
  return { readied: { answer: { ...prepared, ...more }, plan }, made: written ? made : null };
}
