import { setField } from "../catalogue/edit";
import { forcedBy, levelOf } from "../analysis/progression";
import { levels, reach } from "../analysis/registry";
import { itemRef, perRecord, processRef, ref } from "./check";

/** An item with a level at which no one can have it yet: something it needs comes later. */
export const gatedAbove = perRecord<"item">({
  id: "gated-above",
  reads: [levels, reach],
  followsChains: true,
  per: ["item"],
  may({ id }, { readings }) {
    const i = readings.compiled.numberOf(id) as number;
    const own = readings.compiled.levels[i];
    return own > 0 && (levelOf(readings, i) ?? own) > own;
  },
  *at(context, item) {
    const { catalogue, readings } = context;
    const i = readings.compiled.numberOf(item.id) as number;
    const own = readings.compiled.levels[i];
    const lowest = levelOf(readings, i);
    if (item.status === "retired" || own === 0 || lowest === null || lowest <= own) return;
    const by = forcedBy(readings, i);
    const path = by.path.map((n) => itemRef(context, n));
    const forced = "item" in by.forced ? itemRef(context, by.forced.item) : processRef(context, by.forced.process);
    const names = path.map((p) => p.name);
    yield {
      subject: ref(catalogue, "item", item.id),
      with: [forced],
      message: `${item.name} is level ${own}, but unobtainable before level ${lowest}: ${names.length > 2 ? `it needs ${names.slice(1, -1).join(", which needs ")}, and ` : ""}${forced.name} is level ${lowest}.`,
      evidence: { type: "cause", leaves: [forced], path },
      fixes: [
        {
          message: `Set the level of ${item.name} to ${lowest}`,
          do: "edit",
          edits: [setField(catalogue, "item", item.id, "level", lowest)],
        },
        { message: `Open ${forced.name}`, do: "open", kind: forced.kind, id: forced.id },
      ],
    };
  },
});
