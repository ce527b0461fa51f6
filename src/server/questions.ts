/**
 * What may be asked of an engine's thread, and what comes back. Large answers are JSON already: nobody but their reader
 * takes them apart.
 */
import type { ItemCosts } from "../core/analysis/item-costs";
import type { Edit } from "../core/catalogue/edit";
import type { Outcome } from "../core/catalogue/apply";
import type { Id } from "../core/schema/id";
import type { Problem } from "../core/exchange/report";
import type { PantryTexts } from "../store/load";
import type { Prepared, Refused, Write } from "../store/prepare";

/** What somebody wants to do: edits, the inverse of logged ones (JSON), or what a bundle says (UTF-8). */
export type Intent =
  | { readonly do: "edit"; readonly edits: readonly Edit[] }
  | { readonly do: "undo"; readonly edits: string }
  | { readonly do: "import"; readonly bundle: Uint8Array; readonly replace: boolean };

export interface PlanSummary {
  readonly added: number;
  readonly changed: number;
  readonly removed: number;
  readonly same: number;
  readonly settings: number;
  readonly edits: number;
  readonly notes: readonly Problem[];
}
/** What an intent comes to; of a bundle also what it would do, or why it can't be read. */
export type Readied =
  | { readonly answer: Prepared | Refused; readonly plan?: PlanSummary }
  | { readonly problems: readonly Problem[]; readonly notes: readonly Problem[] };

export interface Followed {
  /** JSON of a Ripple. */
  readonly ripple: string;
  /** JSON of what moved. */
  readonly moved: string;
}

export interface Questions {
  open: { question: { readonly texts: PantryTexts }; answer: number };
  /** Follows a change that another process committed. */
  follow: { question: { readonly edits: string; readonly revision: number }; answer: Followed };
  /** Makes changes ready, each behind the one before; they are kept until they are followed or others are made ready. */
  prepare: {
    question: { readonly intents: readonly Intent[] };
    answer: { readonly readied: readonly Readied[]; readonly writes: readonly Write[] };
  };
  /** What was made ready is committed, up to a revision: follows all of that at once. */
  committed: { question: { readonly revision: number }; answer: Followed };
  /** All records and readings, as JSON; zipped where asked for. */
  snapshot: { question: { readonly zip: boolean }; answer: { readonly revision: number; readonly body: Uint8Array } };
  bundle: { question: object; answer: { readonly text: Uint8Array; readonly key: string } };
  costs: { question: { readonly item: Id }; answer: (ItemCosts & { readonly revision: number }) | null };
  whatIf: {
    question: { readonly edits: readonly Edit[] };
    answer: { readonly ok: true; readonly json: string } | Extract<Outcome, { ok: false }>;
  };
  /** Ends the thread at once, as a crash would, or keeps it busy for so many milliseconds; for tests. */
  fail: { question: { readonly busy?: number }; answer: null };
}
export type Question = { [Q in keyof Questions]: { readonly ask: Q } & Questions[Q]["question"] }[keyof Questions];
export type Answer = { readonly value: unknown } | { readonly failed: string };
