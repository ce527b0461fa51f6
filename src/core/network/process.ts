/** What one process is, and who contributes processes. */
import type { Catalogue } from "../catalogue/catalogue";
import type { AnyRecord, Kind, RecordOf } from "../kinds/index";
import type { Amounts, Line } from "../notation/line";
import type { Id } from "../schema/id";
import { type Node, nodeOf } from "../process/node";

/** What goes in or out of a process, or must be at hand: so much of a node. */
export interface Flow extends Amounts {
  readonly item: Node;
}
/** Lines as flows. */
export const flows = (lines: readonly Line[]): readonly Flow[] =>
  lines.some((l) => l.any !== undefined)
    ? lines.map((l) => ({ ...l, item: nodeOf(l), any: undefined }))
    : (lines as readonly Flow[]);

/** A process in terms of records: what the network and the readings beside it are made of. */
export interface ProcessSpec {
  /** Brings things into the world, makes them of others, takes one apart, uses or burns one, or lets it be any with its tag. */
  readonly sort: "source" | "craft" | "salvage" | "use" | "burn" | "any";
  readonly lines: readonly Flow[];
  /** Items that must be at hand beside those of the lines, and are kept. */
  readonly needs: readonly Id[];
  /** What one run costs, in the currency; null: in value units. */
  readonly price: number;
  readonly currency: Id | null;
  readonly ticks: number;
  /** Level a character needs. */
  readonly level: number;
  /** How often it can run in a world; absent: as often as one likes. */
  readonly limit?: number;
  /** It is a ware of a shop, whose stock is its own. */
  readonly ware?: true;
  /** Runs that go at once, in the time and the heat of one; `ticks` and heat are each one's share of a whole batch. */
  readonly batch?: number;
  /** Which way of a recipe it is: 0 the recipe itself, then its variants. */
  readonly way?: number;
  /** Items that are taken for any with a tag, each with it. */
  readonly chosen?: readonly (readonly [tag: Id, item: Id])[];
  /** The record that people know it by, where that is not the one that contributes it. */
  readonly as?: { readonly kind: Kind; readonly record: AnyRecord };
}

/** A kind whose records are processes: none, one or many each. */
export interface Contributor<K extends Kind = Kind> {
  readonly kind: K;
  /** In an order that stands: the n-th of a record is followed as its n-th. */
  processes(record: RecordOf<K>, catalogue: Catalogue): readonly ProcessSpec[];
  /** Records whose processes may be others because records of other kinds are. */
  beside?(before: Catalogue, next: Catalogue, touched: ReadonlyMap<Kind, ReadonlySet<Id>>): Iterable<Id>;
}
/** Keeps the kind of a contributor and its records together. */
export const contributor = <K extends Kind>(of: Contributor<K>): Contributor => of as unknown as Contributor;

/** A process with the record that it comes from. */
export interface Process {
  readonly kind: Kind;
  readonly record: AnyRecord;
  readonly spec: ProcessSpec;
}
