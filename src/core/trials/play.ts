/**
 * Uses over time, from event to event: between two events resources move in straight lines, so that ten minutes cost what
 * happens in them and not their ticks. Within a tick pulses come first, then what ends, then uses that take effect, then new
 * ones.
 */
import type { Catalogue } from "../catalogue/catalogue";
import { held } from "../catalogue/inheritance";
import { type Effect, type HeldUse, readyIn, usesOf } from "../catalogue/uses";
import type { Item, TrialSubject } from "../kinds/index";
import { Heap } from "../numbers/heap";
import { seeded } from "../numbers/seeded";
import { formatTicks } from "../numbers/ticks";
import { sayQuantity } from "../numbers/format";
import { Budget, TooMany } from "../budget/budget";
import type { Id } from "../schema/id";
import { Bag } from "./bag";
import { type ActiveCondition, Body } from "./body";
import { splitThing, thingsIn } from "../network/box";
import type { RecipeRun } from "../process/run";
import { roller } from "./chance-box";
import { firstTick, type Timed } from "./look-ahead";
import { about, Reckoner, type Speaking } from "./reckon";
import type { Sold } from "./shop";
import { puttingOn, roomOf } from "./worn";

/** Whether what an effect asks for may be there a moment later although nothing happens: resources move by themselves. */
const hangsOnResources = ({ does, amount }: Effect): boolean =>
  does.is === "cost" || (amount !== null && TAKES.includes(does.is));

/** When something is used. */
export type Rule =
  | { readonly is: "at"; readonly ticks: readonly number[] }
  | { readonly is: "every"; readonly ticks: number; readonly from: number }
  | { readonly is: "ready" }
  /** Whenever a formula over the character holds. */
  | { readonly is: "whenever"; readonly holds: string };
export interface Planned {
  readonly item: Id;
  /** null: its first. */
  readonly use: Id | null;
  readonly rule: Rule;
}
export interface Setting {
  readonly subject: TrialSubject;
  /** Absent: that of the subject. */
  readonly level?: number;
  /** null: none in particular. */
  readonly situation?: Id | null;
  /** Someone that uses may act on. */
  readonly other?: { readonly subject: TrialSubject; readonly is: "ally" | "foe" };
  readonly seed?: number;
  /** Whether uses need the item in the bag; else there is as much of it as it takes. */
  readonly supplied?: boolean;
  /** Stations that are at hand beside those in the bag; null or absent: every one. */
  readonly stations?: ReadonlySet<Id> | null;
  /** Everything that happens takes steps of it; what is used up beyond it throws TooMany. */
  readonly budget?: Budget;
}
/** A use that was tried: it took effect, or why not. */
export interface Moment {
  readonly tick: number;
  readonly item: Id;
  readonly use: Id;
  readonly name: string;
  readonly refused: string | null;
}
export type StepResult = { readonly ok: true } | { readonly ok: false; readonly message: string };
const OK: StepResult = { ok: true };
const no = (message: string): StepResult => ({ ok: false, message });

/** Steps of one run where no one says how many: some seconds. */
const STEPS = 4e7;
/** Steps of one event, and of one use that is tried. */
const EVENT = 10;
const TRY = 10;
const MOST_MOMENTS = 100_000;
/** What a use asks of whoever uses it, and what may be lacking. */
const TAKES: readonly Effect["does"]["is"][] = ["take", "charge", "cost"];

type Event =
  | {
      readonly is: "pulse";
      readonly body: Body;
      readonly active: ActiveCondition;
      readonly pulse: number;
      readonly every: number;
    }
  | {
      readonly is: "flow";
      readonly body: Body;
      readonly resource: Id;
      readonly amount: number;
      readonly every: number;
      readonly until: number;
    }
  | { readonly is: "end"; readonly body: Body; readonly active: ActiveCondition }
  | { readonly is: "effect"; readonly item: Item; readonly use: HeldUse }
  | { readonly is: "harm"; readonly resource: Id; readonly perSecond: number }
  | { readonly is: "plan"; readonly plan: number };
const PHASE = { pulse: 0, flow: 0, end: 1, harm: 2, effect: 3, plan: 4 } as const;

