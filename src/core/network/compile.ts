/** From a catalogue to its recipe network, and from a changed catalogue to the processes that must be written again. */
import { type Catalogue, recordAt, recordsOf } from "../catalogue/catalogue";
import { anyBuysBack, broughtBy, held, salesOf } from "../catalogue/inheritance";
import { IdTable } from "../catalogue/ids";
import type { Id } from "../schema/id";
import type { AnyRecord, Item, Kind } from "../kinds/index";
import { wider } from "../numbers/arrays";
import { sign, toNumber } from "../numbers/fraction";
import { CONTRIBUTORS } from "./contributors";
import { mostOf } from "../notation/line";
import { expected, netYield } from "./expected";
import { askedTags, vesselsAmong } from "../process/members";
import { askedHeats } from "./heat";
import { fuelOf, isItem, joinedNode, type Node, nodeOfTag, splitNode, tagOf, vesselIn } from "../process/node";
import type { Contributor, Flow, Process, ProcessSpec } from "./process";
import {
  ALIVE,
  Draft,
  FREE,
  GAINS,
  MEMBER,
  type Network,
  NetworkBuilder,
  renumbered,
  type ProcessOf,
  type RowDraft,
  SALVAGE,
  SOURCE,
} from "./network";
import { Reach } from "./reach";

/** Nodes that are no items: any with a tag, and heat. */
const askedNodes = (catalogue: Catalogue): Node[] => [
  ...[...askedTags(catalogue).keys()].flatMap((tag) => vesselsAmong(catalogue, tag).map((v) => nodeOfTag(tag, v))),
  ...askedHeats(catalogue),
];

/** Records whose processes are kept at hand. */
const RECENT = 1_000;
/** Most processes of one record. */
const MOST_PARTS = 4_096;

/** A network whose items and processes are records. Numbers stay with their records while it is open. */
export class Compiled {
  /** Per item its own level, and what a player gets for one (0: it can't be sold). */
  levels = new Int16Array(0);
  sells = new Float64Array(0);
  /**
   * Per item the most that a process has given of it beside other things since the network was compiled, which may be
   * less by now [amount]: most are nowhere near what a stack of them holds, and no record is looked at.
   */
  beside = new Float32Array(0);
  /** Currencies by their number; the first is the one that value units stand for. */
  readonly currencies: readonly (Id | null)[];
  /** Items that were taken out. */
  private readonly gone = new Set<number>();

  /**
   * @param items      ids of the network's items, by their numbers
   * @param processes  ids of the records behind its processes, likewise
   */
  constructor(
    public catalogue: Catalogue,
    readonly network: Network,
    private readonly items: IdTable,
    private readonly processes: IdTable,
    readonly contributors: readonly Contributor[],
  ) {
    this.currencies = currenciesOf(catalogue);
    for (const node of askedNodes(catalogue)) this.keep(node);
  }
  /** What nodes are whose ids do not say it. */
  private readonly kept = new Map<Id, Node>();
  private keep(node: Node): void {
    const { id, group } = splitNode(node);
    if (joinedNode(id, group) === null) this.kept.set(id, node);
  }

  /** null: taken out, or no item but any with a tag, or heat. */
  idOf(item: number): Id | null {
    const node = this.nodeOf(item);
    return node !== null && isItem(node) ? node : null;
  }
  /** What a number stands for, be it an item or any item with a tag; null: taken out. */
  nodeOf(item: number): Node | null {
    if (this.gone.has(item)) return null;
    const id = this.items.idOf(item);
    return joinedNode(id, this.items.groupOf(item)) ?? (this.kept.get(id) as Node);
  }
  /** What it is ordered by among others, and found by. */
  keyOf(item: number): string {
    const node = this.nodeOf(item);
    if (node === null) return "";
    const [tag, fuel] = [tagOf(node), fuelOf(node)];
    const { records } = this.catalogue;
    if (fuel !== undefined) return `heat ${(fuel && records.tag.get(fuel)?.key) ?? ""}`;
    if (tag === null) return records.item.get(node)?.key ?? "";
    const vessel = vesselIn(node);
    return `any ${records.tag.get(tag)?.key ?? ""}${vessel === null ? "" : ` in ${records.item.get(vessel)?.key ?? ""}`}`;
  }
  numberOf(node: Node): number | undefined {
    // One check after the other asks for the item that is looked at.
    if (node === this.last.node) return this.last.item;
    this.last.item = this.find(node);
    this.last.node = node;
    return this.last.item;
  }
  private readonly last: { node: Node | null; item: number | undefined } = { node: null, item: undefined };
  private find(node: Node): number | undefined {
    let item = this.items.get(node);
    if (item === undefined) {
      const { id, group } = splitNode(node);
      item = this.items.get(id, group);
    }
    return item === undefined || this.gone.has(item) ? undefined : item;
  }
  /** A process with the record behind it; null: it is not in use. */
  process(p: number): Process | null {
    const there = this.behind(p);
    const record = there && recordAt(this.catalogue, there.kind, there.id);
    const spec = record && this.specsOf(there.kind, record)[there.part];
    return spec ? { kind: there.kind, record, ...spec.as, spec } : null;
  }
  /** Processes of records that were asked for lately: one record may have hundreds, each asked for by itself. */
  private specs = new Map<AnyRecord, readonly ProcessSpec[]>();
  private specsFrom: Catalogue | null = null;
  private specsOf(kind: Kind, record: AnyRecord): readonly ProcessSpec[] {
    if (this.specsFrom !== this.catalogue || this.specs.size >= RECENT) {
      // A new one: of one that is cleared, what it held lives on as long as it does.
      this.specs = new Map();
      this.specsFrom = this.catalogue;
    }
    let specs = this.specs.get(record);
    if (!specs) {
      specs = this.of(kind)?.processes(record as never, this.catalogue) ?? [];
      this.specs.set(record, specs);
    }
    return specs;
  }

