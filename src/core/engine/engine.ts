/** An open pantry: its catalogue with all readings, findings and figures, followed from change to change. */
import type { Catalogue } from "../catalogue/catalogue";
import { apply, type ApplyResult } from "../catalogue/apply";
import { type Edit, invert } from "../catalogue/edit";
import type { Id } from "../schema/id";
import { inOrder } from "../checklist";
import type { Index } from "../catalogue/persistent-map";
import { referencesFrom } from "../catalogue/references";
import { MEMBERS } from "../catalogue/types";
import { CHECKS } from "../checks";
import { PATTERNS } from "../checks/pattern-conflict";
import type { Item, Recipe } from "../kinds/index";
import { HEATED } from "../network/heat";
import { ASKED } from "../process/members";
import { OF_ITEMS } from "../process/traits";
import { Findings } from "../checks/findings";
import { type LoopRow, type PackedReadModel, type Ripple, ruleOf, summed } from "./read-model";
import { FigureTable, type MovedFigures } from "./figures";
import { Readings, type Delta } from "../analysis/readings";

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
    const from = this.revision;
    const began = performance.now();
    const delta = this.readings.advance(next, edits);
    this.took = performance.now() - began;
    this.catalogue = next;
    const { put, opened, drop } = this.findings.advance({ catalogue: next, readings: this.readings }, delta, edits);
    const figures = this.moveFigures(delta);
    const moved = summed(figures, opened, drop.map(ruleOf));
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
