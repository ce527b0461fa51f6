/** A catalogue as the database would give it. */
import { type Catalogue, recordsOf } from "../../core/catalogue/catalogue";
import { definition, KINDS } from "../../core/kinds/index";
import type { PantryTexts } from "../texts";
import { rowsOf, TABLES } from "../tables";

export const textsOf = (catalogue: Catalogue): PantryTexts => ({
  revision: catalogue.revision,
  pantry: catalogue.pantry,
  kinds: Object.fromEntries(
    KINDS.map((kind) => {
      const rows = [...recordsOf(catalogue, kind).values()].map((record) => rowsOf(definition(kind), record));
      const parts = TABLES[kind].parts.map((_, k) => JSON.stringify(rows.flatMap((r) => r.parts[k])));
      return [kind, { rows: JSON.stringify(rows.map((r) => r.own)), parts }];
    }),
  ) as unknown as PantryTexts["kinds"],
});
