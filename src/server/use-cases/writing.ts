/** Writing into a pantry, whoever asks: HTTP and the command line are the callers. */
import type { OnProgress } from "../../core/exchange/progress";
import { noIcons } from "../../core/catalogue/icons";
import { cut } from "../../core/schema/characters";
import { issue } from "../../core/schema/issue";
import type { Committed, Submission } from "../../store/commit";
import type { Refused } from "../../store/prepare";
import type { Intent, PlanSummary, Readied, Unread } from "./intents";

export interface Patience {
  /** Milliseconds from when it is begun. */
  readonly limit?: number;
  readonly signal?: AbortSignal;
  readonly progress?: OnProgress;
}

/** What was committed or refused; of a bundle also what it did, or why it can't be read. */
export type Submitted = { readonly committed: Committed; readonly plan?: PlanSummary } | Unread;

/** Where a pantry is written: an open engine, or the database alone. */
export interface Writer {
  readonly revision: number;
  /** What an intent would do, without doing it. */
  plan(intent: Intent, patience?: Patience): Promise<Readied>;
  submit(submission: Submission, intent: Intent, patience?: Patience): Promise<Submitted>;
  /** Those of some icons' names that no icon and no picture of the pantry has. */
  strange(icons: readonly string[]): Promise<readonly string[]>;
}

export interface ImportRequest {
  readonly bundle: Uint8Array;
  /** Whether records that the bundle does not name are taken out. */
  readonly replace: boolean;
  /** Only says what it would do. */
  readonly dry: boolean;
  readonly author: string;
  /** The file's, for the log. */
  readonly name: string;
}
export type Imported =
  | { readonly is: "planned" | "written"; readonly plan: PlanSummary; readonly revision: number }
  | { readonly is: "refused"; readonly refused: Refused }
  | ({ readonly is: "unread" } & Unread);

/** An import may take a while; everything else is soon done [ms]. */
export const LONG = 10 * 60_000;

/** Imports a bundle: everything or nothing. */
export async function importBundle(
  writer: Writer,
  { bundle, replace, dry, author, name }: ImportRequest,
  patience: Patience = {},
): Promise<Imported> {
  const intent: Intent = { do: "import", bundle, replace };
  const long = { limit: LONG, ...patience };
  if (dry) {
    const readied = await writer.plan(intent, long);
    if ("issues" in readied) return { is: "unread", ...readied };
    if (!readied.answer.ok) return { is: "refused", refused: readied.answer };
    return { is: "planned", plan: await withStrange(writer, readied.plan as PlanSummary), revision: writer.revision };
  }
  const submitted = await writer.submit({ author, note: cut(`Imported ${name}`, 300) }, intent, long);
  if ("issues" in submitted) return { is: "unread", ...submitted };
  const { committed, plan } = submitted;
  if (!committed.ok) return { is: "refused", refused: committed };
  const told = await withStrange(writer, plan as PlanSummary);
  return { is: committed.change || told.pictures ? "written" : "planned", plan: told, revision: committed.revision };
}

/** The same, with a note for each icon that no one knows. */
async function withStrange(writer: Writer, plan: PlanSummary): Promise<PlanSummary> {
  const strange = new Set(await writer.strange(plan.icons.map((i) => i.icon)));
  const notes = plan.icons
    .filter((i) => strange.has(i.icon))
    .map(({ icon, place, times }) => issue(place, noIcons([icon], times), { severity: "note" }));
  return { ...plan, icons: [], notes: [...plan.notes, ...notes.slice(0, TOLD)] };
}
/** Icons that are told of one bundle. */
const TOLD = 100;
