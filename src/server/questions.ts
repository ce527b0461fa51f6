/**
 * What may be asked of an engine's processes, and what comes back. Large answers are JSON already: no one but their
 * reader takes them apart.
 *
 * A pantry has two processes. One holds its records: it makes changes ready, and is never busy for long. The other
 * works out its readings, which may take long or fail without anything being lost.
 */
import type { Edit } from "../core/catalogue/edit";
import type { ApplyResult } from "../core/catalogue/apply";
import type { EngineQuestions } from "../core/engine/answers";
import type { FindingsSince } from "../core/engine/read-model";
import type { Progress } from "../core/exchange/progress";
import type { PantryTexts } from "../store/texts";
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

/** What the process that holds the records answers. */
export interface RecordQuestions {
  open: { question: { readonly texts: PantryTexts; readonly role: "records" }; answer: number };
  /** Applies a change that another process committed. */
  apply: { question: { readonly edits: string; readonly revision: number }; answer: null };
  /** Makes changes ready, each behind the one before; they are kept until they are committed or others are made ready. */
  prepare: {
    question: { readonly intents: readonly Intent[] };
    answer: { readonly readied: readonly Readied[] } & Writes;
  };
  /** Further writes of what was made ready. */
  more: { question: object; answer: Writes };
  /** What was made ready is committed, up to a revision. */
  committed: { question: { readonly revision: number }; answer: null };
  /**
   * All records as JSON, zipped where asked for, with the readings given along: JSON of a PackedReadModel, null where
   * there are none; and what is to be said of them.
   */
  snapshot: {
    question: { readonly model: Uint8Array | null; readonly analysis: string; readonly zip: boolean };
    answer: { readonly revision: number; readonly body: Uint8Array };
  };
  bundle: {
    question: object;
    /** `pictures`: names of those that its records show. */
    answer: { readonly text: Uint8Array; readonly key: string; readonly pictures: readonly string[] };
  };
}

/** What the process that works out the readings answers. */
export interface AnalysisQuestions extends EngineQuestions {
  open: { question: { readonly texts: PantryTexts; readonly role: "analysis" }; answer: number };
  /** Follows committed changes: lists of edits, JSON, up to a revision. */
  follow: {
    question: { readonly edits: readonly string[]; readonly revision: number };
    answer: Followed;
  };
  /** All readings that views hold, as JSON of a PackedReadModel. */
  model: { question: object; answer: { readonly revision: number; readonly model: Uint8Array } };
  /** How many findings there are. */
  counts: {
    question: object;
    answer: { readonly revision: number; readonly errors: number; readonly warnings: number };
  };
  /**
   * What the checks find now and did not find before these changes; null if that can't be told. Changes that the readings
   * have not followed yet are left out.
   */
  since: {
    question: { readonly changes: readonly { readonly revision: number; readonly edits: readonly string[] }[] };
    answer: (FindingsSince & { readonly revision: number }) | null;
  };
  whatIf: {
    question: { readonly edits: readonly Edit[] };
    answer: { readonly ok: true; readonly json: string } | Extract<ApplyResult, { ok: false }>;
  };
}

export type Role = "records" | "analysis";
export type QuestionsOf<R extends Role> = R extends "records" ? RecordQuestions : AnalysisQuestions;
type Asked<Q> = { [N in keyof Q]: { readonly ask: N } & (Q[N] extends { question: infer A } ? A : never) }[keyof Q];
export type Question = Asked<RecordQuestions> | Asked<AnalysisQuestions>;
export type ChildMessage =
  | { readonly value: unknown }
  | { readonly failed: string }
  /** Not an answer yet. */
  | { readonly progress: Progress };