interface ActivePlan extends Planned {
  readonly record: Item;
  readonly held: HeldUse | null;
  /** What it waits for. */
  readonly holds: Timed | null;
  stopped: boolean;
  /** The tick at which it acted last: it does so once at a tick. */
  acted: number;
}
/** What must hold all the time. */
export interface Watch {
  readonly holds: string;
  readonly of: Timed;
  /** The first tick at which it did not; null while it always did. */
  broken: number | null;
}

/** What time goes on for, until it holds. */
export interface Goal {
  /** A formula over the character, which may come to hold between two events; null: only what happens can bring it about. */
  readonly of: Timed | null;
  readonly holds: () => boolean;
}

export class Play {
  tick = 0;
  readonly reckoner: Reckoner;
  readonly user: Body;
  readonly other: Body | null;
  readonly bag: Bag;
  readonly moments: Moment[] = [];
  readonly signals: {
    readonly tick: number;
    readonly signal: Id;
    readonly told: readonly { readonly called: string; readonly value: string }[];
  }[] = [];
  readonly taught: Set<Id>;
  /** How many of each item were used up or went to pieces. */
  readonly spent = new Map<Id, number>();
  /** What still burns, by the tag of what may burn there (null: whatever burns): ticks of heat that no run used yet. */
  readonly heat = new Map<Id | null, number>();
  /** The batch that was begun last: which run, when it is done, and how many more go in it. */
  going: { readonly run: RecipeRun; readonly until: number; readonly room: number } | null = null;
  /** How often each source was run, and what of each stock is sold. */
  readonly ran = new Map<Id, number>();
  readonly sold = new Map<string, Sold>();
  /** Runs of each recipe that was asked for. */
  readonly runs = new Map<Id, readonly RecipeRun[]>();
  situation: Id | null = null;
  readonly stations: ReadonlySet<Id> | null;
  /** Stopped before its end, and why. */
  halted: string | null = null;
  private readonly random: () => number;
  private readonly heap = new Heap();
  private readonly events: Event[] = [];
  private readonly plans: ActivePlan[] = [];
  private readonly watches: Watch[] = [];
  /** Tick at which each use of each item took effect last, and any of a cooldown group. */
  private readonly last = new Map<Id, Map<Id, number>>();
  private readonly lastOf = new Map<Id, number>();
  private readonly held = new Map<Id, readonly HeldUse[]>();
  private readonly rolls = new Map<Id, (times: number) => readonly [string, number][]>();
  /** How often each item was used, where there is no bag to keep them. */
  private readonly usesHad = new Map<Id, number>();
  private busyUntil = 0;
  private readonly supplied: boolean;
  private readonly otherIs: "ally" | "foe" | null;

  readonly budget: Budget;

  constructor(
    readonly catalogue: Catalogue,
    {
      subject,
      level,
      situation = null,
      other,
      seed = 1,
      supplied = false,
      stations = null,
      budget = new Budget(STEPS),
    }: Setting,
    reckoner = new Reckoner(catalogue),
  ) {
    this.reckoner = reckoner;
    this.budget = budget;
    const now = () => this.tick;
    const item = (id: Id) => catalogue.records.item.get(id) ?? [];
    this.user = new Body(reckoner, subject, subject.worn.flatMap(item), now, level);
    this.other = other ? new Body(reckoner, other.subject, other.subject.worn.flatMap(item), now) : null;
    this.otherIs = other?.is ?? null;
    this.stations = stations;
    this.supplied = supplied;
    this.random = seeded(seed);
    this.taught = new Set(subject.knows);
    this.bag = new Bag(catalogue, this.limits(), budget);
    this.be(situation);
    for (const [id, count] of Object.entries(subject.kit)) this.bag.put(id as Id, count);
    for (const [id, n] of Object.entries(subject.money)) this.bag.earn(id as Id, n);
    this.carry();
  }

  /** Goes to a situation; it may have a rule of its own for what does not fit a bag. */
  be(situation: Id | null): void {
    this.situation = situation;
    const { records, pantry } = this.catalogue;
    this.bag.overflow = (situation && records.situation.get(situation)?.overflow) || pantry.overflow;
  }

