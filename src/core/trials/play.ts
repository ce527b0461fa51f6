/**
 * Uses over time, from event to event: between two events resources move in straight lines, so that ten minutes cost what
 * happens in them and not their ticks. Within a tick pulses come first, then what ends, then uses that take effect, then new
 * ones.
 */
import type { Catalogue } from "../catalogue/catalogue";
import { type Effect, type HeldUse, readyIn, usesOf } from "../catalogue/uses";
import type { Item, TrialSubject } from "../kinds/index";
import { Heap } from "../numbers/heap";
import { seeded } from "../numbers/seeded";
import { formatTicks } from "../numbers/ticks";
import { sayQuantity } from "../numbers/format";
import type { Id } from "../schema/id";
import { Bag } from "./bag";
import { type ActiveCondition, Body } from "./body";
import { splitThing, thingsIn } from "../network/box";
import { roller } from "./chance-box";
import { about, Reckoner } from "./reckon";
import { roomOf, wearProblem } from "./worn";

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
  /** Somebody that uses may act on. */
  readonly other?: { readonly subject: TrialSubject; readonly is: "ally" | "foe" };
  readonly seed?: number;
  /** Whether uses need the item in the bag; else there is as much of it as it takes. */
  readonly supplied?: boolean;
}
/** A use that was tried: it took effect, or why not. */
export interface Moment {
  readonly tick: number;
  readonly item: Id;
  readonly use: Id;
  readonly name: string;
  readonly refused: string | null;
}
export type Outcome = { readonly ok: true } | { readonly ok: false; readonly says: string };
const OK: Outcome = { ok: true };
const no = (says: string): Outcome => ({ ok: false, says });

/** Most events of one run: beyond them it stops and says so. */
const MOST_EVENTS = 2_000_000;
/** Most ticks one by one for what waits for something. */
const MOST_LOOKS = 20_000_000;
const MOST_MOMENTS = 100_000;

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
  | { readonly is: "end"; readonly body: Body; readonly active: ActiveCondition; readonly until: number }
  | { readonly is: "effect"; readonly item: Item; readonly use: HeldUse }
  | { readonly is: "harm"; readonly resource: Id; readonly perSecond: number }
  | { readonly is: "plan"; readonly plan: number };
const PHASE = { pulse: 0, flow: 0, end: 1, harm: 2, effect: 3, plan: 4 } as const;

interface ActivePlan extends Planned {
  readonly record: Item;
  readonly held: HeldUse | null;
  readonly holds: ((tick: number) => boolean) | null;
  stopped: boolean;
}
/** What must hold all the time. */
export interface Watch {
  readonly holds: string;
  /** The first tick at which it did not; null while it always did. */
  broken: number | null;
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
  /** What still burns: ticks of heat that were paid for and not used. */
  heat = 0;
  /** The batch that was begun last: which way of which recipe, when it is done, and how many more go in it. */
  going: { readonly recipe: Id; readonly way: number; readonly until: number; readonly room: number } | null = null;
  situation: Id | null;
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
  private done = 0;
  private looks = 0;
  private readonly supplied: boolean;
  private readonly otherIs: "ally" | "foe" | null;

  constructor(
    readonly catalogue: Catalogue,
    { subject, level, situation = null, other, seed = 1, supplied = false }: Setting,
    reckoner = new Reckoner(catalogue),
  ) {
    this.reckoner = reckoner;
    const now = () => this.tick;
    const item = (id: Id) => catalogue.records.item.get(id) ?? [];
    this.user = new Body(reckoner, subject, subject.worn.flatMap(item), now, level);
    this.other = other ? new Body(reckoner, other.subject, other.subject.worn.flatMap(item), now) : null;
    this.otherIs = other?.is ?? null;
    this.situation = situation;
    this.supplied = supplied;
    this.random = seeded(seed);
    this.taught = new Set(subject.knows);
    this.bag = new Bag(catalogue, this.limits());
    for (const [id, count] of Object.entries(subject.kit)) this.bag.put(id as Id, count);
    this.bag.money = new Map(Object.entries(subject.money) as [Id, number][]);
  }

