/** Rows by COPY: many at once, as text, which is the quickest way in. */
import { Readable } from "node:stream";
import { pipeline } from "node:stream/promises";
import type { EntityManager, Knex } from "@mikro-orm/postgresql";
import type { Client } from "pg";
import { from as copyFrom } from "pg-copy-streams";
import type { Scalar } from "../core/schema/field";
import { TABLES } from "./tables";

const names = (columns: readonly { readonly name: string }[]): readonly string[] => columns.map((c) => c.name);
/** Columns of the tables that rows are copied into, by table; of what stands in the name of a table, only these count. */
const COLUMNS = new Map<string, readonly string[]>([
  ...Object.values(TABLES).flatMap((kind) =>
    [kind, ...kind.parts].map((table) => [table.name, ["pantry_id", ...names(table.columns)]] as const),
  ),
  ["change_part", ["pantry_id", "revision", "part", "edits"]],
  ["change_touch", ["pantry_id", "revision", "record"]],
]);

/** A row as COPY reads it, values in the order of the columns. */
export const copyLine = (values: readonly Scalar[]): string => `${values.map(copyValue).join("\t")}\n`;

function copyValue(value: Scalar): string {
  if (value === null) return "\\N";
  if (typeof value !== "string") return String(value);
  return /[\\\t\n\r]/.test(value) ? value.replace(/[\\\t\n\r]/g, (c) => ESCAPED[c]) : value;
}
const ESCAPED: { readonly [character: string]: string } = { "\\": "\\\\", "\t": "\\t", "\n": "\\n", "\r": "\\r" };

/**
 * Copies rows into a table, within the manager's transaction.
 * @param rows  lines as `copyLine` makes them
 */
export async function copyInto(em: EntityManager, table: string, rows: string): Promise<void> {
  const columns = COLUMNS.get(table);
  const transaction = em.getTransactionContext<Knex.Transaction>();
  if (!columns || !transaction) throw new Error("Nothing can be copied there.");
  // Within a transaction this is the one connection that it runs on.
  const client: Client = await transaction.client.acquireConnection();
  const stream = client.query(copyFrom(`copy "${table}" (${columns.map((c) => `"${c}"`).join(", ")}) from stdin`));
  await pipeline(Readable.from([Buffer.from(rows)]), stream);
}
