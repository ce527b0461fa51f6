/** Plain SQL through the manager, and the statements that tables.ts gives. Values are parameters, always. */
import type { EntityManager, Knex } from "@mikro-orm/postgresql";
import type { Scalar } from "../core/schema/field";
import type { KindTable, Row, Table } from "./tables";

/**
 * Runs plain SQL, inside the manager's transaction where it has one; values are sent beside it. It goes to Knex at once:
 * by the manager's own way each statement takes half as long again, and a pantry is read by a hundred (decision 40).
 * @param sql     literal, or made of the program's own names only; `?` stands for a value
 * @param params  values: texts, numbers, null
 */
export async function query(em: EntityManager, sql: string, params: readonly Scalar[] = []): Promise<Row[]> {
  const on = em.getTransactionContext<Knex.Transaction>() ?? em.getKnex();
  const { rows } = (await on.raw(sql, [...params] as never)) as { rows: Row[] };
  return rows;
}

const quoted = (names: readonly string[]): string => names.map((name) => `"${name}"`).join(", ");

/** Puts rows, given as one JSON list of lists, into a table: parameters are the pantry and the list. */
export const insertRows = ({ name, columns }: Table): string => {
  const names = ["pantry_id", ...columns.map((c) => c.name)];
  const values = columns.map((c, k) => `(r.v->>${k})::${c.type}`).join(", ");
  return `insert into "${name}" (${quoted(names)}) select ?, ${values} from jsonb_array_elements(?::jsonb) as r(v)`;
};

/** The same, and where a record of this id stands in this pantry already, it is overwritten. */
export const upsertRows = (table: KindTable): string => {
  const others = table.columns.flatMap((c) => (c.name === "id" ? [] : [`"${c.name}" = excluded."${c.name}"`]));
  return `${insertRows(table)} on conflict ("pantry_id", "id") do update set ${others.join(", ")}`;
};

/** The row of a pantry with its settings and its revision: the parameter is its id. */
export const selectPantry = ({ columns }: Table): string =>
  `select ${quoted(columns.map((c) => c.name))}, "revision" from "pantry" where "id" = ?`;

/** Takes out the rows of a JSON list of ids: parameters are the pantry and the list. */
export const deleteRows = (table: string, id: string): string =>
  `delete from "${table}" where "pantry_id" = ? and "${id}" in (select jsonb_array_elements_text(?::jsonb))`;

/** All rows of a pantry as one JSON list of lists, as text: the parameter is the pantry. */
export const selectRows = ({ name, columns, order }: Table): string =>
  `select coalesce(json_agg(json_build_array(${quoted(columns.map((c) => c.name))}) order by ${quoted(order)}), '[]')::text as rows from "${name}" where "pantry_id" = ?`;
