/** Writing into a pantry, whoever asks: HTTP and the command line are the callers. */
import type { OnProgress } from "../../core/exchange/progress";
import { cut } from "../../core/schema/characters";
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
    return { is: "planned", plan: readied.plan as PlanSummary, revision: writer.revision };
  }
  const submitted = await writer.submit({ author, note: cut(`Imported ${name}`, 300) }, intent, long);
  if ("issues" in submitted) return { is: "unread", ...submitted };
  const { committed, plan } = submitted;
  if (!committed.ok) return { is: "refused", refused: committed };
  return { is: committed.change ? "written" : "planned", plan: plan as PlanSummary, revision: committed.revision };
}
