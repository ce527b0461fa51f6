import type { Recipe, Source } from "../kinds/index";
import { boxOfLines, levelsOf, thingsIn } from "../network/box";
import { namedRef, perRecord, ref } from "./check";
import { withoutLine } from "./fixes";

/** Most levels at which a table is looked at. */
const MOST_LEVELS = 200;

/** A draw with a weight of nothing, or a table from which nothing comes. */
export const drawNeverComes = perRecord<"recipe" | "source">({
  id: "draw-never-comes",
  reads: [],
  per: ["recipe", "source"],
  may: ({ tables, lines }) => tables.length > 0 || lines.some((l) => l.draw),
  *also({ catalogue: { records } }, _, edits) {
    if (!edits.some((e) => e.kind === "table")) return;
    for (const kind of ["recipe", "source"] as const)
      for (const record of records[kind].values()) if (record.tables.length) yield record.id;
  },
  *at({ catalogue }, record: Recipe | Source, kind) {
    if ("status" in record && record.status === "retired") return;
    const open = { message: `Open ${record.name}`, do: "open", kind, id: record.id } as const;
    const { table: tables } = catalogue.records;
    for (const { table } of record.tables) {
      const drawn = boxOfLines([], [{ table, times: 1 }]);
      const levels = levelsOf(drawn, tables, 0, MOST_LEVELS);
      if (levels.some((level) => thingsIn(drawn, tables, level).length)) continue;
      const of = ref(catalogue, "table", table);
      yield {
        subject: [ref(catalogue, kind, record.id), of],
        message: `${record.name} draws from ${of.name}, which never gives anything.`,
        evidence: { type: "names", names: [of.name] },
        fixes: [{ message: `Open ${of.name}`, do: "open", kind: "table", id: table }, open],
      };
    }
    for (const line of record.lines) {
      if (!line.draw || line.draw.weight > 0) continue;
      const of = namedRef(catalogue, line);
      yield {
        subject: [ref(catalogue, kind, record.id), of],
        message: `${of.name} has a weight of 0 in ${record.name}, so it is never drawn.`,
        evidence: { type: "amounts", unit: "", rows: [{ label: "weight", value: 0 }] },
        fixes: [withoutLine(catalogue, kind as "recipe" | "source", record, line, `Remove ${of.name}`), open],
      };
    }
  },
});