  /** Begins and ends conditions of what is in the bag and worn now. */
  carry(): void {
    const { bag, user } = this;
    if (this.carriedOf.stacks === bag.stacks && this.carriedOf.worn === user.worn) return;
    this.budget.take(bag.stacks.length);
    this.carriedOf = { stacks: bag.stacks, worn: user.worn };
    const wanted = new Set<Id>();
    const add = (id: Id) => {
      for (const condition of this.carryingOf(id)) wanted.add(condition);
    };
    for (const { item } of bag.stacks) add(item);
    for (const { id } of user.worn) add(id);
    for (const active of user.carry(wanted)) this.pulse(user, active);
  }
  private carriedOf: { readonly stacks: Bag["stacks"]; readonly worn: readonly Item[] } = { stacks: [], worn: [] };
  private readonly carrying = new Map<Id, readonly Id[]>();
  private carryingOf(id: Id): readonly Id[] {
    let found = this.carrying.get(id);
    if (!found) {
      const item = this.catalogue.records.item.get(id);
      found = (item && held(this.catalogue, item, "carrying").value) ?? [];
      this.carrying.set(id, found);
    }
    return found;
  }
  /** Schedules what a condition does again and again. */
  private pulse(body: Body, active: ActiveCondition): void {
    for (const [pulse, { every, first }] of active.of.pulses.entries()) {
      const ticks = every > 0 ? every : this.catalogue.pantry.ticksPerSecond;
      this.repeat({ is: "pulse", body, active, pulse, every: ticks }, first ?? ticks);
    }
  }
  /** Schedules what comes again and again; what comes first at once does so now. */
  private repeat(event: Event, first: number): void {
    if (first > 0) this.schedule(this.tick + first, event);
    else this.happen(event);
  }

  /** A roll of the same chances as everything else of the run. */
  chance(p: number): boolean {
    return p >= 1 || this.random() < p;
  }
  uniform(): number {
    return this.random();
  }
  private limits(worn = this.user.worn) {
    const { subject } = this.user;
    const more = roomOf(this.catalogue, worn);
    return {
      slots: subject.bagSlots === null ? null : subject.bagSlots + more.slots,
      mass: subject.bagMass === null ? null : subject.bagMass + more.mass,
    };
  }

  usesOf(item: Item): readonly HeldUse[] {
    let uses = this.held.get(item.id);
    if (!uses) {
      uses = usesOf(this.catalogue, item);
      this.held.set(item.id, uses);
    }
    return uses;
  }

  private schedule(tick: number, event: Event): void {
    // As many phases as a key tells apart.
    this.heap.push(tick * 8 + PHASE[event.is], this.events.push(event) - 1);
  }

  plan(planned: Planned): StepResult {
    const record = this.catalogue.records.item.get(planned.item);
    if (!record) return no("There is no such item.");
    const uses = this.usesOf(record);
    const use = planned.use === null ? uses[0] : uses.find((u) => u.chain.some((c) => c.id === planned.use));
    if (!use) return no(`${record.name} has no use.`);
    const { rule } = planned;
    const holds = rule.is === "whenever" ? this.timed(rule.holds) : null;
    const at = this.plans.push({ ...planned, record, held: use, holds, stopped: false, acted: -1 }) - 1;
    if (rule.is === "at")
      for (const tick of rule.ticks) this.schedule(Math.max(tick, this.tick), { is: "plan", plan: at });
    else if (rule.is === "every") this.schedule(Math.max(rule.from, this.tick), { is: "plan", plan: at });
    else if (rule.is === "ready") this.schedule(this.tick, { is: "plan", plan: at });
    return OK;
  }
  /** Ends all that is planned with an item. */
  stop(item: Id): void {
    for (const plan of this.plans) if (plan.item === item) plan.stopped = true;
  }
  harm(resource: Id, perSecond: number, at = this.tick): void {
    this.schedule(at, { is: "harm", resource, perSecond });
  }
  /** From now on a formula must hold at every tick. */
  watch(holds: string): Watch {
    const watch: Watch = { holds, broken: null, of: this.timed(holds) };
    this.watches.push(watch);
    return watch;
  }

  /** A formula over the character, asked at other ticks than this one: nothing may happen in between. */
  private timed(kept: string): Timed {
    const speaks = about(this.user);
    const get = this.reckoner.get(kept, "bearer");
    const at = (tick: number, ask: (of: Speaking) => number) => {
      const now = this.tick;
      this.tick = tick;
      const value = ask(speaks);
      this.tick = now;
      return value;
    };
    return {
      tree: this.reckoner.tree(kept, "bearer"),
      nameAt: (name, tick) => at(tick, this.reckoner.name(name)),
      valueAt: (tick) => at(tick, get),
    };
  }

