/** The uses of an item: its own, and those of its types as far as the item or a nearer type does not say otherwise. */
import type { Use } from "../kinds/index";
import type { FATES, TARGETS } from "../kinds/use";
import type { Id } from "../schema/id";
import type { Catalogue } from "./catalogue";
import { held, type Heir } from "./inheritance";
import type { Index } from "./persistent-map";
import { lineage } from "./tree";

export type Effect = Use["effects"][number];
export type Target = (typeof TARGETS)[number];
export type Fate = (typeof FATES)[number];

/** What a use may leave to the one that it varies. */
export const LEFT = [
  "everywhere",
  "situations",
  "on",
  "windup",
  "wait",
  "fate",
  "count",
  "leaves",
  "level",
  "least",
  "having",
  "without",
  "guarded",
  "told",
  "effects",
] as const;
export type LeftField = (typeof LEFT)[number];

/** A use as an item has it. */
export interface HeldUse {
  /** The record that says most of it. */
  readonly use: Use;
  /** That one, and what it varies, nearest first. */
  readonly chain: readonly Use[];
  readonly name: string;
  /** True where a type says it and the item nothing of it. */
  readonly inherited: boolean;
  readonly everywhere: boolean;
  readonly situations: readonly Id[];
  readonly on: Target;
  readonly windup: number;
  /** Its own time until it is ready again, in ticks; null: that of its group. */
  readonly wait: number | null;
  readonly group: Id | null;
  readonly fate: Fate;
  readonly count: number;
  readonly leaves: Id | null;
  readonly level: number;
  readonly least: Use["least"];
  readonly having: readonly Id[];
  readonly without: readonly Id[];
  readonly guarded: boolean;
  readonly told: string;
  readonly effects: readonly Effect[];
}

const OWNERS: Index<Use, ReadonlyMap<Id, readonly Use[]>> = {
  build(uses) {
    const by = new Map<Id, Use[]>();
    for (const use of uses.values()) {
      const owner = use.item ?? use.type;
      if (owner === null) continue;
      const there = by.get(owner);
      if (there) there.push(use);
      else by.set(owner, [use]);
    }
    for (const those of by.values()) those.sort((a, b) => a.order - b.order || (a.key < b.key ? -1 : 1));
    return by;
  },
  follow: () => null,
};
const NO_USES: readonly Use[] = [];

/** The uses that an item or a type itself says, in their order. */
export const usesSaidBy = (catalogue: Catalogue, owner: Id): readonly Use[] =>
  catalogue.records.use.index(OWNERS).get(owner) ?? NO_USES;

/** What is said of a field, and by which use of a chain; null where none says anything. */
export function saidIn<F extends LeftField>(
  chain: readonly Use[],
  field: F,
): { readonly value: NonNullable<Use[F]>; readonly by: Use } | null {
  for (const use of chain) {
    const value = use[field];
    const empty = value === null || (typeof value === "object" && Object.keys(value).length === 0);
    if (!empty) return { value: value as NonNullable<Use[F]>, by: use };
  }
  return null;
}

/** A use and what it varies, nearest first. */
export function chainOf(catalogue: Catalogue, use: Use): Use[] {
  const chain: Use[] = [];
  for (let at: Use | undefined = use; at && !chain.includes(at); ) {
    chain.push(at);
    at = at.varies === null ? undefined : catalogue.records.use.get(at.varies);
  }
  return chain;
}

/**
 * The uses that an item has, or the items of a type have.
 * @param away  whether those that are taken away are among them
 */
export function usesOf(catalogue: Catalogue, heir: Heir, away = false): HeldUse[] {
  if (!catalogue.records.use.size) return [];
  const types = [...lineage(catalogue, "parent" in heir ? heir.parent : heir.type)];
  // From the root down, so that nearer ones take the place of those that they vary.
  const found = new Map<Use, Use>();
  for (const owner of [...types.reverse().map((t) => t.id), heir.id])
    for (const use of usesSaidBy(catalogue, owner)) {
      const chain = chainOf(catalogue, use);
      const root = chain[chain.length - 1];
      if (use.varies === null || found.has(root)) found.set(root, use);
    }
  return [...found.values()].flatMap((use) => (use.off && !away ? [] : [heldUse(catalogue, heir, use)]));
}

export function heldUse(catalogue: Catalogue, heir: Heir, use: Use): HeldUse {
  const chain = chainOf(catalogue, use);
  const said = <F extends LeftField, O>(field: F, otherwise: O) => saidIn(chain, field)?.value ?? otherwise;
  return {
    use,
    chain,
    name: use.name,
    inherited: use.item !== heir.id && use.type !== heir.id,
    everywhere: said(
      "everywhere",
      chain.every((each) => !each.situations.length),
    ),
    situations: said("situations", []),
    on: said("on", "oneself"),
    windup: said("windup", 0),
    wait: said("wait", null),
    group: held(catalogue, heir, "cooldown").value,
    fate: said("fate", "used up"),
    count: said("count", 1),
    // What an item is in comes back when it is used up.
    leaves: said("leaves", null) ?? (said("fate", "used up") !== "kept" ? held(catalogue, heir, "vessel").value : null),
    level: said("level", 0),
    least: said("least", {}),
    having: said("having", []),
    without: said("without", []),
    guarded: said("guarded", false),
    told: said("told", ""),
    effects: said("effects", []),
  };
}

/**
 * How often an effect that goes on comes, for as long as it does: first after its `first`, or after one interval, then
 * every interval. 1 for what comes at once, and where it goes on without an end.
 */
export function timesOf(
  {
    every,
    first,
    lasting,
  }: { readonly every: number | null; readonly first?: number; readonly lasting: number | null },
  ticksPerSecond: number,
): number {
  const interval = Math.max(1, every ?? ticksPerSecond);
  if (lasting === null) return 1;
  const begins = first ?? interval;
  return begins > lasting ? 0 : Math.floor((lasting - begins) / interval) + 1;
}

/** Ticks until a use is ready again once it took effect: its own, or those of its group. */
export function readyIn(catalogue: Catalogue, use: Pick<HeldUse, "wait" | "group">): number {
  if (use.wait !== null) return use.wait;
  return use.group === null ? 0 : (catalogue.records.cooldown.get(use.group)?.ticks ?? 0);
}
