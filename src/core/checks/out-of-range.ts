import type { Line } from "../notation/line";
import { sayPercent } from "../numbers/format";
import { namedRef, perRecord, ref } from "./check";
import { setLines } from "./fixes";

/** What is wrong with a line's numbers, and the nearest line that is right. */
function fault(line: Line): { message: string; fixed: Line } | null {
  if (line.chance > 1)
    return { message: `a chance of ${sayPercent(line.chance)}; the maximum is 100%`, fixed: { ...line, chance: 1 } };
  if (line.chance <= 0 && !((line.bonus?.share ?? 0) > 0))
    return { message: "a chance of 0%, so it never happens", fixed: { ...line, chance: 1 } };
  if (line.min > line.max)
    return {
      message: `a range of ${line.min} to ${line.max}, which is reversed`,
      fixed: { ...line, min: line.max, max: line.min },
    };
  if (line.max === 0) return { message: "a quantity of 0", fixed: { ...line, min: 1, max: 1 } };
  return null;
}

/** A chance outside 0..1, a backward range or a quantity of nothing, in a recipe or a source. */
export const outOfRange = perRecord<"recipe" | "source">({
  id: "out-of-range",
  reads: [],
  per: ["recipe", "source"],
  may: ({ lines }) => lines.some(fault),
  *at({ catalogue }, record, kind) {
    if ("status" in record && record.status === "retired") return;
    for (const [at, line] of record.lines.entries()) {
      const wrong = fault(line);
      if (!wrong) continue;
      const of = namedRef(catalogue, line);
      yield {
        subject: [ref(catalogue, kind, record.id), of],
        message: `${record.name} has ${of.name} with ${wrong.message}.`,
        evidence: {
          type: "amounts",
          unit: "",
          rows: [
            { label: "at least", value: line.min },
            { label: "at most", value: line.max },
            { label: "chance", value: line.chance },
          ],
        },
        fixes: [
          {
            message: `${of.name}: ${line.chance === wrong.fixed.chance ? `${wrong.fixed.min} to ${wrong.fixed.max}` : sayPercent(wrong.fixed.chance)}`,
            do: "edit",
            edits: [
              setLines(
                catalogue,
                kind,
                record.id,
                record.lines.map((l, k) => (k === at ? wrong.fixed : l)),
              ),
            ],
          },
          { message: `Open ${record.name}`, do: "open", kind, id: record.id },
        ],
      };
    }
  },
});
