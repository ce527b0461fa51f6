import { setField } from "../catalogue/edit";
import { referrersTo } from "../catalogue/references";
import type { Stat } from "../kinds/index";
import type { Id } from "../schema/id";
import { sayQuantity } from "../numbers/format";
import { perRecord, ref } from "./check";

/** The nearest value that a stat may have. */
function allowed(stat: Stat, value: number): number {
  const within = Math.min(Math.max(value, stat.min ?? value), stat.max ?? value);
  return stat.form === "whole" ? Math.round(within) : within;
}

/** A stat that an item or a type gives a value which the stat itself does not allow. */
export const statOutOfRange = perRecord<"item" | "type">({
  id: "stat-out-of-range",
  reads: [],
  per: ["item", "type"],
  concerns: ({ records }) =>
    [...records.stat.values()].some(({ min, max, form }) => min !== null || max !== null || form === "whole"),
  also({ catalogue }, _, edits) {
    const stats = new Set(edits.flatMap((e) => (e.kind === "stat" && e.op === "set" ? [e.id] : [])));
    return [...referrersTo(catalogue, "stat", stats)].map(({ record }) => record.id);
  },
  *at({ catalogue }, record, kind) {
    if ("status" in record && record.status === "retired") return;
    for (const id of Object.keys(record.stats) as Id[]) {
      const [stat, value] = [catalogue.records.stat.get(id), record.stats[id]];
      if (!stat || allowed(stat, value) === value) continue;
      const { min, max } = stat;
      const why =
        max !== null && value > max
          ? `at most ${sayQuantity(max)}`
          : min !== null && value < min
            ? `at least ${sayQuantity(min)}`
            : "a whole number";
      const fixed = allowed(stat, value);
      yield {
        subject: [ref(catalogue, kind, record.id), ref(catalogue, "stat", id)],
        message: `${record.name} has ${stat.name} ${sayQuantity(value)}, but it must be ${why}.`,
        evidence: {
          type: "amounts",
          unit: stat.unit,
          rows: [
            { label: record.name, value },
            ...(min === null ? [] : [{ label: "at least", value: min }]),
            ...(max === null ? [] : [{ label: "at most", value: max }]),
          ],
        },
        fixes: [
          {
            message: `Change it to ${sayQuantity(fixed)}`,
            do: "edit",
            edits: [setField(catalogue, kind, record.id, `stats.${id}`, fixed)],
          },
          { message: `Open ${record.name}`, do: "open", kind, id: record.id },
          { message: `Open ${stat.name} and widen its range`, do: "open", kind: "stat", id },
        ],
      };
    }
  },
});
