/**
 * A bag: stacks within slots and mass, what is stored besides, and money. Nothing is taken unless all of it can be.
 *
 * Full stacks of one item side by side are one entry with a number, so that a billion of something that does not stack
 * costs what one of it costs.
 */
import type { Budget } from "../budget/budget";
import type { Catalogue } from "../catalogue/catalogue";
import { held } from "../catalogue/inheritance";
import { sayQuantity } from "../numbers/format";
import type { Item } from "../kinds/index";
import type { OVERFLOW } from "../kinds/shared";
import type { Id } from "../schema/id";

export interface Stack {
  readonly item: Id;
  /** Items in one stack. */
  readonly count: number;
  /** Uses that the first of them has had, where it is worn by use. */
  readonly worn: number;
  /** Equal stacks side by side, each in a slot of its own; more than 1 only where they are full and unworn. */
  readonly slots: number;
}
const stackOf = (item: Id, count: number, worn = 0, slots = 1): Stack => ({ item, count, worn, slots });
export interface Limits {
  /** null: as many as it takes. */
  readonly slots: number | null;
  readonly mass: number | null;
}
/** What became of things that were put in. */
export interface Put {
  readonly put: number;
  readonly stored: number;
  readonly refused: number;
  /** Why not all of it is in the bag; "" where it is. */
  readonly says: string;
}

type Overflow = (typeof OVERFLOW)[number];

export class Bag {
  stacks: readonly Stack[] = [];
  stored: ReadonlyMap<Id, number> = new Map();
  money: ReadonlyMap<Id, number> = new Map();
  /** What becomes of things that do not fit. */
  overflow: Overflow;
  /** @param budget  every look through the stacks takes a step for each of them */
  constructor(
    readonly catalogue: Catalogue,
    public limits: Limits,
    private readonly budget: Budget | null = null,
  ) {
    this.overflow = catalogue.pantry.overflow;
  }

  /** The same again, to try something with. */
  copy(): Bag {
    const bag = new Bag(this.catalogue, this.limits, this.budget);
    [bag.stacks, bag.stored, bag.money, bag.overflow] = [this.stacks, this.stored, this.money, this.overflow];
    return bag;
  }
  /** Holds what another one does. */
  become({ stacks, stored, money }: Bag): void {
    [this.stacks, this.stored, this.money] = [stacks, stored, money];
  }

  count(item: Id): number {
    this.budget?.take(this.stacks.length);
    return this.stacks.reduce((sum, s) => sum + (s.item === item ? s.count * s.slots : 0), 0);
  }
  /** Slots taken, and kilograms. */
  get load(): { readonly slots: number; readonly mass: number } {
    return {
      slots: this.stacks.reduce((sum, s) => sum + s.slots, 0),
      mass: this.stacks.reduce((sum, s) => sum + s.count * s.slots * this.massOf(s.item), 0),
    };
  }
  private get freeSlots(): number {
    return this.limits.slots === null ? Number.POSITIVE_INFINITY : Math.max(0, this.limits.slots - this.load.slots);
  }
  private item(id: Id): Item | undefined {
    return this.catalogue.records.item.get(id);
  }
  massOf(id: Id): number {
    const item = this.item(id);
    return item ? (held(this.catalogue, item, "mass").value ?? 0) : 0;
  }
  stackLimit(id: Id): number {
    const item = this.item(id);
    return item ? (held(this.catalogue, item, "stack").value ?? Number.POSITIVE_INFINITY) : 1;
  }

  /** Puts things in; what does not fit is stored or refused, as the pantry says. @param owned  of it worn besides */
  put(item: Id, amount: number, owned = 0): Put {
    const record = this.item(item);
    if (!record) return { put: 0, stored: 0, refused: amount, says: "It is not in the pantry." };
    const limit = held(this.catalogue, record, "limit").value;
    const own = this.count(item) + (this.stored.get(item) ?? 0) + owned;
    const may = limit === null ? amount : Math.max(0, Math.min(amount, limit - own));
    const mayStore = held(this.catalogue, record, "storable").value !== false;
    let left = may;
    const stacks = [...this.stacks];
    const [most, each] = [this.stackLimit(item), this.massOf(item)];
    let lift =
      this.limits.mass === null || each === 0 ? left : Math.floor((this.limits.mass - this.load.mass) / each + 1e-9);
    lift = Math.max(0, Math.min(left, lift));
    const heavy = lift < left;
    for (let k = 0; k < stacks.length && lift > 0; k++) {
      const stack = stacks[k];
      if (stack.item !== item || stack.count >= most || stack.worn > 0) continue;
      const more = Math.min(lift, most - stack.count);
      stacks[k] = { ...stack, count: stack.count + more };
      [lift, left] = [lift - more, left - more];
      join(stacks, k, most);
    }
    const placed = pile(stacks, item, lift, most, this.freeSlots);
    left -= placed;
    this.stacks = stacks;
    const over = amount - may;
    const stored = this.overflow === "stored" && mayStore ? left : 0;
    if (stored > 0) this.stored = new Map([...this.stored, [item, (this.stored.get(item) ?? 0) + stored]]);
    const why = [
      over > 0 && `One may own ${limit} of it.`,
      left > 0 &&
        (heavy
          ? `It is too heavy: ${sayQuantity(this.limits.mass ?? 0)} kg can be carried.`
          : `The bag's ${this.limits.slots} slots are full.`),
      stored > 0 && `${sayQuantity(stored)} went to storage.`,
      left > stored && "It was refused.",
    ];
    return { put: may - left, stored, refused: over + left - stored, says: why.filter(Boolean).join(" ") };
  }

