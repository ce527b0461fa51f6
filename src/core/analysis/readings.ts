/** All readings of a catalogue at one revision, and what moved between two of them. */
import type { Catalogue } from "../catalogue/catalogue";
import { compile, type Network } from "../network/network";
import { baseCounts, depths } from "./breakdown";
import { type LeastCost, leastCost, ownCost } from "./cost";
import { type GainReport, gains } from "./gain";
import { type Loop, loops } from "./loops";
import { type Cause, causes, type Obtainable, obtainable } from "./obtainable";

export interface Readings {
  readonly revision: number;
  readonly network: Network;
  readonly reach: Obtainable;
  readonly gain: GainReport;
  readonly loops: readonly Loop[];
  readonly causes: ReadonlyMap<number, Cause>;
  /** Cost of one run of each process by itself, per measure. */
  readonly own: { readonly value: Float64Array; readonly time: Float64Array };
  readonly value: LeastCost;
  readonly time: LeastCost;
  readonly steps: Int32Array;
  readonly bases: Int32Array;
}

/** True where nothing changed that the network is made of: recipes, sources, money, the clock, and which items there are. */
const sameNetwork = (a: Catalogue, b: Catalogue): boolean =>
  a.recipe === b.recipe &&
  a.source === b.source &&
  a.currency === b.currency &&
  a.pantry.ticksPerSecond === b.pantry.ticksPerSecond &&
  a.pantry.labourPerHour === b.pantry.labourPerHour &&
  (a.item === b.item || (a.item.size === b.item.size && [...a.item.keys()].every((id) => b.item.has(id))));

/**
 * Everything that can be computed from a catalogue.
 * @param before  readings of an earlier revision: taken over as they are where the network is the same
 */
export function readingsOf(catalogue: Catalogue, before?: Readings): Readings {
  if (before && sameNetwork(before.network.catalogue, catalogue)) return { ...before, revision: catalogue.revision, network: { ...before.network, catalogue } };
  const network = compile(catalogue);
  const reach = obtainable(network);
  const gain = gains(network, reach);
  const circles = loops(network, reach, gain);
  const stuck = circles.filter((l) => l.verdict === "stuck").map((l) => l.items);
  const own = { value: ownCost(network, "value"), time: ownCost(network, "time") };
  const value = leastCost(network, own.value);
  return {
    revision: catalogue.revision,
    network,
    reach,
    gain,
    loops: circles,
    causes: causes(network, reach, stuck),
    own,
    value,
    time: leastCost(network, own.time),
    steps: depths(network, value).steps,
    bases: baseCounts(network, value),
  };
}
