/** What a change does to the network: the processes to be written again, and the items around them. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Edit } from "../catalogue/edit";
import type { Kind } from "../kinds/index";
import { anyBuysBack } from "../catalogue/inheritance";
import { type Compiled, follow, readItems, type Rewrite } from "../network/compile";
import { ALIVE, flagsOf, type Network } from "../network/network";
import type { Id } from "../schema/id";

/** Numbers are those of the network. */
export interface NetworkDelta {
  /** Processes that say something else now. */
  readonly rewrites: readonly Rewrite[];
  /** Those among them whose lines are others. */
  readonly relined: readonly number[];
  /** Items that any line of those processes names, before or after. */
  readonly linked: Set<number>;
  /** Items that processes which were looked at made before. */
  readonly made: readonly number[];
  readonly added: readonly number[];
  readonly removed: readonly number[];
  /** The items taken out, by id. */
  readonly gone: readonly Id[];
  /** Items whose level or sell price moved. */
  readonly priced: readonly number[];
  /** True where an item was added, removed, or has another name or status. */
  readonly renamed: boolean;
}

/** Edits that the network follows by itself, beside those of its contributors. */
export const NETWORK_READS: readonly Kind[] = ["item", "type", "use", "table"];
/** Edits after which it is compiled again. */
export const NETWORK_ANEW = ["currency", "pantry.ticksPerSecond"];

export const NO_DELTA: NetworkDelta = {
  rewrites: [],
  relined: [],
  linked: new Set(),
  made: [],
  added: [],
  removed: [],
  gone: [],
  priced: [],
  renamed: false,
};

/** Records that edits touch, by kind. */
export function touchedBy(edits: readonly Edit[]): Map<Kind, Set<Id>> {
  const touched = new Map<Kind, Set<Id>>();
  for (const edit of edits) {
    if (edit.kind === "pantry") continue;
    const id = edit.op === "set" ? edit.id : edit.record.id;
    const ids = touched.get(edit.kind);
    if (ids) ids.add(id);
    else touched.set(edit.kind, new Set([id]));
  }
  return touched;
}

/** Works out what is to be written; the network itself is only widened. */
export function networkDelta(
  compiled: Compiled,
  next: Catalogue,
  edits: readonly Edit[],
  touched: ReadonlyMap<Kind, ReadonlySet<Id>>,
): NetworkDelta {
  const { network, catalogue: before } = compiled;
  const items = [...(touched.get("item") ?? [])];
  const gone = items.filter((id) => compiled.numberOf(id) !== undefined && !next.records.item.has(id));
  const { rewrites, added, removed } = follow(compiled, next, touched);
  const shops = (touched.has("source") || touched.has("currency")) && [before, next].some(anyBuysBack);
  const some =
    touched.has("type") || shops ? undefined : items.flatMap((id) => compiled.numberOf(id) ?? []).concat(removed);
  const priced = readItems(compiled, some);
  const real = rewrites.filter((r) => !sameProcess(network, r));
  const linked = new Set<number>();
  link(
    network,
    real.map((r) => r.p),
    linked,
  );
  return {
    rewrites: real,
    relined: real.filter((r) => !sameLines(network, r)).map((r) => r.p),
    linked,
    made: outsOf(
      network,
      rewrites.map((r) => r.p),
    ),
    added,
    removed,
    gone,
    priced,
    renamed: edits.some((e) => e.kind === "item" && (e.op !== "set" || e.field === "name" || e.field === "status")),
  };
}

/** Writes the processes, and adds the items that they name now. */
export function rewrite(network: Network, { rewrites, linked }: NetworkDelta): void {
  for (const { p, of } of rewrites) network.rewrite(p, of);
  link(
    network,
    rewrites.map((r) => r.p),
    linked,
  );
}

function link(network: Network, ps: readonly number[], linked: Set<number>): void {
  for (const p of ps)
    for (const rows of [network.ins, network.outs])
      for (let k = rows.start[p]; k < rows.end[p]; k++) linked.add(rows.to[k]);
}

/** Outputs of processes, one after the other. */
export function outsOf({ outs }: Network, ps: Iterable<number>): number[] {
  const items: number[] = [];
  for (const p of ps) for (let k = outs.start[p]; k < outs.end[p]; k++) items.push(outs.to[k]);
  return items;
}

/** Whether the network has these lines for the process already. */
export function sameLines(network: Network, { p, of }: Rewrite): boolean {
  if (!of) return false;
  if (p >= network.flags.length || network.flags[p] !== flagsOf(of)) return false;
  const alike = ({ start, end, to, qty }: Network["ins"], row: { to: readonly number[]; qty: readonly number[] }) =>
    end[p] - start[p] === row.to.length &&
    row.to.every((i, k) => to[start[p] + k] === i && (qty as Float64Array)[start[p] + k] === row.qty[k]);
  return alike(network.ins, of.ins) && alike(network.outs, of.outs);
}

function sameProcess(network: Network, r: Rewrite): boolean {
  if (!r.of) return (network.flags[r.p] & ALIVE) === 0;
  return (
    sameLines(network, r) &&
    network.money[r.p] === r.of.money &&
    network.seconds[r.p] === r.of.seconds &&
    network.level[r.p] === r.of.level
  );
}