  /** Takes things out, the last stack first. @returns false, and takes nothing, where there are not so many */
  take(item: Id, amount: number): boolean {
    if (this.count(item) + 1e-9 < amount) return false;
    let left = amount;
    const stacks = [...this.stacks];
    for (let k = stacks.length - 1; k >= 0 && left > 0; k--) {
      const stack = stacks[k];
      if (stack.item !== item) continue;
      const whole = Math.min(stack.slots, Math.floor(left / stack.count + 1e-9));
      left = Math.max(0, left - whole * stack.count);
      const rest = stack.slots - whole;
      const some = rest > 0 && left > 1e-9 ? left : 0;
      left -= some;
      const parts: Stack[] = [];
      if (rest - (some > 0 ? 1 : 0) > 0) parts.push({ ...stack, slots: rest - (some > 0 ? 1 : 0) });
      if (some > 0 && stack.count - some > 1e-9) parts.push(stackOf(item, stack.count - some, stack.worn));
      stacks.splice(k, 1, ...parts);
    }
    this.stacks = stacks;
    return true;
  }

  /** Wears one of an item by so many uses of those it lasts. @returns how many went to pieces, -1 where there is none */
  wear(item: Id, uses: number, lasts: number): number {
    const k = this.stacks.findLastIndex((s) => s.item === item);
    if (k < 0) return -1;
    const stack = this.stacks[k];
    const worn = stack.worn + uses;
    const gone = Math.min(stack.count, Math.floor(worn / lasts));
    const stacks = [...this.stacks];
    const others = stack.slots > 1 ? [{ ...stack, slots: stack.slots - 1 }] : [];
    const rest = stack.count - gone > 0 ? [stackOf(item, stack.count - gone, worn - gone * lasts)] : [];
    stacks.splice(k, 1, ...others, ...rest);
    this.stacks = stacks;
    return gone;
  }

  /** Puts part of a stack into a slot of its own. @returns why not, or null */
  split(at: number, amount: number): string | null {
    const stack = this.stacks[at];
    if (!stack) return "There is no such stack.";
    if (!(amount > 0) || amount >= stack.count) return `Of ${stack.count}, 1 to ${stack.count - 1} can be split off.`;
    if (this.freeSlots < 1) return "No slot is free.";
    this.stacks = [
      ...this.stacks.slice(0, at),
      ...(stack.slots > 1 ? [{ ...stack, slots: stack.slots - 1 }] : []),
      stackOf(stack.item, stack.count - amount, stack.worn),
      stackOf(stack.item, amount),
      ...this.stacks.slice(at + 1),
    ];
    return null;
  }

  /** Puts the stacks of an item together as far as a stack goes. */
  merge(item: Id): void {
    const own = this.stacks.filter((s) => s.item === item);
    const all = own.reduce((sum, s) => sum + s.count * s.slots, 0);
    const most = this.stackLimit(item);
    const first = this.stacks.findIndex((s) => s.item === item);
    const made: Stack[] = [];
    const worn = own.reduce((sum, s) => sum + s.worn, 0);
    const begun = worn > 0 ? Math.min(all, most) : 0;
    if (begun > 0) made.push(stackOf(item, begun, worn));
    pile(made, item, all - begun, most, Number.POSITIVE_INFINITY);
    const others = this.stacks.filter((s) => s.item !== item);
    const before = this.stacks.slice(0, Math.max(0, first)).filter((s) => s.item !== item).length;
    this.stacks = [...others.slice(0, before), ...made, ...others.slice(before)];
  }

