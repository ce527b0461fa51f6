import { normalise } from "../schema/names";
import type { Id } from "../schema/id";
import { KINDS, kindWord } from "../kinds/index";
import { count, list } from "../numbers/format";
import { type Fix, type GroupCheck, ref } from "./check";
import type { Readings } from "../analysis/readings";

/** How many recipes and sources name an item. */
function usesOf({ compiled, network: { consumers, producers } }: Readings, id: Id): number {
  const i = compiled.numberOf(id) as number;
  return [consumers, producers].reduce((n, { start, end }) => n + end[i] - start[i], 0);
}

/** Records of one kind whose names differ only in case, spaces or Unicode form. Retired items don't count. */
export const nearNames: GroupCheck = {
  id: "near-names",
  reads: [],
  // Of uses it is the item that tells them apart: every meal is eaten. Decisions are named after their findings.
  groups: KINDS.filter((kind) => kind !== "use" && kind !== "decision" && kind !== "scenario"),
  common: (record) => ("status" in record && record.status === "retired" ? null : normalise(record.name)),
  *among({ catalogue, readings }, group, kind) {
    const names = group.map((r) => r.name);
    const alike = new Set(names).size === 1;
    yield {
      subject: group.map((r) => ref(catalogue, kind, r.id)),
      message: alike
        ? `${count(group.length, kindWord(kind), kindWord(kind, true))} are called ${names[0]}.`
        : `${list(names)} differ only in case or spacing but are ${group.length} different ${kindWord(kind, true)}.`,
      evidence: { type: "names", names },
      fixes: [
        ...(kind === "item" ? [merge()] : []),
        ...group.slice(0, 3).map((r): Fix => ({ message: `Rename ${r.name} (${r.key})`, do: "open", kind, id: r.id })),
      ],
    };

    /** Keep the item that is used most; the others give way to it and retire. */
    function merge(): Fix {
      const uses = group.map((r) => usesOf(readings, r.id));
      const keep = group[uses.reduce((best, n, k) => (n > uses[best] ? k : best), 0)];
      const others = group.filter((r) => r !== keep);
      return {
        message: `Use ${keep.name} (${keep.key}) everywhere and retire the other${others.length > 1 ? "s" : ""}`,
        do: "merge",
        keep: keep.id,
        others: others.map((r) => r.id),
        after: "retire",
      };
    }
  },
};
