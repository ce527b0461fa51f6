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
/** Empty slots between stacks stand among them as what is no item. */
const NOTHING = "" as Id;
const gap = (slots: number): Stack => stackOf(NOTHING, 0, 0, slots);
export const isEmptySlot = ({ item }: Stack): boolean => item === NOTHING;
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
  readonly message: string;
}

type Overflow = (typeof OVERFLOW)[number];

export class Bag {
  /** Stacks, and empty slots between them, in the order of their places; behind the last one all are empty. */
  private all: readonly Stack[] = [];
  private full: readonly Stack[] = [];
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

  /** What lies in the bag, in the order of its places. */
  get stacks(): readonly Stack[] {
    return this.full;
  }
  /** The same with the empty slots between. */
  get places(): readonly Stack[] {
    return this.all;
  }
  private lay(places: readonly Stack[]): void {
    this.all = this.limits.slots === null ? places.filter((s) => !isEmptySlot(s)) : settled(places, this.limits.slots);
    this.full = this.all.filter((s) => !isEmptySlot(s));
  }

  /** The same again, to try something with. */
  copy(): Bag {
    const bag = new Bag(this.catalogue, this.limits, this.budget);
    [bag.all, bag.full] = [this.all, this.full];
    [bag.stored, bag.money, bag.overflow] = [this.stored, this.money, this.overflow];
    return bag;
  }
  /** Holds what another one does. */
  become({ all, full, stored, money }: Bag): void {
    [this.all, this.full, this.stored, this.money] = [all, full, stored, money];
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
    if (!record) return { put: 0, stored: 0, refused: amount, message: "It isn't in the pantry." };
    const limit = held(this.catalogue, record, "limit").value;
    const own = this.count(item) + (this.stored.get(item) ?? 0) + owned;
    const may = limit === null ? amount : Math.max(0, Math.min(amount, limit - own));
    const mayStore = held(this.catalogue, record, "storable").value !== false;
    let left = may;
    const stacks = [...this.all];
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
    this.lay(stacks);
    const over = amount - may;
    const stored = this.overflow === "stored" && mayStore ? left : 0;
    if (stored > 0) this.stored = new Map([...this.stored, [item, (this.stored.get(item) ?? 0) + stored]]);
    const why = [
      over > 0 && `A player can own at most ${limit}.`,
      left > 0 &&
        (heavy
          ? `It is too heavy: the limit is ${sayQuantity(this.limits.mass ?? 0)} kg.`
          : `The bag's ${this.limits.slots} slots are full.`),
      stored > 0 && `${sayQuantity(stored)} went to storage.`,
      left > stored && "It was refused.",
    ];
    return { put: may - left, stored, refused: over + left - stored, message: why.filter(Boolean).join(" ") };
  }

