import type { Edit } from "../catalogue/edit";
import { referrersTo } from "../catalogue/references";
import { itemsOfType } from "../catalogue/types";
import { definition, type Kind, kindWord } from "../kinds/index";
import { referred } from "../schema/field";
import type { Id } from "../schema/id";
import { pathOf } from "../schema/record";
import { type Fix, perRecord, ref } from "./check";

/** What is there to be referred to. */
const SERVES = [
  "rarity",
  "stat",
  "tag",
  "cooldown",
  "situation",
  "constant",
  "resource",
  "signal",
  "exclusion",
  "type",
  "table",
] as const;
type Serves = (typeof SERVES)[number];

/** A tag, stat, type and the like that nothing in the pantry refers to. */
export const orphan = perRecord<Serves>({
  id: "orphan",
  reads: [],
  per: SERVES,
  also: (_, __, edits) => edits.flatMap(referredBy),
  *at({ catalogue }, record, kind) {
    if (kind === "type" && itemsOfType(catalogue, record.id).size) return;
    for (const { record: user } of referrersTo(catalogue, kind, new Set([record.id])))
      if (user.id !== record.id) return;
    yield {
      subject: ref(catalogue, kind, record.id),
      message: `The ${kindWord(kind)} ${record.name} is not used anywhere.`,
      evidence: { type: "names", names: [record.name] },
      fixes: [
        { message: `Remove ${record.name}`, do: "edit", edits: [{ op: "remove", kind, record } as Edit] },
        { message: `Open ${record.name}`, do: "open", kind, id: record.id } as Fix,
      ],
    };
  },
});

/** Records that an edit referred to, before or after. */
function referredBy(edit: Edit): Id[] {
  const of = (kind: Kind, name: string, value: unknown): Id[] => {
    const at = pathOf(definition(kind), name);
    if (!at || value === null || value === undefined) return [];
    const part = at.part === null ? [] : [at.part as Id];
    const field = at.part === null ? at.field : (at.field.parts?.of ?? at.field);
    return [...part, ...referred(field, value).map((r) => r.id)];
  };
  if (edit.kind === "pantry") return [];
  if (edit.op === "set") return [...of(edit.kind, edit.field, edit.from), ...of(edit.kind, edit.field, edit.to)];
  const record = edit.record as unknown as Readonly<Record<string, unknown>>;
  return Object.entries(definition(edit.kind).fields).flatMap(([name, field]) =>
    referred(field, record[name]).map((r) => r.id),
  );
}
