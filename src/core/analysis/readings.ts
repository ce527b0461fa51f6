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

/** Everything that can be computed from a catalogue, from scratch. */
export function readingsOf(catalogue: Catalogue): Readings {
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
