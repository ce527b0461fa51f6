/**
 * The driver of MikroORM, but for one thing: values travel beside the text of a statement. Its own connection writes them
 * into the text.
 */
import type { Configuration, LoggingOptions, QueryResult, Transaction } from "@mikro-orm/core";
import { AbstractSqlDriver, type Knex, PostgreSqlConnection, PostgreSqlPlatform } from "@mikro-orm/postgresql";

class BoundConnection extends PostgreSqlConnection {
  override async execute<T extends QueryResult | object>(
    statement: string | Knex.QueryBuilder | Knex.Raw,
    params: unknown[] = [],
    method: "all" | "get" | "run" = "all",
    ctx?: Transaction,
    logged?: LoggingOptions,
  ): Promise<T> {
    await this.ensureConnection();
    const { sql, bindings } = typeof statement === "string" ? { sql: statement, bindings: params } : statement.toSQL();
    return this.executeQuery(
      sql,
      async () => {
        const asked = this.getKnex().raw(sql, [...(bindings ?? [])] as never);
        const answer: unknown = await (ctx ? asked.transacting(ctx as Knex.Transaction) : asked);
        return this.transformRawResult<T>(answer, method);
      },
      { query: sql, params: [...(bindings ?? [])], ...logged },
    );
  }
}

export class BoundDriver extends AbstractSqlDriver<BoundConnection> {
  constructor(config: Configuration) {
    super(config, new PostgreSqlPlatform(), BoundConnection, ["knex", "pg"]);
  }
}
