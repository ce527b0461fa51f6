/**
 * A scenario that someone is working on in this window: what is changed goes into it instead of the pantry, and views
 * show the pantry through it. Nothing of it is sent anywhere.
 */
import { apply, type ApplyResult } from "@/core/catalogue/apply";
import type { Edit } from "@/core/catalogue/edit";
import type { Finding } from "@/core/checks/check";
import type { Effects } from "@/core/engine/effects";
import { effectsOf } from "@/core/engine/effects";
import { follow, type Ripple } from "@/core/engine/read-model";
import { type LoggedChange, type Moved, NOTHING_MOVED } from "@/core/history/log";
import { tellChange } from "@/core/history/telling";
import type { Id } from "@/core/schema/id";
import { same } from "@/core/schema/json";
import type { Entered, Followed } from "@/core/what-if/serve";
import { type Fitted, fitted, mergedEdits } from "@/core/what-if/scenario";
import { judgedFindings } from "../pantry/judged";
import type { Live } from "../pantry/store";
import { EngineWorker } from "./engine-worker";

/** What is worked on, as it is kept in this browser. */
export interface Draft {
  /** The record it is kept as; null: it has no name yet. */
  readonly id: Id | null;
  readonly name: string;
  readonly edits: readonly Edit[];
}
export interface ScenarioEffects extends Effects {
  readonly moved: Moved;
}
/** What views see of it; another object whenever anything is another. */
export interface ScenarioView extends Draft {
  /** Counts up with every state, so that what was asked of an earlier one is asked again. */
  readonly state: number;
  readonly unfit: Fitted["unfit"];
  /** null: there are none yet. */
  readonly effects: ScenarioEffects | null;
  /** False while the effects are those of earlier edits. */
  readonly current: boolean;
  /** Why there are no effects and won't be. */
  readonly stopped: string | null;
  readonly canUndo: boolean;
  readonly canRedo: boolean;
}

/** Items of a pantry that What-if can be used for: its analysis is held by the browser as well. */
export const MOST_ITEMS = 150_000;

export class ScenarioSession {
  private past: (readonly Edit[])[] = [];
  private future: (readonly Edit[])[] = [];
  private edits: readonly Edit[];
  private fit: Fitted;
  private ripple: Ripple | null = null;
  private worker: EngineWorker | null = null;
  /** Changes that the worker was not told yet. */
  private changes: Followed[] = [];
  /** The worker that has not answered yet. */
  private asked: EngineWorker | null = null;
  /** The edits have changed since it was asked. */
  private isStale = false;
  private current = false;
  private stopped: string | null = null;
  private state = 0;
  private shown: { readonly base: Live; readonly state: number; readonly live: Live } | null = null;
  id: Id | null;
  name: string;

  /** @param changed  is called whenever what it shows is another */
  constructor(
    draft: Draft,
    private base: Live,
    private readonly changed: () => void,
  ) {
    ({ id: this.id, name: this.name, edits: this.edits } = draft);
    this.fit = fitted(base.catalogue, this.edits);
    if (base.catalogue.records.item.size > MOST_ITEMS)
      this.stopped = `What-if can be used with up to ${MOST_ITEMS} items; this pantry has ${base.catalogue.records.item.size}.`;
    else this.worker = new EngineWorker(base.catalogue);
    this.enter();
  }

  get draft(): Draft {
    return { id: this.id, name: this.name, edits: this.edits };
  }
  get view(): ScenarioView {
    return {
      ...this.draft,
      state: this.state,
      unfit: this.fit.unfit,
      effects: this.effects,
      current: this.current,
      stopped: this.stopped,
      canUndo: this.past.length > 0,
      canRedo: this.future.length > 0,
    };
  }
  /** Its edits as the pantry takes them: those that change something. */
  get fitting(): readonly Edit[] {
    return this.fit.edits;
  }
  /**
   * More edits, on top of those that are there; none of them where they can't be made.
   * @param step  what is moved: moving it on and on is taken back at once
   */
  add(more: readonly Edit[], step: string | null = null): ApplyResult {
    const outcome = apply(this.fit.catalogue, more);
    if (!outcome.ok) return outcome;
    const edits = mergedEdits(this.edits, outcome.edits);
    // What views derived from the records so far follows the few that are others now.
    const catalogue = { ...outcome.catalogue, revision: this.base.catalogue.revision + 1 };
    const fit =
      this.fit.unfit.length || !edits.length ? fitted(this.base.catalogue, edits) : { catalogue, edits, unfit: [] };
    this.put(edits, step, fit);
    return outcome;
  }
  /** What was moved last. */
  private step: string | null = null;
  /** Other edits in place of those that are there. */
  put(edits: readonly Edit[], step: string | null = null, fit = fitted(this.base.catalogue, edits)): void {
    if (same(edits, this.edits)) return;
    if (step === null || step !== this.step) this.past.push(this.edits);
    this.step = step;
    this.future = [];
    this.setEdits(edits, fit);
  }
  undo(): void {
    const before = this.past.pop();
    if (!before) return;
    this.step = null;
    this.future.push(this.edits);
    this.setEdits(before);
  }
  redo(): void {
    const next = this.future.pop();
    if (!next) return;
    this.past.push(this.edits);
    this.setEdits(next);
  }
  private setEdits(edits: readonly Edit[], fit = fitted(this.base.catalogue, edits)): void {
    this.edits = edits;
    this.fit = fit;
    this.enter();
    this.tell();
  }
  /** It is a record now, or another one. */
  named(id: Id | null, name: string): void {
    [this.id, this.name] = [id, name];
    this.tell();
  }
  private tell(): void {
    this.state++;
    this.changed();
  }