  /**
   * Goes on until something holds, at most up to a tick.
   * @returns whether it does
   * @throws TooMany where the budget is used up
   */
  until(goal: Goal, to: number): boolean {
    if (goal.holds()) return true;
    this.advance(to, goal);
    return goal.holds();
  }
  /** What can be asked of a formula that must come to hold. */
  goalOf(holds: string): Goal {
    const of = this.timed(holds);
    return { of, holds: () => of.valueAt(this.tick) !== 0 };
  }

  /**
   * Goes on up to a tick, and through all that happens at it.
   * @param goal  where it comes to hold, time stands still
   * @throws TooMany where the budget is used up
   */
  advance(to: number, goal?: Goal): void {
    this.carry();
    const looks = this.watches.length > 0 || this.plans.some((p) => p.holds !== null);
    for (;;) {
      const next = this.peek();
      const tick = Math.min(next, to);
      const met = goal?.of ? firstTick(goal.of, false, this.tick, tick, this.budget) : -1;
      const end = met < 0 ? tick : met;
      const acted = looks && this.lookThrough(end);
      if (acted) {
        this.carry();
        if (goal?.holds()) return;
        continue;
      }
      this.tick = end;
      if (met >= 0 || next > to) return;
      this.step(next);
      this.carry();
      if (goal?.holds()) return;
    }
  }

  /**
   * Looks at what must hold and at what waits for something, from this tick up to one before which nothing happens.
   * @returns true where something that waited acted: it stands at that tick then
   */
  private lookThrough(to: number): boolean {
    const from = this.tick;
    const acts = this.firstAct(to);
    const end = acts ? acts.tick : to;
    for (const watch of this.watches)
      if (watch.broken === null) {
        const broken = firstTick(watch.of, true, from, end, this.budget);
        if (broken >= 0) watch.broken = broken;
      }
    this.tick = end;
    if (!acts) return false;
    acts.plan.acted = end;
    this.wake(acts.plan);
    return true;
  }

  /** Which of the plans that wait can act first, and when; of several at one tick the one that was planned first. */
  private firstAct(to: number): { readonly plan: ActivePlan; readonly tick: number } | null {
    const from = this.tick;
    let first: { plan: ActivePlan; tick: number } | null = null;
    for (const plan of this.plans) {
      if (!plan.holds || !plan.held || plan.stopped) continue;
      const last = first ? first.tick - 1 : to;
      for (let tick = Math.max(from, plan.acted + 1); tick <= last; ) {
        // Nothing of it can begin before it is ready again.
        tick = Math.max(tick, this.readyAt(plan.item, plan.held), this.busyUntil);
        if (tick > last) break;
        tick = firstTick(plan.holds, false, tick, last, this.budget);
        if (tick < 0) break;
        this.tick = tick;
        const refused = this.refusal(plan.record, plan.held) !== null;
        this.tick = from;
        if (!refused) {
          first = { plan, tick };
          break;
        }
        // Between events only resources move: they matter to what a use would change, and to amounts made of them.
        if (!plan.held.guarded && !plan.held.effects.some(hangsOnResources)) break;
        tick++;
      }
    }
    return first;
  }
  private wake({ record, held: use }: ActivePlan): void {
    if (use) this.begin(record, use);
  }

  private peek(): number {
    const top = this.heap.pop();
    if (top < 0) return Number.POSITIVE_INFINITY;
    this.heap.push(this.heap.last, top);
    return Math.floor(this.heap.last / 8);
  }

  /** All that is due at a tick. */
  private step(tick: number): void {
    this.tick = tick;
    for (;;) {
      const top = this.heap.pop();
      if (top < 0) return;
      if (Math.floor(this.heap.last / 8) > tick) {
        this.heap.push(this.heap.last, top);
        return;
      }
      this.budget.take(EVENT);
      this.happen(this.events[top]);
    }
  }

