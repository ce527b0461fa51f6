import { causes as causesReading, reach } from "../analysis/registry";
import { list } from "../numbers/format";
import { hasSources } from "./not-begun";
import { itemRef, perRecord, type Ref } from "./check";

const isItem = ({ kind }: Ref): boolean => kind === "item";

/** An item that no player can ever have, with the nearest cause. */
export const unobtainable = perRecord<"item">({
  id: "unobtainable",
  reads: [causesReading, reach],
  per: ["item"],
  concerns: hasSources,
  concernsAll: true,
  may: ({ id }, { readings: { compiled, reach } }) => !reach.items[compiled.numberOf(id) as number],
  *at(context, item) {
    const { readings } = context;
    const { compiled, network, reach, causes } = readings;
    const i = compiled.numberOf(item.id) as number;
    if (reach.items[i] || item.status === "retired") return;
    const cause = causes.get(i);
    const leaves = (cause?.leaves ?? [i]).map((leaf) => itemRef(context, leaf));
    const self = leaves.length === 1 && leaves[0].id === item.id;
    const made = network.producers.start[i] < network.producers.end[i];
    const message = self
      ? made
        ? `${item.name} is unobtainable: every recipe for it needs the item itself or something made from it.`
        : `${item.name} is unobtainable: nothing makes, gathers or sells it.`
      : `${item.name} is unobtainable: ${repair(leaves)}.`;
    yield {
      subject: itemRef(context, i),
      message,
      evidence: { type: "cause", leaves, path: self ? [] : pathTo(i, cause?.by ?? -1) },
      fixes: [
        ...leaves
          .filter(isItem)
          .slice(0, 3)
          .map((l) => ({ message: `Add a source for ${l.name}`, do: "source" as const, item: l.id })),
        { message: `Open ${item.name}`, do: "open", kind: "item", id: item.id },
      ],
    };

    /** What would bring it within reach: "give Ship's glass a source, or make Wreck crate obtainable". */
    function repair(leaves: readonly Ref[]): string {
      const names = leaves.filter(isItem).map((l) => l.name);
      const step = compiled.process(causes.get(i)?.by ?? -1);
      const near = step ? pathTo(i, causes.get(i)?.by ?? -1)[1] : undefined;
      const give = [
        ...(names.length ? [`give ${list(names)} ${names.length === 1 ? "a source" : "sources"}`] : []),
        ...leaves
          .filter((l) => !isItem(l))
          .map((l) => (l.name.startsWith("any ") ? `provide ${l.name}` : "provide fuel for its station")),
      ].join(" and ");
      return near && !leaves.some((l) => l.id === near.id) ? `${give}, or make ${near.name} obtainable` : give;
    }

    /** The chain of out-of-reach items from the item down to its first cause. */
    function pathTo(start: number, process: number): Ref[] {
      const path = [itemRef(context, start)];
      const seen = new Set([start]);
      for (let p = process; p >= 0 && path.length < 12; ) {
        let next = -1;
        for (let k = network.ins.start[p]; k < network.ins.end[p] && next < 0; k++)
          if (!reach.items[network.ins.to[k]] && !seen.has(network.ins.to[k])) next = network.ins.to[k];
        if (next < 0) break;
        seen.add(next);
        path.push(itemRef(context, next));
        p = causes.get(next)?.by ?? -1;
      }
      return path;
    }
  },
});
