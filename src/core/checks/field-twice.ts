import { HOLDERS } from "../kinds/field";
import { type AnyRecord, type Item, kindWord, type OwnField } from "../kinds/index";
import type { Index } from "../catalogue/persistent-map";
import { list } from "../numbers/format";
import type { Id } from "../schema/id";
import { normalise } from "../schema/names";
import { type Fix, type GroupCheck, ref } from "./check";

const UNIQUE: Index<OwnField, boolean> = {
  build: (fields) => [...fields.values()].some((f) => f.unique),
  follow: () => null,
};
const ownOf = (record: AnyRecord): Item["own"] => (record as Item).own;
/** Characters of a value that are shown. */
const SHOWN = 60;

/** Records of one kind with the same value in a unique field. Texts are compared without case and spacing. */
export const fieldTwice: GroupCheck = {
  id: "field-twice",
  reads: [],
  groups: HOLDERS,
  concerns: ({ records }) => records.field.index(UNIQUE),
  anew: (edits) => edits.some((edit) => edit.kind === "field"),
  common: (record) =>
    Object.entries(ownOf(record)).flatMap(([field, value]) =>
      typeof value === "object" ? [] : `${field} ${typeof value === "string" ? normalise(value) : value}`,
    ),
  *among({ catalogue }, group, kind, common) {
    const field = catalogue.records.field.get(common.slice(0, common.indexOf(" ")) as Id);
    if (!field?.unique || field.of !== kind) return;
    const names = group.map((r) => r.name);
    const value = String(ownOf(group[0])[field.id]);
    yield {
      subject: [...group.map((r) => ref(catalogue, kind, r.id)), ref(catalogue, "field", field.id)],
      message: `${list(names, 3)} have the same ${field.name}: ${value.length > SHOWN ? `${value.slice(0, SHOWN)}…` : value}.`,
      evidence: { type: "names", names: names.slice(0, SHOWN) },
      fixes: [
        ...group
          .slice(0, 3)
          .map((r): Fix => ({ message: `Open ${r.name} and enter another ${field.name}`, do: "open", kind, id: r.id })),
        { message: `Open the ${kindWord("field")} ${field.name}`, do: "open", kind: "field", id: field.id },
      ],
    };
  },
};