  private happen(event: Event): void {
    switch (event.is) {
      case "pulse": {
        const { body, active, pulse, every } = event;
        if (!body.conditions.includes(active) || this.tick > active.until) return;
        const { resource, amount } = active.of.pulses[pulse];
        body.restore(resource, this.reckoner.value(amount, "bearer", about(body), 0) * active.layers);
        this.schedule(this.tick + every, event);
        return;
      }
      case "flow":
        if (this.tick > event.until) return;
        event.body.restore(event.resource, event.amount);
        this.schedule(this.tick + event.every, event);
        return;
      case "end":
        event.body.expire(event.active);
        return;
      case "harm": {
        const pool = this.user.pool(event.resource);
        if (pool) this.user.setHarm(pool, event.perSecond / this.catalogue.pantry.ticksPerSecond);
        return;
      }
      case "effect":
        this.takeEffect(event.item, event.use);
        return;
      case "plan":
        this.follow(this.plans[event.plan], event.plan);
    }
  }

  private follow(plan: ActivePlan, number: number): void {
    if (plan.stopped || !plan.held) return;
    const { rule } = plan;
    if (rule.is !== "ready") {
      this.begin(plan.record, plan.held);
      if (rule.is === "every") this.schedule(this.tick + Math.max(1, rule.ticks), { is: "plan", plan: number });
      return;
    }
    const ready = Math.max(this.readyAt(plan.item, plan.held), this.busyUntil);
    if (ready > this.tick) {
      this.schedule(ready, { is: "plan", plan: number });
      return;
    }
    const [at, before] = [this.moments.length, this.lastMoment.get(plan.item)];
    const done = this.begin(plan.record, plan.held);
    // Waiting for one and the same thing is told once.
    const now = this.moments[at];
    if (now?.refused && before?.refused === now.refused) this.moments.pop();
    // What is refused for another reason than time is tried again a second later.
    const second = this.catalogue.pantry.ticksPerSecond;
    this.schedule(done.ok ? Math.max(this.tick + 1, this.readyAt(plan.item, plan.held)) : this.tick + second, {
      is: "plan",
      plan: number,
    });
  }

  /** Tick from which a use can begin again. */
  readyAt(item: Id, use: HeldUse): number {
    const wait = readyIn(this.catalogue, use);
    const own = this.last.get(item)?.get(rootOf(use));
    let at = own === undefined ? 0 : own + wait;
    if (use.group !== null) at = Math.max(at, (this.lastOf.get(use.group) ?? Number.NEGATIVE_INFINITY) + wait);
    return at;
  }

