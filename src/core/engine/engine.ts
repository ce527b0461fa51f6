/** An open pantry: its catalogue with all readings, findings and figures, followed from change to change. */
import type { Catalogue } from "../catalogue/catalogue";
import { apply, type ApplyResult } from "../catalogue/apply";
import { type Edit, invert } from "../catalogue/edit";
import type { Id } from "../schema/id";
import { inOrder, isRule, type Severity } from "../checklist";
import type { Index } from "../catalogue/persistent-map";
import { referencesFrom } from "../catalogue/references";
import { MEMBERS } from "../catalogue/types";
import { CHECKS } from "../checks";
import { PATTERNS } from "../checks/pattern-conflict";
import type { Item, Recipe } from "../kinds/index";
import { HEATED } from "../network/heat";
import { ASKED } from "../process/members";
import { OF_ITEMS } from "../process/traits";
import { dayOf, Decisions } from "../checks/decisions";
import { Findings } from "../checks/findings";
import { ruleIn } from "../checks/fingerprint";
import { severitiesOf, severityIn } from "../checks/severities";
import { type FindingsSince, type LoopRow, type PackedReadModel, type Ripple, sameCost, summed } from "./read-model";
import { FigureTable, type MovedFigures } from "./figures";
import type { CostAt } from "../analysis/cost-trend";
import { Readings, type Delta } from "../analysis/readings";

/** Items of a pantry whose readings may be started again to look at an earlier revision. */
const MOST_RESTARTED = 20_000;
/** How often at most, and how many steps going back over changes may take; see Engine.steps. */
const [MOST_RESTARTS, MOST_RETRACED] = [2, 2_000_000];
/** Findings of before that are listed with their messages. */
const MOST_GONE = 2_000;

export class Engine {
  readonly readings: Readings;
  private readonly findings: Findings;
  private figures: FigureTable;
  /** Milliseconds that the readings took to follow the last change. */
  took = 0;

  constructor(public catalogue: Catalogue) {
    prepare(catalogue);
    this.readings = new Readings(catalogue);
    this.findings = new Findings(CHECKS, { catalogue, readings: this.readings });
    this.figures = new FigureTable(this.readings);
  }

  get revision(): number {
    return this.catalogue.revision;
  }
  /** Steps of the work done so far: processes looked at for costs, and records looked at by checks. */
  get steps(): { readonly costs: number; readonly checks: number } {
    const { value, time } = this.readings;
    return { costs: value.looked + time.looked, checks: this.findings.asked };
  }

  /** How many findings there are of each rule, without telling them. */
  counts(): ReadonlyMap<string, number> {
    return this.findings.counts();
  }

  /** How many errors and warnings there are that no one accepted. */
  openCounts(): { readonly errors: number; readonly warnings: number } {
    const counts: Record<Severity, number> = { error: 0, warning: 0, note: 0 };
    const { catalogue } = this;
    const set = severitiesOf(catalogue);
    const decisions = new Decisions(catalogue, dayOf(new Date()));
    // Only findings of checks about which anything was decided are written out; the others are counted.
    const decided = decisions.rules();
    for (const [rule, n] of this.counts()) {
      const severity = isRule(rule) ? severityIn(set, rule) : "error";
      if (severity !== "off" && !decided.has(rule)) counts[severity] += n;
    }
    for (const { severity, fingerprint, size } of this.findings.of((rule) => decided.has(rule)))
      if (!decisions.about(fingerprint, size).accepted) counts[severity]++;
    return { errors: counts.error, warnings: counts.warning };
  }

  /** Everything the views show, of one revision. */
  model(): PackedReadModel {
    return {
      revision: this.revision,
      figures: Object.fromEntries(this.figures.all()),
      findings: inOrder([...this.findings.all()]),
      loops: this.loops(),
      complete: this.readings.gain.complete,
    };
  }

  /** Follows a change that was applied elsewhere already. */
  follow(next: Catalogue, edits: readonly Edit[]): Ripple {
    const { from, before, delta, put, opened, drop } = this.move(next, edits);
    const figures = this.moveFigures(delta);
    // What is accepted is no news, neither as it comes nor as it goes.
    const [then, now] = [before, next].map((catalogue) => new Decisions(catalogue, dayOf(new Date())));
    const moved = summed(
      figures,
      opened.filter(({ fingerprint, size }) => !now.about(fingerprint, size).accepted),
      drop.filter((print) => !then.about(print).accepted).map(ruleIn),
    );
    return {
      from,
      to: next.revision,
      figures: figures.map(([id, , now]) => [id, now]),
      put,
      drop,
      loops: this.loops(),
      complete: this.readings.gain.complete,
      moved,
    };
  }

  private move(next: Catalogue, edits: readonly Edit[]) {
    const before = this.catalogue;
    const began = performance.now();
    const delta = this.readings.advance(next, edits);
    this.took = performance.now() - began;
    this.catalogue = next;
    const found = this.findings.advance({ catalogue: next, readings: this.readings }, delta, edits);
    return { from: before.revision, before, delta, ...found };
  }

