/** What the worker of What-if is asked, and what it answers; one message after the other. */
import { type Packed, unpacked } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import { type EngineAsk, isEngineAsk } from "../engine/answers";
import type { Ripple } from "../engine/read-model";
import { WhatIf } from "./what-if";

/** A change of the pantry, as it is followed. */
export interface Followed {
  readonly revision: number;
  readonly edits: readonly Edit[];
}
export type ToWorker = { readonly id: number } & (
  | { readonly do: "open"; readonly packed: Packed }
  /** Follows changes, then makes the edits of a scenario at a revision. */
  | {
      readonly do: "enter";
      readonly changes: readonly Followed[];
      readonly edits: readonly Edit[];
      readonly at: number;
    }
  | { readonly do: "ask"; readonly ask: EngineAsk; readonly question: object }
);
export type FromWorker = { readonly id: number } & ({ readonly value: unknown } | { readonly failed: string });
/** The answer to "enter"; `revision` is the pantry's. Where it is another than the one asked for, it must be opened anew. */
export interface Entered {
  readonly revision: number;
  readonly ripple: Ripple | null;
}

/** @returns what answers the messages of one window */
export function whatIfServer(): (message: ToWorker) => FromWorker {
  let here: WhatIf | null = null;
  const answer = (message: ToWorker): unknown => {
    if (message.do === "open") {
      here = new WhatIf(unpacked(message.packed));
      return here.revision;
    }
    if (!here) throw new Error("No pantry is open.");
    if (message.do === "ask") {
      if (!isEngineAsk(message.ask)) throw new Error(`There is no question “${message.ask}”.`);
      return here.ask(message.ask, message.question as never);
    }
    for (const { edits, revision } of message.changes)
      if (revision > here.revision && !here.follow(edits, revision)) break;
    if (here.revision !== message.at) return { revision: here.revision, ripple: null };
    return { revision: here.revision, ripple: here.enter(message.edits) };
  };
  return (message) => {
    try {
      return { id: message.id, value: answer(message) };
    } catch (error) {
      return { id: message.id, failed: (error as Error).message };
    }
  };
}