  /** Why a use can't begin now, or null. */
  refusal(item: Item, use: HeldUse): string | null {
    const { records, pantry } = this.catalogue;
    const say = (ticks: number) => formatTicks(ticks, pantry.ticksPerSecond);
    if (this.tick < this.busyUntil) return `Another use takes ${say(this.busyUntil - this.tick)} more.`;
    const ready = this.readyAt(item.id, use);
    if (this.tick < ready) return `The cooldown takes ${say(ready - this.tick)} more.`;
    if (!use.everywhere && (this.situation === null || !use.situations.includes(this.situation)))
      return use.situations.length
        ? `Only ${use.situations.map((s) => records.situation.get(s)?.name ?? s).join(", ")}.`
        : "It is never allowed: it has no context.";
    for (const { of } of this.user.conditions) {
      if (this.situation !== null && of.bars.includes(this.situation)) return `${of.name} blocks uses here.`;
      if (use.chain.some((u) => of.stops.includes(u.id))) return `${of.name} blocks it.`;
    }
    if (use.level > this.user.level) return `It needs level ${use.level}.`;
    for (const [stat, least] of Object.entries(use.least) as [Id, number][])
      if (this.user.stat(stat) < least)
        return `It needs ${records.stat.get(stat)?.name ?? stat} ${sayQuantity(least)}, but there is ${sayQuantity(this.user.stat(stat))}.`;
    for (const id of use.having)
      if (!this.user.has(id)) return `It needs the condition ${records.condition.get(id)?.name ?? id}.`;
    for (const id of use.without) if (this.user.has(id)) return `Not while ${records.condition.get(id)?.name ?? id}.`;
    if (this.supplied) {
      const needs = use.fate === "used up" ? use.count : 1;
      const worn = this.user.worn.some((w) => w.id === item.id) ? 1 : 0;
      if (this.bag.count(item.id) + (use.fate === "used up" ? 0 : worn) < needs)
        return `There is no ${item.name} left.`;
    }
    if (use.on === "one ally" && this.otherIs !== "ally") return "There is no ally here.";
    if ((use.on === "one foe" || use.on === "all foes") && this.otherIs !== "foe") return "There is no foe here.";
    const lacking = this.lacking(item, use);
    if (lacking !== null) return lacking;
    // What it asks for is not what it is used for.
    const does = use.effects.filter((e) => !TAKES.includes(e.does.is));
    if (use.guarded && !(does.length ? does : use.effects).some((e) => this.wouldChange(e, use)))
      return use.told || "It would do nothing.";
    return null;
  }
  /** What of that which a use takes and costs is not there, several of the same together; null: nothing. */
  private lacking(item: Item, use: HeldUse): string | null {
    const { records } = this.catalogue;
    const asked = new Map<Id, number>();
    for (const { does, amount } of use.effects) {
      if (does.is !== "take" && does.is !== "charge" && does.is !== "cost") continue;
      const id = does.is === "take" ? does.item : does.is === "charge" ? does.currency : does.resource;
      const one = this.amount(amount, item, this.user);
      const wanted = (asked.get(id) ?? 0) + (does.is === "cost" && does.share ? one * this.user.most(id) : one);
      asked.set(id, wanted);
      if (does.is === "take" && this.supplied && this.bag.count(id) < wanted)
        return `It needs ${sayQuantity(wanted)} ${records.item.get(id)?.name ?? "of something"}.`;
      if (does.is === "charge" && this.supplied && (this.bag.money.get(id) ?? 0) < wanted)
        return `It costs ${sayQuantity(wanted)} ${records.currency.get(id)?.name ?? ""}.`;
      if (does.is !== "cost") continue;
      const name = records.resource.get(id)?.name ?? "";
      const pool = this.user.pool(id);
      if (!pool) return `It costs ${name}, which ${this.user.subject.name} does not have.`;
      const there = this.user.resource(id) - pool.of.min;
      if (there + 1e-9 < wanted)
        return `It costs ${sayQuantity(wanted)} ${name}, but there is ${sayQuantity(Math.floor(there * 100) / 100)}.`;
    }
    return null;
  }

  private targets(use: HeldUse): readonly Body[] {
    if (use.on === "oneself") return [this.user];
    if (use.on === "all allies") return this.otherIs === "ally" && this.other ? [this.user, this.other] : [this.user];
    if (use.on === "a place") return [];
    return this.other ? [this.other] : [];
  }
  private amount(kept: string | null, item: Item, target: Body): number {
    return kept === null ? 1 : this.reckoner.get(kept, "use")({ user: this.user, target, item });
  }
  private wouldChange({ does }: Effect, use: HeldUse): boolean {
    return this.targets(use).some((body) => {
      if (does.is === "restore") {
        const pool = body.pool(does.resource);
        return pool !== undefined && body.resource(does.resource) < pool.most;
      }
      if (does.is === "apply") {
        const condition = this.catalogue.records.condition.get(does.condition);
        return condition !== undefined && body.wouldApply(condition);
      }
      if (does.is === "clear") return body.has(does.condition);
      if (does.is === "clear all") return body.conditions.some((c) => c.of.nature === does.nature);
      if (does.is === "teach") return !this.taught.has(does.recipe);
      return true;
    });
  }

  /** Uses an item now, by its first use or another. */
  use(item: Id, which: Id | null = null): StepResult {
    const record = this.catalogue.records.item.get(item);
    if (!record) return no("There is no such item.");
    const uses = this.usesOf(record);
    const use = which === null ? uses[0] : uses.find((u) => u.chain.some((c) => c.id === which));
    return use ? this.begin(record, use) : no(`${record.name} has no use.`);
  }

  private begin(item: Item, use: HeldUse): StepResult {
    this.budget.take(TRY + use.effects.length);
    const refused = this.refusal(item, use);
    if (refused !== null || use.windup > 0) this.note(item, use, refused);
    if (refused !== null) return no(refused);
    if (use.windup === 0) {
      this.note(item, use, null);
      this.takeEffect(item, use);
      return OK;
    }
    this.busyUntil = this.tick + use.windup;
    this.schedule(this.busyUntil, { is: "effect", item, use });
    return OK;
  }
  private note(item: Item, use: HeldUse, refused: string | null): void {
    if (this.moments.length >= MOST_MOMENTS) return;
    const moment = { tick: this.tick, item: item.id, use: rootOf(use), name: use.name, refused };
    this.moments.push(moment);
    this.lastMoment.set(item.id, moment);
  }
  /** What became of each item when it was tried last. */
  private readonly lastMoment = new Map<Id, Moment>();

