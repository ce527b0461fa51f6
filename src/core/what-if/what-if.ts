/** An engine that holds a pantry with the edits of a scenario made, and follows both. */
import { apply } from "../catalogue/apply";
import type { Catalogue } from "../catalogue/catalogue";
import { type Edit, invert } from "../catalogue/edit";
import { answerOf, type EngineAsk, type EngineQuestions } from "../engine/answers";
import { Engine } from "../engine/engine";
import type { Ripple } from "../engine/read-model";

export class WhatIf {
  private readonly engine: Engine;
  /** The pantry without the scenario. */
  private base: Catalogue;
  private made: readonly Edit[] = [];

  constructor(catalogue: Catalogue) {
    this.base = catalogue;
    this.engine = new Engine(catalogue);
  }
  get revision(): number {
    return this.base.revision;
  }

  /** Follows a change of the pantry. The scenario is left. @returns whether it fits */
  follow(edits: readonly Edit[], revision: number): boolean {
    this.leave();
    const outcome = apply(this.base, edits);
    if (!outcome.ok || outcome.catalogue.revision !== revision) return false;
    this.engine.follow(outcome.catalogue, outcome.edits);
    this.base = outcome.catalogue;
    return true;
  }

  /** Makes these edits in place of those before. @returns what they move in the pantry; null: they can't all be made */
  enter(edits: readonly Edit[]): Ripple | null {
    this.leave();
    if (!edits.length) return null;
    const { outcome, ripple } = this.engine.change(edits);
    this.made = outcome.ok ? outcome.edits : [];
    return ripple;
  }
  private leave(): void {
    if (this.engine.catalogue !== this.base) this.engine.follow(this.base, invert(this.made));
    this.made = [];
  }

  ask<Q extends EngineAsk>(ask: Q, question: EngineQuestions[Q]["question"]): EngineQuestions[Q]["answer"] {
    return answerOf(this.engine, ask, question);
  }
}
