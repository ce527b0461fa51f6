/** Large pantries for measuring: as a catalogue, or straight as a network where records would not fit into memory. */
import type { Compiled } from "../src/core/network/compile";
import type { Process } from "../src/core/network/expected";
import { FREE, NetworkBuilder, renumbered, SALVAGE, SOURCE } from "../src/core/network/network";
import { Reach } from "../src/core/analysis/reach";
import { emptyCatalogue } from "../src/core/catalogue/catalogue";
import { blank, type Id, line, NEW_PANTRY } from "../src/core/catalogue/records";
import { grow, type Output, type Part, type Size } from "../src/demo/generate";

export interface Large {
  readonly compiled: Compiled;
  readonly planted: number;
  readonly deadlocks: number;
  readonly lines: number;
  /** Numbers of the processes that were planted. */
  readonly seeds: ReadonlySet<number>;
}

/** Built from arrays alone. A process's record is made up again from its rows when somebody asks for it. */
export function largeNetwork(size: Size): Large {
  const builder = new NetworkBuilder(size.items + 2 * (size.deadlocks ?? 0));
  const seeds = new Set<number>();
  let [p, lines] = [0, 0];
  const row = (list: readonly { item: number }[], amount: (k: number) => number) => ({ to: list.map((e) => e.item), qty: list.map((_, k) => amount(k)) });
  const made = grow(size, {
    source: (item, least, most, seconds) => {
      builder.add({ ins: { to: [], qty: [] }, outs: { to: [item], qty: [(least + most) / 2] }, money: 0, seconds, level: 0, flags: SOURCE | FREE });
      p++;
      lines++;
    },
    recipe: (kind, name, ins: readonly Part[], outs: readonly Output[], seconds) => {
      builder.add({ ins: row(ins, (k) => ins[k].quantity), outs: row(outs, (k) => ((outs[k].min + outs[k].max) / 2) * outs[k].chance), money: 0, seconds, level: 0, flags: kind === "salvage" ? SALVAGE : 0 });
      if (name.startsWith("Planted")) seeds.add(p);
      p++;
      lines += ins.length + outs.length;
    },
  });
  const plain = builder.build();
  const order = new Reach(plain).order();
  const network = renumbered(plain, order.items, order.processes);
  const place = new Map<number, number>();
  order.processes.forEach((old, now) => {
    if (seeds.has(old)) place.set(old, now);
  });
  const itemId = (i: number) => `i${i.toString(36).padStart(11, "0")}` as Id;
  const record = (q: number): Process => {
    const entries = (lists: typeof network.ins, role: "ingredient" | "output") => Array.from({ length: lists.end[q] - lists.start[q] }, (_, k) => line(role, itemId(lists.to[lists.start[q] + k]), (lists.qty as Float64Array)[lists.start[q] + k]));
    const named = { id: `p${q.toString(36).padStart(11, "0")}` as Id, key: `p${q}`, name: `P${q}` };
    return network.flags[q] & SOURCE
      ? { of: "source", record: blank("source", { ...named, lines: entries(network.outs, "output") }) }
      : { of: "recipe", record: blank("recipe", { ...named, kind: network.flags[q] & SALVAGE ? "salvage" : "craft", lines: [...entries(network.ins, "ingredient"), ...entries(network.outs, "output")] }) };
  };
  const lazily = <T>(length: number, get: (k: number) => T) => new Proxy([] as T[], { get: (_, name) => (name === "length" ? length : typeof name === "string" && /^\d+$/.test(name) ? get(Number(name)) : undefined) });
  const numbered = { get: (id: Id) => Number.parseInt(id.slice(1), 36) } as unknown as Map<Id, number>;
  const catalogue = { ...emptyCatalogue({ id: "bench0000000" as Id, key: "bench", name: "Bench", ...NEW_PANTRY, labourPerHour: 60 }), item: { get: (id: Id) => ({ id, key: id, name: id }) } } as never;
  const compiled: Compiled = {
    catalogue,
    network,
    items: lazily(network.items, itemId) as never,
    index: numbered,
    processes: lazily(network.processes, record) as never,
    levels: new Int16Array(network.items),
    sells: new Float64Array(network.items),
    currencies: [null],
    processIndex: { recipe: numbered, source: numbered },
  };
  return { compiled, planted: made.loops, deadlocks: made.deadlocks, lines, seeds: new Set(place.values()) };
}