  /** Kind, id and part of that record, which are quicker to come by. */
  behind(p: number): { readonly kind: Kind; readonly id: Id; readonly part: number } | null {
    if (p < 0 || p >= this.processes.size || !(this.network.flags[p] & ALIVE)) return null;
    const group = this.processes.groupOf(p);
    const { kind } = this.contributors[group % this.contributors.length];
    return { kind, id: this.processes.idOf(p), part: Math.floor(group / this.contributors.length) };
  }
  private of(kind: Kind): Contributor | undefined {
    return this.contributors.find((c) => c.kind === kind);
  }
  /** What a player gets for one, by the number of the currency in which it is paid. */
  salesOf(item: number): ReadonlyMap<number, number> {
    // What no shop buys back brings its own price, which is at hand.
    if (!anyBuysBack(this.catalogue)) return new Map(this.sells[item] > 0 ? [[0, this.sells[item]]] : []);
    const id = this.idOf(item);
    const record = id === null ? undefined : this.catalogue.records.item.get(id);
    const sales = new Map<number, number>();
    if (!record || record.status === "retired") return sales;
    for (const [currency, price] of salesOf(this.catalogue, record)) {
      const at = currencyAt(this, currency);
      if (price > (sales.get(at) ?? 0)) sales.set(at, price);
    }
    return sales;
  }
  processId(p: number): Id {
    return this.processes.idOf(p);
  }
  /** Numbers of the processes that a record has or had, by their parts. */
  processesOf(kind: Kind, id: Id): number[] {
    const found: number[] = [];
    for (let part = 0; ; part++) {
      const p = this.processes.get(id, this.groupOf(kind, part));
      if (p === undefined) return found;
      found.push(p);
    }
  }
  /** What ids of processes are told apart by: the same id may stand for records of several kinds, each with parts. */
  groupOf(kind: Kind, part: number): number {
    return groupOf(this.contributors, kind, part);
  }
  /** Below 0 where the record of one process comes before that of the other in the order of ids, or its part does. */
  compare(p: number, q: number): number {
    return this.processes.compare(p, q) || this.processes.groupOf(p) - this.processes.groupOf(q);
  }

  /** Gives an item or a tag a number, or its former one back. */
  addItem(node: Node): number {
    const { id, group } = splitNode(node);
    this.keep(node);
    const i = this.items.add(id, group);
    if (i >= this.network.items) this.network.addItem();
    this.gone.delete(i);
    this.last.node = null;
    return i;
  }
  dropItem(item: number): void {
    this.gone.add(item);
    this.last.node = null;
  }
  addProcess(kind: Kind, id: Id, part: number): number {
    const p = this.processes.add(id, this.groupOf(kind, part));
    if (p >= this.network.processes) this.network.addProcess();
    return p;
  }
}

function groupOf(contributors: readonly Contributor[], kind: Kind, part: number): number {
  if (part >= MOST_PARTS) throw new RangeError(`A record has at most ${MOST_PARTS} processes.`);
  return part * contributors.length + contributors.findIndex((c) => c.kind === kind);
}

/** A process that is in use, with its record. */
export function processAt(compiled: Compiled, p: number): Process {
  const process = compiled.process(p);
  if (!process) throw new RangeError(`Process ${p} is not in use.`);
  return process;
}

/** Which of two processes counts where both do equally well: a matter of their records, not of their numbers. */
export const before = (compiled: Compiled, p: number, q: number): boolean => compiled.compare(p, q) < 0;