  /**
   * The pantry has moved on.
   * @param changes  what was changed since it was told last, where that is known
   */
  moved(base: Live, changes: readonly LoggedChange[] | null): void {
    const before = this.base;
    this.base = base;
    if (base.catalogue === before.catalogue) return;
    this.fit = fitted(base.catalogue, this.edits);
    if (before.catalogue.revision !== base.catalogue.revision) {
      if (changes) this.changes.push(...changes);
      else this.again();
      this.enter();
    }
    this.state++;
  }
  /** Starts from what this window knows: not every change is known. */
  private again(): void {
    if (this.stopped !== null) return;
    this.worker?.end();
    this.worker = new EngineWorker(this.base.catalogue);
    this.changes = [];
  }

  /** Asks what the edits move. While one answer is awaited no other is asked for; then the last edits count. */
  private enter(): void {
    const { worker } = this;
    this.current = false;
    if (!worker) return;
    this.isStale = this.asked === worker;
    if (this.isStale) return;
    this.asked = worker;
    const { revision } = this.base.catalogue;
    worker
      .enter(this.changes.splice(0), this.fit.edits, revision)
      .then((entered) => this.entered(worker, revision, entered))
      .catch((error: Error) => {
        if (worker !== this.worker) return;
        this.stopped = error.message;
        this.tell();
      });
  }
  private entered(worker: EngineWorker, at: number, { revision, ripple }: Entered): void {
    if (worker !== this.worker) return;
    this.asked = null;
    if (revision !== at) {
      this.again();
      this.enter();
      return;
    }
    this.ripple = ripple;
    this.current = !this.isStale;
    this.tell();
    if (this.isStale) this.enter();
  }

  ask: EngineWorker["ask"] = (ask, question) =>
    this.worker ? this.worker.ask(ask, question) : Promise.reject(new Error(this.stopped ?? ""));

  /** What moves, where it is of the revision that the window shows. */
  private get movement(): Ripple | null {
    return this.ripple && this.ripple.from === this.base.model.revision ? this.ripple : null;
  }
  private get effects(): ScenarioEffects | null {
    const { decisions } = this.base.judged;
    const isOpen = ({ fingerprint, size }: Finding) => !decisions.about(fingerprint, size).accepted;
    const { movement } = this;
    if (movement) return { ...effectsOf(this.base.model, movement, isOpen), moved: movement.moved };
    return this.current ? NO_EFFECTS : null;
  }

  /** The pantry as it would be. */
  get live(): Live {
    const { base, fit, movement, state } = this;
    if (this.shown?.base === base && this.shown.state === state) return this.shown.live;
    const model = movement ? follow(base.model, movement) : base.model;
    const judged = judgedFindings(this.shown?.live ?? null, fit.catalogue, model);
    const effects = this.effects;
    const last = effects && {
      change: {
        revision: base.catalogue.revision + state / 1e6,
        author: "What-if",
        at: new Date().toISOString(),
        note: "",
        undoes: null,
        edits: fit.edits,
        size: fit.edits.length,
        moved: effects.moved,
      },
      message: `What if: ${tellChange(fit.catalogue, fit.edits)}`,
      items: new Set(effects.costs.map(({ id }) => id)),
      ...effects,
      costs: effects.costs.slice(0, 200),
    };
    const live: Live = { catalogue: fit.catalogue, model, ...judged, last, stopped: base.stopped };
    this.shown = { base, state, live };
    return live;
  }

  end(): void {
    this.worker?.end();
  }
}

const NO_EFFECTS: ScenarioEffects = { costs: [], opened: [], closed: [], moved: NOTHING_MOVED };
