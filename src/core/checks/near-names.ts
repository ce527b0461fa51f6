import { referrers } from "../catalogue/catalogue";
import { setField } from "../catalogue/changes";
import { foldedName } from "../catalogue/names";
import type { Kind } from "../catalogue/records";
import { kindWord } from "../catalogue/records";
import { count, list } from "../numbers/format";
import { type Fix, type GroupCheck, ref } from "./check";
import { replaceEverywhere } from "./mend";

const KINDS: readonly Kind[] = ["item", "type", "stat", "rarity", "tag", "currency"];

/** Records of one kind whose names differ only in case, spaces or Unicode form. Retired items don't count. */
export const nearNames: GroupCheck = {
  id: "near-names",
  title: "Nearly the same name",
  severity: "warning",
  groups: KINDS,
  common: (record) => ("status" in record && record.status === "retired" ? null : foldedName(record)),
  *among({ catalogue }, group, kind) {
        const names = group.map((r) => r.name);
        const alike = new Set(names).size === 1;
        const uses = kind === "item" ? group.map((r) => [...referrers(catalogue, kind, r.id)].length) : [];
        yield {
          about: group.map((r) => ref(catalogue, kind, r.id)),
          says: alike ? `${count(group.length, kindWord(kind), kindWord(kind, true))} are called ${names[0]}.` : `${list(names)} differ only in case or spacing; they are ${group.length} ${kindWord(kind, true)}.`,
          evidence: { type: "names", names },
          fixes: [...(kind === "item" ? merges() : []), ...group.slice(0, 3).map((r): Fix => ({ says: `Rename ${r.name} (${r.key})`, do: "open", kind, id: r.id }))],
        };

        /** Keep the item that is used most; the others give way to it and retire. */
        function merges(): Fix[] {
          const keep = group[uses.indexOf(Math.max(...uses))];
          const others = group.filter((r) => r !== keep);
          const edits = others.flatMap((r) => [...replaceEverywhere(catalogue, r.id, keep.id), setField(catalogue, "item", r.id, "status", "retired")]);
          return [{ says: `Use ${keep.name} (${keep.key}) everywhere and retire the other${others.length > 1 ? "s" : ""}`, do: "edit", edits }];
        }
  },
};
