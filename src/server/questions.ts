/**
 * What may be asked of an engine's thread, and what comes back. Large answers are JSON already: nobody but their reader
 * takes them apart.
 */
import type { Glance } from "../core/analysis/glance";
import type { AskedPlan, PlanAnswer } from "../core/analysis/plan-written";
import type { Ask, Chain } from "../core/chains/chain";
import type { Node } from "../core/network/node";
import type { ItemCosts } from "../core/analysis/item-costs";
import type { Edit } from "../core/catalogue/edit";
import type { Outcome } from "../core/catalogue/apply";
import type { Id } from "../core/schema/id";
import type { Progress } from "../core/exchange/progress";
import type { PantryTexts } from "../store/load";
import type { Write } from "../store/prepare";
import type { Intent, Readied } from "./use-cases/intents";

export interface Followed {
  /** JSON of a Ripple; null where it would be too large to be sent. */
  readonly ripple: string | null;
  /** JSON of what moved. */
  readonly moved: string;
}

/** What is to be written, as far as it is made already. */
export interface Writes {
  readonly writes: readonly Write[];
  /** Whether there are more to be asked for. */
  readonly more: boolean;
}

export interface Questions {
  open: { question: { readonly texts: PantryTexts }; answer: number };
  /** Follows a change that another process committed. */
  follow: { question: { readonly edits: string; readonly revision: number }; answer: Followed };
  /** Makes changes ready, each behind the one before; they are kept until they are followed or others are made ready. */
  prepare: {
    question: { readonly intents: readonly Intent[] };
    answer: { readonly readied: readonly Readied[] } & Writes;
  };
  /** Further writes of what was made ready. */
  more: { question: object; answer: Writes };
  /** What was made ready is committed, up to a revision: follows all of that at once. */
  committed: { question: { readonly revision: number }; answer: Followed };
  /** All records and readings, as JSON; zipped where asked for. */
  snapshot: { question: { readonly zip: boolean }; answer: { readonly revision: number; readonly body: Uint8Array } };
  bundle: { question: object; answer: { readonly text: Uint8Array; readonly key: string } };
  costs: { question: { readonly item: Id }; answer: (ItemCosts & { readonly revision: number }) | null };
  chain: {
    question: { readonly item: Node; readonly of: Ask };
    answer: (Chain & { readonly revision: number }) | null;
  };
  glance: { question: object; answer: Glance & { readonly revision: number } };
  plan: { question: { readonly of: AskedPlan }; answer: { readonly revision: number; readonly plan: PlanAnswer } };
  whatIf: {
    question: { readonly edits: readonly Edit[] };
    answer: { readonly ok: true; readonly json: string } | Extract<Outcome, { ok: false }>;
  };
}
export type Question = { [Q in keyof Questions]: { readonly ask: Q } & Questions[Q]["question"] }[keyof Questions];
export type ThreadMessage =
  | { readonly value: unknown }
  | { readonly failed: string }
  /** Not an answer yet. */
  | { readonly progress: Progress };