  /** Takes things out, the last stack first. @returns false, and takes nothing, where there are not so many */
  take(item: Id, amount: number): boolean {
    if (this.count(item) + 1e-9 < amount) return false;
    let left = amount;
    const stacks = [...this.all];
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
      const freed = stack.slots - parts.reduce((sum, part) => sum + part.slots, 0);
      stacks.splice(k, 1, ...parts, ...(freed > 0 ? [gap(freed)] : []));
    }
    this.lay(stacks);
    return true;
  }

  /** Wears one of an item by so many uses of those it lasts. @returns how many went to pieces, -1 where there is none */
  wear(item: Id, uses: number, lasts: number): number {
    const k = this.all.findLastIndex((s) => s.item === item);
    if (k < 0) return -1;
    const stack = this.all[k];
    const worn = stack.worn + uses;
    const gone = Math.min(stack.count, Math.floor(worn / lasts));
    const stacks = [...this.all];
    const others = stack.slots > 1 ? [{ ...stack, slots: stack.slots - 1 }] : [];
    const rest = stack.count - gone > 0 ? stackOf(item, stack.count - gone, worn - gone * lasts) : gap(1);
    stacks.splice(k, 1, ...others, rest);
    this.lay(stacks);
    return gone;
  }

  /** Puts part of a stack into a slot of its own. @returns why not, or null */
  split(at: number, amount: number): string | null {
    const stack = this.stacks[at];
    const k = this.all.indexOf(stack);
    if (!stack) return "There is no such stack.";
    if (!(amount > 0) || amount >= stack.count)
      return `From a stack of ${stack.count} you can split off 1 to ${stack.count - 1}.`;
    if (this.freeSlots < 1) return "No slot is free.";
    this.lay([
      ...this.all.slice(0, k),
      ...(stack.slots > 1 ? [{ ...stack, slots: stack.slots - 1 }] : []),
      stackOf(stack.item, stack.count - amount, stack.worn),
      stackOf(stack.item, amount),
      ...this.all.slice(k + 1),
    ]);
    return null;
  }

  /** Puts the stacks of an item together as far as a stack goes. */
  merge(item: Id): void {
    const own = this.stacks.filter((s) => s.item === item);
    const all = own.reduce((sum, s) => sum + s.count * s.slots, 0);
    const most = this.stackLimit(item);
    const first = this.all.findIndex((s) => s.item === item);
    const made: Stack[] = [];
    const worn = own.reduce((sum, s) => sum + s.worn, 0);
    const begun = worn > 0 ? Math.min(all, most) : 0;
    if (begun > 0) made.push(stackOf(item, begun, worn));
    pile(made, item, all - begun, most, Number.POSITIVE_INFINITY);
    const rest = this.all.slice(first + 1).map((s) => (s.item === item ? gap(s.slots) : s));
    if (first >= 0) this.lay([...this.all.slice(0, first), ...made, ...rest]);
  }

  /**
   * Stores what is beyond the limits, the last stacks first, where the pantry stores what overflows.
   * @returns why there is no room, or null
   */
  makeRoom(): string | null {
    const over = () => {
      const { slots, mass } = this.load;
      if (this.limits.slots !== null && slots > this.limits.slots)
        return `The bag would have ${this.limits.slots} slots, but ${slots} are full.`;
      if (this.limits.mass !== null && mass > this.limits.mass + 1e-9)
        return `The limit would be ${sayQuantity(this.limits.mass)} kg, but the bag weighs ${sayQuantity(mass)} kg.`;
      return null;
    };
    for (let message = over(), k = this.all.length - 1; message !== null; message = over(), k--) {
      const stack = this.all[k];
      if (stack && isEmptySlot(stack)) continue;
      if (!stack || this.overflow !== "stored") return message;
      const item = this.item(stack.item);
      if (item && held(this.catalogue, item, "storable").value === false) continue;
      const rest = stack.slots > 1 ? [{ ...stack, slots: stack.slots - 1 }] : [];
      this.lay([...this.all.slice(0, k), ...rest, ...this.all.slice(k + 1)]);
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
    for (const stack of this.all) {
      if (isEmptySlot(stack)) {
        keep.push(stack);
        continue;
      }
      const item = this.item(stack.item);
      if (item && held(this.catalogue, item, "storable").value === false) keep.push(stack);
      else {
        stored.set(stack.item, (stored.get(stack.item) ?? 0) + stack.count * stack.slots);
        keep.push(gap(stack.slots));
      }
    }
    this.stored = stored;
    this.lay(keep);
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
      : `A character can carry at most ${sayQuantity(most)} ${name} and has ${sayQuantity(there)}.`;
  }

  /** Changes the places of two stacks, which are counted from 0. @returns why not, or null */
  swap(one: number, other: number): string | null {
    const missing = [one, other].find((k) => !this.stacks[k]);
    if (missing !== undefined) return `There is no stack ${missing + 1}: there are ${this.stacks.length}.`;
    const [a, b] = [this.stacks[one], this.stacks[other]];
    this.lay(this.all.map((s) => (s === a ? b : s === b ? a : s)));
    return null;
  }

  /** Puts a stack, counted from 0, into an empty slot, counted from 1. @returns why not, or null */
  move(from: number, slot: number): string | null {
    const stack = this.stacks[from];
    if (!stack) return `There is no stack ${from + 1}: there are ${this.stacks.length}.`;
    const { slots } = this.limits;
    if (slots === null) return "The bag has no numbered slots: its size is not limited.";
    if (slot < 1 || slot > slots) return `There is no slot ${slot}: there are ${slots}.`;
    if (stack.slots > 1) return "Several full stacks share this place. Split one off first.";
    const taken = this.all.reduce((sum, s) => sum + s.slots, 0);
    const single = [...this.all, gap(slots - taken)].flatMap((s) =>
      isEmptySlot(s) ? Array.from({ length: s.slots }, () => gap(1)) : [s],
    );
    let at = 1;
    const to = single.findIndex((s) => {
      const here = at === slot;
      at += s.slots;
      return here;
    });
    if (to < 0 || !isEmptySlot(single[to])) return `Slot ${slot} isn't empty.`;
    this.lay(single.map((s, k) => (k === to ? stack : s === stack ? gap(1) : s)));
    return null;
  }
}

/** Puts so much of an item into free slots, full stacks first. @returns how much went in */
function pile(stacks: Stack[], item: Id, amount: number, most: number, free: number): number {
  if (!(amount > 0) || free < 1) return 0;
  const full = Math.min(free, Math.floor(amount / most));
  if (full > 0) begin(stacks, stackOf(item, most, 0, full), most);
  const placed = full > 0 ? full * most : 0;
  const last = full < free ? Math.min(amount - placed, most) : 0;
  if (last > 0) begin(stacks, stackOf(item, last), most);
  return placed + last;
}

/** Puts stacks into the empty slots between others, first ones first, and the rest behind all. */
function begin(stacks: Stack[], stack: Stack, most: number): void {
  for (let left = stack.slots; left > 0; ) {
    const k = stacks.findIndex(isEmptySlot);
    const here = k < 0 ? left : Math.min(left, stacks[k].slots);
    const rest = k < 0 ? 0 : stacks[k].slots - here;
    const at = k < 0 ? stacks.length : k;
    stacks.splice(at, k < 0 ? 0 : 1, { ...stack, slots: here }, ...(rest > 0 ? [gap(rest)] : []));
    join(stacks, at, most);
    left -= here;
  }
}

/** Places without empty slots at the end, those side by side as one, and no more slots in all than there are. */
function settled(places: readonly Stack[], most: number): Stack[] {
  const made: Stack[] = [];
  for (const place of places) {
    const last = made[made.length - 1];
    if (last && isEmptySlot(place) && isEmptySlot(last)) made[made.length - 1] = gap(last.slots + place.slots);
    else made.push(place);
  }
  if (made.length && isEmptySlot(made[made.length - 1])) made.pop();
  let over = made.reduce((sum, s) => sum + s.slots, 0) - most;
  for (let k = made.length - 1; k >= 0 && over > 0; k--) {
    if (!isEmptySlot(made[k])) continue;
    const less = Math.min(over, made[k].slots);
    over -= less;
    if (made[k].slots === less) made.splice(k, 1);
    else made[k] = gap(made[k].slots - less);
  }
  return made;
}

/** Makes one entry of a full stack and the one before it, where both are full and of one item. */
function join(stacks: Stack[], at: number, most: number): void {
  const [before, stack] = [stacks[at - 1], stacks[at]];
  const full = (s: Stack | undefined) => s?.item === stack.item && s.count === most && s.worn === 0;
  if (full(before) && full(stack)) stacks.splice(at - 1, 2, { ...before, slots: before.slots + stack.slots });
}
