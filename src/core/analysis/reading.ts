/** What a reading is: something found from the network, and followed from one revision to the next. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import type { Compiled } from "../network/compile";
import type { NetworkDelta } from "./network-delta";

/** States of the readings that stand before one, and the network they are of. */
export interface Start {
  readonly compiled: Compiled;
  readonly catalogue: Catalogue;
  state<S>(of: Reading<S>): S;
}

/** A change while it is followed. */
export interface ReadingStep extends Start {
  readonly edits: readonly Edit[];
  readonly network: NetworkDelta;
  /** What moved in a reading that stands before this one. */
  moved<M>(of: Reading<unknown, M>): M;
}

export interface Reading<S = unknown, M = unknown> {
  readonly name: string;
  /** Readings that it is made of: they are followed before it. */
  readonly after: readonly Reading[];
  /** Edits that it follows beyond those of the network: kinds, or fields of kinds such as "recipe.key". */
  readonly reads?: readonly string[];
  /** Edits after which everything is found again. */
  readonly anew?: readonly string[];
  /** What moved where nothing did. */
  readonly still: M;
  start(on: Start): S;
  /**
   * Called while the network is still as it was: takes back whatever the written processes were a reason for
   * (overdeletion; Gupta, Mumick, Subrahmanian 1993). What it returns is given to `follow`.
   */
  overdelete?(state: S, step: ReadingStep): unknown;
  /** Called once the network is as it will be. May change the state in place. */
  follow(state: S, step: ReadingStep, overdeleted: unknown): { readonly state: S; readonly moved: M };
}

/** Whether something that is declared covers an edit: its kind, or its field where it is a set. */
export const covers = (declared: readonly string[], edit: Edit): boolean =>
  declared.includes(edit.kind) || (edit.op === "set" && declared.includes(`${edit.kind}.${edit.field}`));
