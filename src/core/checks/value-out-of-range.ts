import { setField } from "../catalogue/edit";
import { demandOn } from "../catalogue/fields";
import type { Heir } from "../catalogue/inheritance";
import { around } from "../catalogue/surroundings";
import type { Index } from "../catalogue/persistent-map";
import { type AnyRecord, definition, type Item, type ItemType, type OwnField } from "../kinds/index";
import { HOLDERS } from "../kinds/field";
import type { Id } from "../schema/id";
import { fieldAt, pathOf } from "../schema/record";
import { perRecord, ref } from "./check";
import { holdersBeside } from "./holders";

const limits = ({ min, max }: { readonly min: number | null; readonly max: number | null }): boolean =>
  min !== null || max !== null;
/** Whether any field has a range, and whether any type asks for one. */
const LIMITED: Index<OwnField, boolean> = {
  build: (fields) => [...fields.values()].some(limits),
  follow: () => null,
};
const LIMITING: Index<ItemType, boolean> = {
  build: (types) =>
    [...types.values()].some(({ takes, measures }) => [takes, measures].some((of) => Object.values(of).some(limits))),
  follow: () => null,
};

type Holder = (typeof HOLDERS)[number];
type Range = { readonly min: number | null; readonly max: number | null };

const below = (value: number, { min }: Range): boolean => min !== null && value < min;
const above = (value: number, { max }: Range): boolean => max !== null && value > max;

/** A value beyond the range of its field, or one of a field or stat beyond what the type of the item allows. */
export const valueOutOfRange = perRecord<Holder>({
  id: "value-out-of-range",
  reads: [],
  per: HOLDERS,
  concerns: ({ records: { field, type } }) => field.index(LIMITED) || type.index(LIMITING),
  also: ({ catalogue }, _, edits) => holdersBeside(catalogue, edits),
  *at({ catalogue }, record, kind) {
    if ("status" in record && record.status === "retired") return;
    const { own, stats = {} } = record as AnyRecord & Pick<Item, "own"> & Partial<Pick<Item, "stats">>;
    const heir = kind === "item" || kind === "type" ? (record as Heir) : null;
    for (const id of Object.keys(own) as Id[]) {
      const field = catalogue.records.field.get(id);
      if (field) yield* held("field", `own.${id}`, id, field.name, own[id], field, "takes");
    }
    for (const id of Object.keys(stats) as Id[]) {
      const stat = catalogue.records.stat.get(id);
      // Its own range is another check's.
      if (stat) yield* held("stat", `stats.${id}`, id, stat.name, stats[id], { min: null, max: null }, "measures");
    }

    function* held(
      of: "field" | "stat",
      path: string,
      id: Id,
      name: string,
      value: unknown,
      range: Range,
      which: "takes" | "measures",
    ) {
      if (typeof value !== "number") return;
      const asked = heir && demandOn(catalogue, heir, which, id);
      const outside = (r: Range | null): r is Range => r !== null && (below(value, r) || above(value, r));
      const broken = outside(asked) ? asked : outside(range) ? range : null;
      if (!broken) return;
      const here = around(catalogue);
      const at = pathOf(definition(kind), path);
      const say = (n: number): string => (at ? fieldAt(at, here).say(n, here) : String(n));
      const fixed = (below(value, broken) ? broken.min : broken.max) as number;
      const who = broken === asked && asked.type ? `items of type ${asked.type.name}` : "it";
      yield {
        subject: [ref(catalogue, kind, record.id), ref(catalogue, of, id)],
        message: `${record.name} has ${name} ${say(value)}, but ${who} must have ${below(value, broken) ? "at least" : "at most"} ${say(fixed)}.`,
        evidence: {
          type: "amounts" as const,
          unit: "",
          rows: [
            { label: record.name, value },
            { label: "allowed", value: fixed },
          ],
        },
        fixes: [
          {
            message: `Change it to ${say(fixed)}`,
            do: "edit" as const,
            edits: [setField(catalogue, kind, record.id, path, fixed)],
          },
          { message: `Open ${record.name}`, do: "open" as const, kind, id: record.id },
          broken === asked && asked.type
            ? {
                message: `Open ${asked.type.name} and widen its range`,
                do: "open" as const,
                kind: "type" as const,
                id: asked.type.id,
              }
            : { message: `Open ${name} and widen its range`, do: "open" as const, kind: of, id },
        ],
      };
    }
  },
});