  /** A roll of the same chances as everything else of the run. */
  chance(p: number): boolean {
    return p >= 1 || this.random() < p;
  }
  uniform(): number {
    return this.random();
  }
  private limits() {
    const { subject, worn } = this.user;
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

  plan(planned: Planned): Outcome {
    const record = this.catalogue.records.item.get(planned.item);
    if (!record) return no("There is no such item.");
    const uses = this.usesOf(record);
    const use = planned.use === null ? uses[0] : uses.find((u) => u.chain.some((c) => c.id === planned.use));
    if (!use) return no(`${record.name} has no use.`);
    const { rule } = planned;
    const speaks = about(this.user);
    const holds = rule.is === "whenever" ? this.reckoner.get(rule.holds, "bearer") : null;
    const at =
      this.plans.push({ ...planned, record, held: use, holds: holds && (() => holds(speaks) !== 0), stopped: false }) -
      1;
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
    const watch: Watch = { holds, broken: null };
    this.watches.push(watch);
    return watch;
  }

  /** Goes on up to a tick, and through all that happens at it. */
  advance(to: number): void {
    const looks = this.watches.length > 0 || this.plans.some((p) => p.holds !== null);
    while (!this.halted) {
      const next = this.peek();
      const tick = Math.min(next, to);
      // What waits for something, and what must hold, is looked at tick by tick.
      if (looks) {
        const looked = this.plans.filter((p) => p.holds && !p.stopped);
        const watched = this.watches.filter((w) => w.broken === null);
        if (this.lookThrough(tick, looked, watched)) continue;
      } else this.tick = tick;
      if (next > to) break;
      this.step(next);
    }
    if (this.halted) return;
    this.tick = to;
  }

  /** Goes tick by tick up to one, and stops where something that waited acts. */
  private lookThrough(to: number, looked: readonly ActivePlan[], watched: readonly Watch[]): boolean {
    const speaks = about(this.user);
    const checks = watched.map((w) => [w, this.reckoner.get(w.holds, "bearer")] as const);
    const still = [this.user, ...(this.other ? [this.other] : [])].every((b) => b.pools.every((p) => p.rate === 0));
    for (;;) {
      if (++this.looks > MOST_LOOKS) {
        this.halted = "It takes too many ticks to be looked at one by one.";
        return false;
      }
      for (const [watch, holds] of checks) if (watch.broken === null && holds(speaks) === 0) watch.broken = this.tick;
      let acted = false;
      for (const plan of looked) if (plan.holds?.(this.tick) && plan.held) acted = this.wake(plan) || acted;
      if (acted) return true;
      if (this.tick >= to) return false;
      // Where nothing moves, nothing changes before the next event but that something is ready again.
      this.tick = still && !looked.length ? to : this.tick + 1;
    }
  }
  private wake({ record, held: use }: ActivePlan): boolean {
    if (!use || this.refusal(record, use) !== null) return false;
    return this.begin(record, use).ok;
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
      if (++this.done > MOST_EVENTS) {
        this.halted = `More than ${MOST_EVENTS} things happen; it stopped at ${formatTicks(tick, this.catalogue.pantry.ticksPerSecond)}.`;
        return;
      }
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
        if (event.active.until === this.tick) event.body.end(event.active);
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
    const [at, before] = [this.moments.length, this.moments.findLast((m) => m.item === plan.item)];
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
    if (this.tick < this.busyUntil) return `Still winding up for ${say(this.busyUntil - this.tick)}.`;
    const ready = this.readyAt(item.id, use);
    if (this.tick < ready) return `Ready again in ${say(ready - this.tick)}.`;
    if (!use.everywhere && (this.situation === null || !use.situations.includes(this.situation)))
      return use.situations.length
        ? `Only ${use.situations.map((s) => records.situation.get(s)?.name ?? s).join(", ")}.`
        : "It may be used nowhere: no situation is ticked.";
    for (const { of } of this.user.conditions) {
      if (this.situation !== null && of.bars.includes(this.situation)) return `${of.name} prevents uses here.`;
      if (use.chain.some((u) => of.stops.includes(u.id))) return `${of.name} prevents it.`;
    }
    if (use.level > this.user.level) return `It needs level ${use.level}.`;
    for (const [stat, least] of Object.entries(use.least) as [Id, number][])
      if (this.user.stat(stat) < least)
        return `It needs ${records.stat.get(stat)?.name ?? stat} ${sayQuantity(least)}; there is ${sayQuantity(this.user.stat(stat))}.`;
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
    for (const { does, amount } of use.effects) {
      if (does.is === "take") {
        const wanted = this.amount(amount, item, this.user);
        if (this.supplied && this.bag.count(does.item) < wanted)
          return `It takes ${sayQuantity(wanted)} ${records.item.get(does.item)?.name ?? "of something"}.`;
      }
      if (does.is === "charge") {
        const wanted = this.amount(amount, item, this.user);
        if (this.supplied && (this.bag.money.get(does.currency) ?? 0) < wanted)
          return `It costs ${sayQuantity(wanted)} ${records.currency.get(does.currency)?.name ?? ""}.`;
      }
    }
    if (use.guarded && !use.effects.some((e) => this.wouldChange(e, use)))
      return use.told || "It would change nothing.";
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
  use(item: Id, which: Id | null = null): Outcome {
    const record = this.catalogue.records.item.get(item);
    if (!record) return no("There is no such item.");
    const uses = this.usesOf(record);
    const use = which === null ? uses[0] : uses.find((u) => u.chain.some((c) => c.id === which));
    return use ? this.begin(record, use) : no(`${record.name} has no use.`);
  }

  private begin(item: Item, use: HeldUse): Outcome {
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
    if (this.moments.length < MOST_MOMENTS)
      this.moments.push({ tick: this.tick, item: item.id, use: rootOf(use), name: use.name, refused });
  }

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
      if (this.supplied) gone = Math.max(0, this.bag.wear(item.id, 1, use.count));
      else gone = this.wornUses(item.id) % use.count === 0 ? 1 : 0;
    }
    if (gone > 0) {
      this.spent.set(item.id, (this.spent.get(item.id) ?? 0) + gone);
      if (use.leaves !== null) this.gain(`item:${use.leaves}`, gone);
    }
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
          this.schedule(this.tick + every, { is: "flow", body, resource: does.resource, amount: points, every, until });
        }
        return;
      }
      case "apply": {
        const condition = records.condition.get(does.condition);
        if (!condition) return;
        const fresh = !body.has(condition.id);
        const active = body.apply(
          condition,
          does.ticks ?? condition.ticks ?? Number.POSITIVE_INFINITY,
          Math.max(1, Math.round(amount)),
        );
        if (!active) return;
        if (Number.isFinite(active.until))
          this.schedule(active.until, { is: "end", body, active, until: active.until });
        if (fresh)
          for (const [pulse, { every }] of condition.pulses.entries()) {
            const ticks = every > 0 ? every : pantry.ticksPerSecond;
            this.schedule(this.tick + ticks, { is: "pulse", body, active, pulse, every: ticks });
          }
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
      const one = roller(box, this.catalogue.records.table, level, things);
      roll = (n) => {
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

  wear(item: Id): Outcome {
    const record = this.catalogue.records.item.get(item);
    if (!record) return no("There is no such item.");
    if (this.supplied && this.bag.count(item) < 1) return no(`There is no ${record.name} in the bag.`);
    const { subject, worn, level } = this.user;
    const wrong = wearProblem(this.catalogue, subject, record, worn, level);
    if (wrong) return no(wrong);
    if (this.supplied) this.bag.take(item, 1);
    this.user.wear([...worn, record]);
    this.bag.limits = this.limits();
    return OK;
  }
  takeOff(item: Id): Outcome {
    const { worn } = this.user;
    const at = worn.findIndex((w) => w.id === item);
    if (at < 0) return no(`${this.catalogue.records.item.get(item)?.name ?? "It"} is not worn.`);
    this.user.wear(worn.filter((_, k) => k !== at));
    this.bag.limits = this.limits();
    if (this.supplied) this.bag.put(item, 1);
    return OK;
  }
  /** How many of an item one has in the bag and on. */
  owned(item: Id): number {
    return this.bag.count(item) + this.user.worn.filter((w) => w.id === item).length;
  }

  finish(): void {
    this.user.finish(this.tick);
    this.other?.finish(this.tick);
  }
}
const rootOf = (use: HeldUse): Id => use.chain[use.chain.length - 1].id;
