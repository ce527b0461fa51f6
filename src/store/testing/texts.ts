/** A catalogue as the database would give it. */
import type { Catalogue } from "../../core/catalogue/catalogue";
import { type AnyRecord, type Id, KINDS } from "../../core/catalogue/records";
import type { PantryTexts } from "../load";
import { rowOf, TABLES } from "../tables";

export const textsOf = (catalogue: Catalogue): PantryTexts => ({
  revision: catalogue.revision,
  pantry: catalogue.pantry,
  kinds: Object.fromEntries(
    KINDS.map((kind) => {
      const table = TABLES[kind];
      const records = [...(catalogue[kind] as ReadonlyMap<Id, AnyRecord>).values()];
      const parts = table.parts.map(({ field, rows }) =>
        JSON.stringify(
          records.flatMap((r) => rows((r as unknown as Record<string, never>)[field]).map((row) => [r.id, ...row])),
        ),
      );
      return [kind, { rows: JSON.stringify(records.map((r) => rowOf(table, r))), parts }];
    }),
  ) as unknown as PantryTexts["kinds"],
});