  /** Applies edits and follows them; nothing moves where they are refused. */
  change(edits: readonly Edit[]): { outcome: ApplyResult; ripple: Ripple | null } {
    const outcome = apply(this.catalogue, edits);
    return { outcome, ripple: outcome.ok ? this.follow(outcome.catalogue, outcome.edits) : null };
  }

  /** What edits would move, without making them. */
  whatIf(edits: readonly Edit[]): { outcome: ApplyResult; ripple: Ripple | null } {
    const before = this.catalogue;
    const { outcome, ripple } = this.change(edits);
    if (outcome.ok) this.follow(before, invert(outcome.edits));
    return { outcome, ripple };
  }

  /**
   * What the checks find now and did not find at an earlier revision, and the other way round.
   * @param edits  everything that changed since then, in order
   * @returns null if the edits do not lead to this revision, or going back over them would take too long
   */
  since(edits: readonly Edit[]): FindingsSince | null {
    const now = this.catalogue;
    const outcome = this.startsAgain(edits) && this.isLarge ? null : apply(now, invert(edits));
    if (!outcome?.ok) return null;
    const { delta, opened, drop } = this.move(outcome.catalogue, outcome.edits);
    this.moveFigures(delta);
    this.follow(now, invert(outcome.edits));
    return { added: drop, gone: opened.slice(0, MOST_GONE), moreGone: Math.max(0, opened.length - MOST_GONE) };
  }

  /** Starting again takes more than a moment. */
  private get isLarge(): boolean {
    return this.readings.network.items > MOST_RESTARTED;
  }
  /** Whether following edits starts the readings or the checks again. */
  private startsAgain(edits: readonly Edit[]): boolean {
    return this.readings.restarts(edits) || edits.some(({ kind }) => kind === "pantry" || kind === "severity");
  }

  /**
   * What an item cost after each of the last changes that moved it. Going back ends where it would take too long: after
   * `MOST_RETRACED` steps, or at a change that starts everything again in a large pantry, or at the third such change.
   * @param changes  the last ones, oldest first, without gaps up to this revision
   * @returns its cost from each revision on at which it became another, newest first, and at last before the oldest change
   *   that was gone back over; null if the changes do not lead to this revision
   */
  costHistory(
    item: Id,
    changes: readonly { readonly revision: number; readonly edits: readonly Edit[] }[],
  ): readonly CostAt[] | null {
    const now = this.catalogue;
    const taken: Edit[] = [];
    const history: CostAt[] = [];
    const limit = this.stepsTaken + MOST_RETRACED;
    let [complete, restarts, oldest] = [true, 0, this.costAt(item, now.revision)];
    for (let k = changes.length - 1; k >= 0 && this.stepsTaken < limit; k--) {
      const { revision, edits } = changes[k];
      if (this.startsAgain(edits) && (this.isLarge || ++restarts > MOST_RESTARTS)) break;
      const outcome = apply(this.catalogue, invert(edits));
      complete = outcome.ok;
      if (!outcome.ok) break;
      const after = { ...oldest, revision };
      this.moveFigures(this.move(outcome.catalogue, outcome.edits).delta);
      taken.push(...outcome.edits);
      oldest = this.costAt(item, revision - 1);
      if (!sameCost(after, oldest)) history.push(after);
    }
    if (taken.length) this.follow(now, invert(taken));
    return complete ? [...history, oldest] : null;
  }
  private get stepsTaken(): number {
    const { costs, checks } = this.steps;
    return costs + checks;
  }
  private costAt(item: Id, revision: number): CostAt {
    const i = this.readings.compiled.numberOf(item);
    const figures = i === undefined ? null : this.figures.at(i);
    return { revision, value: figures?.value ?? null, time: figures?.time ?? null };
  }

  private loops(): LoopRow[] {
    const { compiled, loops } = this.readings;
    return loops.map((l) => ({
      verdict: l.verdict,
      items: l.items.map((i) => compiled.nodeOf(i) as Id),
      recipes: l.steps.flatMap((step) => (step.run === "process" ? [compiled.processId(step.process)] : [])),
    }));
  }

  private moveFigures(delta: Delta): readonly MovedFigures[] {
    if (!delta.anew) return this.figures.follow(this.readings, delta);
    const before = this.figures;
    this.figures = new FigureTable(this.readings);
    return [...this.figures.since(before)];
  }
}

/** What readings and checks of every pantry look up, found in one pass over the items and one over the recipes. */
function prepare({ records: { item, recipe } }: Catalogue): void {
  item.prepare([OF_ITEMS, MEMBERS, referencesFrom("item")] as readonly Index<Item, unknown>[]);
  recipe.prepare([ASKED, HEATED, PATTERNS, referencesFrom("recipe")] as readonly Index<Recipe, unknown>[]);
}