  private takeEffect(item: Item, use: HeldUse): void {
    const own = this.last.get(item.id) ?? new Map<Id, number>();
    this.last.set(item.id, own.set(rootOf(use), this.tick));
    if (use.group !== null) this.lastOf.set(use.group, this.tick);
    this.spend(item, use);
    const targets = this.targets(use);
    for (const effect of use.effects) if (this.chance(effect.chance)) this.effect(effect, item, targets);
  }

  private spend(item: Item, use: HeldUse): void {
    let gone = 0;
    if (use.fate === "used up") {
      gone = use.count;
      if (this.supplied) this.bag.take(item.id, use.count);
    } else if (use.fate === "worn") {
      if (this.supplied && this.bag.count(item.id) > 0) gone = Math.max(0, this.bag.wear(item.id, 1, use.count));
      else if (this.supplied) gone = this.wearOut(item, use.count);
      else gone = this.wornUses(item.id) % use.count === 0 ? 1 : 0;
    }
    if (gone > 0) {
      this.spent.set(item.id, (this.spent.get(item.id) ?? 0) + gone);
      if (use.leaves !== null) this.gain(`item:${use.leaves}`, gone);
    }
  }
  /** Wears what is on: once it has had all its uses it goes to pieces. */
  private wearOut(item: Item, lasts: number): number {
    if (this.wornUses(item.id) % lasts !== 0) return 0;
    const { worn } = this.user;
    const at = worn.indexOf(item);
    if (at < 0) return 0;
    const rest = worn.filter((_, k) => k !== at);
    this.user.wear(rest);
    this.bag.limits = this.limits(rest);
    this.bag.makeRoom();
    return 1;
  }
  private wornUses(item: Id): number {
    const uses = (this.usesHad.get(item) ?? 0) + 1;
    this.usesHad.set(item, uses);
    return uses;
  }

  private effect({ does, amount }: Effect, item: Item, targets: readonly Body[]): void {
    switch (does.is) {
      case "draw": {
        const times = Math.max(0, Math.round(this.amount(amount, item, this.user)));
        for (const [thing, n] of this.draw(does.table, times)) this.gain(thing, n);
        return;
      }
      case "give":
        this.gain(`item:${does.item}`, this.amount(amount, item, this.user));
        return;
      case "take":
        if (this.supplied) this.bag.take(does.item, this.amount(amount, item, this.user));
        return;
      case "pay":
        this.gain(`currency:${does.currency}`, this.amount(amount, item, this.user));
        return;
      case "charge":
        if (this.supplied) this.bag.pay(does.currency, this.amount(amount, item, this.user));
        return;
      case "cost":
        this.user.restore(
          does.resource,
          -this.amount(amount, item, this.user) * (does.share ? this.user.most(does.resource) : 1),
        );
        return;
      case "teach":
        this.taught.add(does.recipe);
        return;
      case "send":
        this.signals.push({ tick: this.tick, signal: does.signal, told: does.told });
        return;
      default:
        for (const body of targets) this.on(body, does, this.amount(amount, item, body));
    }
  }

  private on(body: Body, does: Effect["does"], amount: number): void {
    const { records, pantry } = this.catalogue;
    switch (does.is) {
      case "restore":
      case "drain": {
        const points = (does.share ? amount * body.most(does.resource) : amount) * (does.is === "drain" ? -1 : 1);
        if (does.every === null && does.lasting === null) body.restore(does.resource, points);
        else {
          const every = Math.max(1, does.every ?? pantry.ticksPerSecond);
          const until = does.lasting === null ? Number.POSITIVE_INFINITY : this.tick + does.lasting;
          this.repeat({ is: "flow", body, resource: does.resource, amount: points, every, until }, does.first ?? every);
        }
        return;
      }
      case "apply": {
        const condition = records.condition.get(does.condition);
        if (!condition) return;
        const fresh = !body.has(condition.id);
        const ticks = does.ticks ?? condition.ticks ?? Number.POSITIVE_INFINITY;
        const active = body.apply(condition, ticks, Math.max(1, Math.round(amount)));
        if (!active) return;
        const ends = active.ends.length ? this.tick + ticks : active.until;
        if (Number.isFinite(ends)) this.schedule(ends, { is: "end", body, active });
        if (fresh) this.pulse(body, active);
        return;
      }
      case "clear": {
        const active = body.active(does.condition);
        if (active) body.end(active);
        return;
      }
      case "clear all":
        for (const active of [...body.conditions]) if (active.of.nature === does.nature) body.end(active);
        return;
      case "change":
        body.changeForGood(does.stat, amount, does.limit);
        return;
      default:
    }
  }

