/** An open pantry: its catalogue with all readings, findings and figures, followed from change to change. */
import type { Catalogue } from "../catalogue/catalogue";
import { apply, type Edit, invert, type Outcome } from "../catalogue/changes";
import type { Id } from "../catalogue/records";
import { CHECKS, inOrder } from "../checks";
import { Findings } from "../checks/findings";
import { processAt } from "../network/compile";
import { type Board, type Figures, type LoopRow, type Ripple, ruleOf, sameFigures, summed } from "./board";
import { levelOf } from "./progression";
import { Readings, type Shift } from "./readings";

const finite = (x: number): number | null => (Number.isFinite(x) ? x : null);

export class Engine {
  readonly readings: Readings;
  private readonly findings: Findings;
  private readonly known = new Set<string>();
  private figures = new Map<Id, Figures>();
  /** Milliseconds that the readings took to follow the last change. */
  took = 0;

  constructor(public catalogue: Catalogue) {
    this.readings = new Readings(catalogue);
    this.findings = new Findings(CHECKS, this);
    for (const f of this.findings.all()) this.known.add(f.fingerprint);
    this.figures = this.allFigures();
  }

  get revision(): number {
    return this.catalogue.revision;
  }

  /** Everything the views show, of one revision. */
  board(): Board {
    return { revision: this.revision, figures: Object.fromEntries(this.figures), findings: inOrder([...this.findings.all()]), loops: this.loops(), complete: this.readings.gain.complete };
  }

  /** Follows a change that was applied elsewhere already. */
  follow(next: Catalogue, edits: readonly Edit[]): Ripple {
    const from = this.revision;
    const began = performance.now();
    const shift = this.readings.advance(next, edits);
    this.took = performance.now() - began;
    this.catalogue = next;
    const { put, drop } = this.findings.advance(this, shift, edits);
    const opened = put.filter((f) => !this.known.has(f.fingerprint));
    for (const f of opened) this.known.add(f.fingerprint);
    for (const fingerprint of drop) this.known.delete(fingerprint);
    const figures = this.moveFigures(shift);
    const moved = summed(figures, opened, drop.map(ruleOf));
    return { from, to: next.revision, figures: figures.map(([id, , now]) => [id, now]), put, drop, loops: this.loops(), complete: this.readings.gain.complete, moved };
  }

  /** Applies edits and follows them; nothing moves where they are refused. */
  change(edits: readonly Edit[]): { outcome: Outcome; ripple: Ripple | null } {
    const outcome = apply(this.catalogue, edits);
    return { outcome, ripple: outcome.ok ? this.follow(outcome.catalogue, outcome.edits) : null };
  }

  /** What edits would move, without making them. */
  whatIf(edits: readonly Edit[]): { outcome: Outcome; ripple: Ripple | null } {
    const before = this.catalogue;
    const { outcome, ripple } = this.change(edits);
    if (outcome.ok) this.follow(before, invert(outcome.edits));
    return { outcome, ripple };
  }

  private loops(): LoopRow[] {
    const { compiled, loops } = this.readings;
    return loops.map((l) => ({
      verdict: l.verdict,
      items: l.items.map((i) => compiled.items[i] as Id),
      recipes: l.steps.flatMap((step) => (step.run === "process" ? [processAt(compiled, step.process).record.id] : [])),
    }));
  }

  private figuresOf(i: number): Figures {
    const { readings } = this;
    const by = readings.by("value", i);
    return { value: finite(readings.value.cost[i]), time: finite(readings.time.cost[i]), by: by < 0 ? null : processAt(readings.compiled, by).record.id, steps: readings.steps(i), level: levelOf(readings, i) };
  }

  private allFigures(): Map<Id, Figures> {
    const all = new Map<Id, Figures>();
    this.readings.compiled.items.forEach((id, i) => { if (id !== null) all.set(id, this.figuresOf(i)); });
    return all;
  }

  private moveFigures(shift: Shift): [Id, Figures | null, Figures | null][] {
    const moved: [Id, Figures | null, Figures | null][] = [];
    const { compiled } = this.readings;
    if (shift.anew) {
      const before = this.figures;
      this.figures = this.allFigures();
      for (const [id, now] of this.figures) {
        const then = before.get(id) ?? null;
        if (!then || !sameFigures(then, now)) moved.push([id, then, now]);
      }
      for (const [id, then] of before) if (!this.figures.has(id)) moved.push([id, then, null]);
      return moved;
    }
    const open = new Set<number>([...shift.value.keys(), ...shift.time.keys(), ...shift.ways, ...shift.levels, ...shift.reach, ...shift.added]);
    for (const i of open) {
      const id = compiled.items[i];
      if (id === null) continue;
      const now = this.figuresOf(i);
      const then = this.figures.get(id) ?? null;
      if (then && sameFigures(then, now)) continue;
      this.figures.set(id, now);
      moved.push([id, then, now]);
    }
    for (const id of shift.gone) {
      const then = this.figures.get(id);
      if (then) moved.push([id, then, null]);
      this.figures.delete(id);
    }
    return moved;
  }
}

/** The board of a catalogue, from scratch. */
export const boardOf = (catalogue: Catalogue): Board => new Engine(catalogue).board();