  /**
   * Stores what is beyond the limits, the last stacks first, where the pantry stores what overflows.
   * @returns why there is no room, or null
   */
  makeRoom(): string | null {
    const over = () => {
      const { slots, mass } = this.load;
      if (this.limits.slots !== null && slots > this.limits.slots)
        return `The bag would have ${this.limits.slots} slots, and ${slots} are taken.`;
      if (this.limits.mass !== null && mass > this.limits.mass + 1e-9)
        return `${sayQuantity(this.limits.mass)} kg could be carried, and there are ${sayQuantity(mass)} kg.`;
      return null;
    };
    for (let says = over(), k = this.stacks.length - 1; says !== null; says = over(), k--) {
      const stack = this.stacks[k];
      if (!stack || this.overflow !== "stored") return says;
      const item = this.item(stack.item);
      if (item && held(this.catalogue, item, "storable").value === false) continue;
      const rest = stack.slots > 1 ? [{ ...stack, slots: stack.slots - 1 }] : [];
      this.stacks = [...this.stacks.slice(0, k), ...rest, ...this.stacks.slice(k + 1)];
      this.stored = new Map([...this.stored, [stack.item, (this.stored.get(stack.item) ?? 0) + stack.count]]);
      if (rest.length) k++;
    }
    return null;
  }

  /** Puts part of the largest stack of an item into a slot of its own. @returns why not, or null */
  splitOff(item: Id, amount: number): string | null {
    let most = -1;
    for (const [k, { item: of, count }] of this.stacks.entries())
      if (of === item && count > (this.stacks[most]?.count ?? 0)) most = k;
    return most < 0 ? `There is no ${this.item(item)?.name ?? "such item"} in the bag.` : this.split(most, amount);
  }

  /** Everything in the bag that may be stored goes to storage. */
  unload(): void {
    const keep: Stack[] = [];
    const stored = new Map(this.stored);
    for (const stack of this.stacks) {
      const item = this.item(stack.item);
      if (item && held(this.catalogue, item, "storable").value === false) keep.push(stack);
      else stored.set(stack.item, (stored.get(stack.item) ?? 0) + stack.count * stack.slots);
    }
    [this.stacks, this.stored] = [keep, stored];
  }

  /** @returns false, and changes nothing, where there is not so much */
  pay(currency: Id, amount: number): boolean {
    const there = this.money.get(currency) ?? 0;
    if (there + 1e-9 < amount) return false;
    this.money = new Map([...this.money, [currency, there - amount]]);
    return true;
  }
  /** Takes in as much money as one may carry. @returns what did not fit */
  earn(currency: Id, amount: number): number {
    const there = this.money.get(currency) ?? 0;
    const most = this.catalogue.records.currency.get(currency)?.most ?? Number.POSITIVE_INFINITY;
    const fits = Math.min(amount, Math.max(0, most - there));
    this.money = new Map([...this.money, [currency, there + fits]]);
    return amount - fits;
  }
  /** Why so much more money can't be carried, or null. */
  purseProblem(currency: Id, amount: number): string | null {
    const { name, most = null } = this.catalogue.records.currency.get(currency) ?? { name: "" };
    const there = this.money.get(currency) ?? 0;
    return most === null || there + amount <= most + 1e-9
      ? null
      : `One may carry ${sayQuantity(most)} ${name}, and there is ${sayQuantity(there)}.`;
  }

  /** Changes the places of two stacks, which are counted from 0. @returns why not, or null */
  swap(one: number, other: number): string | null {
    const missing = [one, other].find((k) => !this.stacks[k]);
    if (missing !== undefined) return `There is no stack ${missing + 1}: there are ${this.stacks.length}.`;
    const stacks = [...this.stacks];
    [stacks[one], stacks[other]] = [stacks[other], stacks[one]];
    this.stacks = stacks;
    return null;
  }
}

/** Puts so much of an item into free slots, full stacks first. @returns how much went in */
function pile(stacks: Stack[], item: Id, amount: number, most: number, free: number): number {
  if (!(amount > 0) || free < 1) return 0;
  const full = Math.min(free, Math.floor(amount / most));
  if (full > 0) {
    stacks.push(stackOf(item, most, 0, full));
    join(stacks, stacks.length - 1, most);
  }
  const placed = full > 0 ? full * most : 0;
  const last = full < free ? Math.min(amount - placed, most) : 0;
  if (last > 0) stacks.push(stackOf(item, last));
  return placed + last;
}

/** Makes one entry of a full stack and the one before it, where both are full and of one item. */
function join(stacks: Stack[], at: number, most: number): void {
  const [before, stack] = [stacks[at - 1], stacks[at]];
  const full = (s: Stack | undefined) => s?.item === stack.item && s.count === most && s.worn === 0;
  if (full(before) && full(stack)) stacks.splice(at - 1, 2, { ...before, slots: before.slots + stack.slots });
}
