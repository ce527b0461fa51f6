import { list } from "../numbers/format";
import { type Check, itemRef, type Ref } from "./check";

/** An item that no player can ever have, with the nearest cause. */
export const unobtainable: Check = {
  id: "unobtainable",
  title: "Item out of reach",
  severity: "error",
  *find(scene) {
    const { catalogue, readings } = scene;
    const { network, reach, causes } = readings;
    for (let i = 0; i < network.items.length; i++) {
      const item = catalogue.item.get(network.items[i]);
      if (reach.items[i] || !item || item.status === "retired") continue;
      const cause = causes.get(i);
      const leaves = (cause?.leaves ?? [i]).map((leaf) => itemRef(scene, leaf));
      const self = leaves.length === 1 && leaves[0].id === item.id;
      const made = network.madeBy.ptr[i] < network.madeBy.ptr[i + 1];
      const says = self
        ? made
          ? `${item.name} can't be had: every way to make it needs the item itself or something made from it.`
          : `${item.name} can't be had: nothing makes, gathers or sells it.`
        : `${item.name} can't be had: it waits for ${list(leaves.map((l) => l.name))}.`;
      yield {
        about: [itemRef(scene, i)],
        says,
        evidence: { type: "cause", leaves, path: self ? [] : pathTo(i, cause?.by ?? -1) },
        fixes: [
          ...leaves.slice(0, 3).map((l) => ({ says: `Give ${l.name} a source`, do: "source" as const, item: l.id })),
          { says: `Open ${item.name}`, do: "open", kind: "item", id: item.id },
        ],
      };
    }

    /** The chain of out-of-reach items from the item down to its first cause. */
    function pathTo(start: number, process: number): Ref[] {
      const path = [itemRef(scene, start)];
      const seen = new Set([start]);
      for (let p = process; p >= 0 && path.length < 12; ) {
        let next = -1;
        for (let k = network.needs.ptr[p]; k < network.needs.ptr[p + 1]; k++) if (!reach.items[network.needs.to[k]] && !seen.has(network.needs.to[k])) next = network.needs.to[k];
        if (next < 0) break;
        seen.add(next);
        path.push(itemRef(scene, next));
        p = causes.get(next)?.by ?? -1;
      }
      return path;
    }
  },
};