/**
 * Compiles a catalogue. Numbers follow the order in which things come within reach, so
 * that
 * what is used together stands together. Linear in the number of lines.
 */
export function compile(catalogue: Catalogue, contributors = CONTRIBUTORS): Compiled {
  const given = new IdTable(catalogue.records.item.size);
  for (const id of catalogue.records.item.keys()) given.add(id);
  for (const node of askedNodes(catalogue)) {
    const { id, group } = splitNode(node);
    given.add(id, group);
  }
  const listed = new IdTable(contributors.reduce((sum, { kind }) => sum + catalogue.records[kind].size, 0));
  const builder = new NetworkBuilder(given.size);
  const numberOf = (node: Node) => {
    const item = given.get(node);
    if (item !== undefined) return item;
    const { id, group } = splitNode(node);
    return given.get(id, group) as number;
  };
  const [levels, sells] = [new Int16Array(given.size), new Float64Array(given.size)];
  const beside = new Float32Array(given.size);
  const draft = new Draft();
  for (const { kind, processes } of contributors)
    for (const record of recordsOf(catalogue, kind).values()) {
      if (kind === "item") {
        // While the record is at hand: where records are bytes, coming by them again is most of the work.
        const i = numberOf(record.id);
        levels[i] = levelOf(catalogue, record as Item);
        sells[i] = sellOf(catalogue, record as Item);
      }
      const specs = processes(record as never, catalogue);
      for (let part = 0; part < specs.length; part++) {
        listed.add(record.id, groupOf(contributors, kind, part));
        builder.addDraft(describe(catalogue, numberOf, specs[part], draft));
        noteBeside(beside, numberOf, specs[part]);
      }
    }
  const plain = builder.build();
  const order = new Reach(plain, undefined, true).order();
  const compiled = new Compiled(
    catalogue,
    renumbered(plain, order.items, order.processes),
    given.reordered(order.items),
    listed.reordered(order.processes),
    contributors,
  );
  compiled.beside = Float32Array.from(order.items, (i) => beside[i]);
  if (contributors.some(({ kind }) => kind === "item")) {
    compiled.levels = new Int16Array(order.items.length);
    compiled.sells = new Float64Array(order.items.length);
    order.items.forEach((i, k) => {
      compiled.levels[k] = levels[i];
      compiled.sells[k] = sells[i];
    });
  } else readItems(compiled);
  return compiled;
}

/** The currency that is worth one value unit stands for the unit itself; null where there is none. */
function currenciesOf({ records: { currency } }: Catalogue): (Id | null)[] {
  const all = [...currency.values()];
  const unit = all.find((c) => c.worth === 1);
  return [unit?.id ?? null, ...all.filter((c) => c !== unit).map((c) => c.id)];
}

/** Number of a currency; null and what does not exist count as value units. */
export const currencyAt = (compiled: Compiled, currency: Id | null): number =>
  Math.max(0, currency === null ? 0 : compiled.currencies.indexOf(currency));

const levelOf = (catalogue: Catalogue, item: Item): number => held(catalogue, item, "level").value ?? 0;
const sellOf = (catalogue: Catalogue, item: Item): number =>
  item.status === "retired" ? 0 : (broughtBy(catalogue, item) ?? 0);

/** Reads levels and sell prices again. @returns items that have others than before */
export function readItems(compiled: Compiled, only?: Iterable<number>): number[] {
  const { catalogue, network } = compiled;
  if (compiled.levels.length < network.items) {
    const size = Math.ceil(network.items * 1.25);
    [compiled.levels, compiled.sells] = [wider(compiled.levels, size), wider(compiled.sells, size)];
  }
  const changed: number[] = [];
  for (const i of only ?? upTo(network.items)) {
    const id = compiled.idOf(i);
    const item = id === null ? undefined : catalogue.records.item.get(id);
    const level = item ? levelOf(catalogue, item) : 0;
    const sell = item ? sellOf(catalogue, item) : 0;
    if (compiled.levels[i] === level && compiled.sells[i] === sell) continue;
    compiled.levels[i] = level;
    compiled.sells[i] = sell;
    changed.push(i);
  }
  return changed;
}

function* upTo(n: number): Generator<number> {
  for (let i = 0; i < n; i++) yield i;
}

/** So many lines are compared one by one; beyond, a set is quicker. */
const FEW = 16;
function anyTwice(lines: readonly Flow[]): boolean {
  if (lines.length > FEW) return new Set(lines.map((l) => l.item)).size < lines.length;
  for (let k = 1; k < lines.length; k++) for (let m = 0; m < k; m++) if (lines[m].item === lines[k].item) return true;
  return false;
}

/**
 * What a process is to the network. What comes back in the same run is netted out.
 * @param draft  is written over
 */
