/** The statements that bring the tables of the last migration to what the kinds say now. */
import type { Scalar } from "../core/schema/field";
import { ENTITY_TABLES } from "./entities";
import { connect, migrate } from "./orm";
import type { Table } from "./tables";

export interface Difference {
  readonly statements: readonly string[];
  /** What they would lose, or could not do where there are rows already; to be written by hand. */
  readonly warnings: readonly string[];
}

/** @param url  an empty database, which is migrated */
export async function difference(url: string): Promise<Difference> {
  const orm = await connect(url);
  try {
    await migrate(orm);
    const sql = await orm.schema.getUpdateSchemaSQL({ wrap: false });
    const given = sql
      .split(/;\s*\n?/)
      .map((line) => line.trim())
      .filter(Boolean);
    const made = given.map((statement) => withDefaults(statement, ENTITY_TABLES));
    return {
      statements: made.flatMap((m) => m.statements),
      warnings: [
        ...given.filter((s) => /\bdrop (column|table)\b/.test(s)).map((s) => `loses what is stored: ${s}`),
        ...made.flatMap((m) => m.warnings),
      ],
    };
  } finally {
    await orm.close(true);
  }
}

const literal = (value: Scalar): string =>
  typeof value === "string" ? `'${value.replaceAll("'", "''")}'` : String(value);

/** A new column that may not be empty gets the field's initial value in the rows that are there, and no default. */
export function withDefaults(statement: string, tables: readonly Table[]): Difference {
  const name = /^alter table "([^"]+)"/.exec(statement)?.[1];
  const table = tables.find((t) => t.name === name);
  const added: string[] = [];
  const warnings: string[] = [];
  const first = statement.replace(/add column "([^"]+)" ([^,]*?) not null/g, (whole, column: string, type: string) => {
    const initial = table?.columns.find((c) => c.name === column)?.initial;
    if (initial === undefined || initial === null) {
      warnings.push(`fails where there are rows: ${whole}`);
      return whole;
    }
    added.push(column);
    return `add column "${column}" ${type} not null default ${literal(initial)}`;
  });
  const drops = added.map((column) => `alter table "${name}" alter column "${column}" drop default`);
  return { statements: [first, ...drops], warnings };
}