  /** What so many draws from a table give. */
  draw(table: Id, times: number): readonly [string, number][] {
    let roll = this.rolls.get(table);
    if (!roll) {
      const box = this.catalogue.records.table.get(table);
      if (!box) return [];
      const { level } = this.user;
      const things = thingsIn(box, this.catalogue.records.table, level);
      const one = roller(box, this.catalogue.records.table, level, things, this.budget);
      roll = (n) => {
        this.budget.take(things.length);
        const into = new Float64Array(things.length);
        for (let k = 0; k < n; k++) one(this.random, into);
        return things.flatMap((thing, k): [string, number][] => (into[k] > 0 ? [[thing, into[k]]] : []));
      };
      this.rolls.set(table, roll);
    }
    return roll(times);
  }
  /** What was gained where there is no bag. */
  readonly gained = new Map<string, number>();
  gain(thing: string, amount: number): void {
    this.gained.set(thing, (this.gained.get(thing) ?? 0) + amount);
    const { kind, id } = splitThing(thing);
    if (kind === "currency") this.bag.earn(id, amount);
    else this.bag.put(id, amount);
  }

  /** Puts something on; what is in its place comes off and into the bag. */
  wear(item: Id): StepResult {
    const record = this.catalogue.records.item.get(item);
    if (!record) return no("There is no such item.");
    if (this.supplied && this.bag.count(item) < 1) return no(`There is no ${record.name} in the bag.`);
    const { subject, worn, level } = this.user;
    const after = puttingOn(this.catalogue, subject, record, worn, level);
    if (after.message !== null) return no(after.message);
    return this.dressed(after.worn, after.off, record);
  }
  takeOff(item: Id): StepResult {
    const { worn } = this.user;
    const at = worn.findIndex((w) => w.id === item);
    if (at < 0) return no(`${this.catalogue.records.item.get(item)?.name ?? "It"} isn't worn.`);
    const rest = worn.filter((_, k) => k !== at);
    return this.dressed(rest, [worn[at]], null);
  }
  /** Wears something else; nothing happens where the bag can't hold what comes off, or has less room and is too full. */
  private dressed(worn: readonly Item[], off: readonly Item[], on: Item | null): StepResult {
    const bag = this.bag.copy();
    bag.limits = this.limits(worn);
    if (this.supplied) {
      if (on) bag.take(on.id, 1);
      for (const each of off) {
        const { refused, message } = bag.put(each.id, 1);
        if (refused > 0) return no(`${each.name} doesn't fit in the bag. ${message}`);
      }
      const message = bag.makeRoom();
      if (message !== null) return no(message);
      this.bag.become(bag);
    }
    this.bag.limits = bag.limits;
    this.user.wear(worn);
    return OK;
  }
  /** How many of an item one has in the bag and on. */
  owned(item: Id): number {
    return this.bag.count(item) + this.wornOf(item);
  }
  wornOf(item: Id): number {
    return this.user.worn.filter((w) => w.id === item).length;
  }

  /** Does something of this run; where the budget is used up it is halted there. @returns null then */
  within<T>(work: () => T): T | null {
    if (this.halted !== null) return null;
    try {
      return work();
    } catch (thrown) {
      if (!(thrown instanceof TooMany)) throw thrown;
      const at = formatTicks(this.tick, this.catalogue.pantry.ticksPerSecond);
      this.halted = `Stopped at ${at}: it needs more than ${this.budget.steps.toLocaleString("en")} steps.`;
      return null;
    }
  }

  finish(): void {
    this.user.finish(this.tick);
    this.other?.finish(this.tick);
  }
}
const rootOf = (use: HeldUse): Id => use.chain[use.chain.length - 1].id;