export function describe(
  catalogue: Catalogue,
  numberOf: (node: Node) => number,
  spec: ProcessSpec,
  draft = new Draft(),
): Draft {
  const { lines, needs, sort } = spec;
  const { ins, outs } = draft;
  ins.length = outs.length = 0;
  let consumes = false;
  for (let k = 0; k < lines.length; k++) if (lines[k].role !== "output" && expected(lines[k]) > 0) consumes = true;
  if (anyTwice(lines))
    for (const [id, amount] of netYield(lines))
      (sign(amount) < 0 ? ins : outs).add(numberOf(id), Math.abs(toNumber(amount)));
  else
    for (let k = 0; k < lines.length; k++) {
      const amount = expected(lines[k]);
      if (amount > 0) (lines[k].role === "output" ? outs : ins).add(numberOf(lines[k].item), amount);
    }
  const uses = ins.length;
  for (let k = 0; k < lines.length; k++) {
    const line = lines[k];
    if (line.role !== "output" && !(line.role === "ingredient" && line.max === 0)) need(ins, numberOf(line.item));
  }
  for (let k = 0; k < needs.length; k++) need(ins, numberOf(needs[k]));
  const worth = spec.currency === null ? 1 : (catalogue.records.currency.get(spec.currency)?.worth ?? 1);
  draft.money = spec.price * worth;
  draft.seconds = spec.ticks / catalogue.pantry.ticksPerSecond;
  draft.level = spec.level;
  draft.flags =
    (sort === "source" ? SOURCE : 0) |
    (sort === "any" ? MEMBER : 0) |
    (sort === "salvage" || sort === "use" ? SALVAGE : 0) |
    (draft.money > 0 ? 0 : !consumes ? FREE : uses === 0 && outs.length > 0 ? GAINS : 0);
  return draft;
}
/** What must be at hand, where nothing of it is used up. */
function need(ins: RowDraft, item: number): void {
  if (!ins.has(item)) ins.add(item, 0);
}

/** Keeps the most that a process gives of each thing, where it gives several. */
function noteBeside(beside: Float32Array, numberOf: (node: Node) => number, { lines }: ProcessSpec): void {
  let outputs = 0;
  for (let k = 0; k < lines.length; k++) if (lines[k].role === "output") outputs++;
  if (outputs < 2) return;
  for (const line of lines) {
    if (line.role !== "output") continue;
    const i = numberOf(line.item);
    // Never less than it is, though it is kept in fewer digits.
    beside[i] = Math.max(beside[i], mostOf(line) * (1 + 2 ** -20));
  }
}

/** A process to be written again. */
export interface Rewrite {
  readonly p: number;
  readonly of: ProcessOf | null;
}

/** Which records two catalogues differ in, by kind. */
export type Touched = ReadonlyMap<Kind, ReadonlySet<Id>>;

/**
 * Gives new records their numbers, takes removed ones out, and tells which processes are to be written again; `network`
 * itself is only widened. Works out the processes by the new catalogue.
 */
export function follow(
  compiled: Compiled,
  next: Catalogue,
  touched: Touched,
): { rewrites: Rewrite[]; added: number[]; removed: number[] } {
  const before = compiled.catalogue;
  compiled.catalogue = next;
  const [added, removed]: [number[], number[]] = [[], []];
  for (const id of touched.get("item") ?? []) {
    const there = compiled.numberOf(id);
    if (next.records.item.has(id) && there === undefined) added.push(compiled.addItem(id));
    else if (!next.records.item.has(id) && there !== undefined) {
      compiled.dropItem(there);
      removed.push(there);
    }
  }
  const rewrites: Rewrite[] = [];
  for (const node of askedNodes(next)) {
    if (compiled.numberOf(node) === undefined) added.push(compiled.addItem(node));
  }
  const numberOf = (node: Node) => compiled.numberOf(node) as number;
  for (const { kind, processes, beside } of compiled.contributors)
    for (const id of new Set([...(touched.get(kind) ?? []), ...(beside?.(before, next, touched) ?? [])])) {
      const record = recordAt(next, kind, id);
      const specs = record ? processes(record as never, next) : [];
      const known = compiled.processesOf(kind, id);
      for (let part = 0; part < Math.max(specs.length, known.length); part++)
        rewrites.push({
          p: known[part] ?? compiled.addProcess(kind, id, part),
          of: part < specs.length ? describe(next, numberOf, specs[part]).done() : null,
        });
      if (specs.length) {
        if (compiled.beside.length < compiled.network.items)
          compiled.beside = wider(compiled.beside, Math.ceil(compiled.network.items * 1.25));
        for (const spec of specs) noteBeside(compiled.beside, numberOf, spec);
      }
    }
  return { rewrites, added, removed };
}
