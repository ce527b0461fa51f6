/**
 * A record is known by its pantry and its id together, and refers within its pantry only. Written once, never edited.
 */
import { Migration } from "@mikro-orm/migrations";

const KINDS = ["currency", "rarity", "stat", "tag", "item_type", "item", "recipe", "source"];
/** Table, the record it belongs to, and what else is in its key. */
const PARTS = [
  ["item_type_stat", "item_type", "type_id", "stat_id"],
  ["item_tag", "item", "item_id", "tag_id"],
  ["item_stat", "item", "item_id", "stat_id"],
  ["recipe_line", "recipe", "recipe_id", "position"],
  ["source_line", "source", "source_id", "position"],
] as const;
/** Table, column, the table it refers to, and what becomes of a reference into another pantry: none was ever meant. */
const REFERENCES = [
  ["item_type", "parent_id", "item_type", "empty"],
  ["item", "type_id", "item_type", "empty"],
  ["item", "rarity_id", "rarity", "empty"],
  ["recipe", "fee_currency_id", "currency", "empty"],
  ["recipe", "taught_by_id", "item", "stub"],
  ["source", "currency_id", "currency", "empty"],
  ["item_type_stat", "stat_id", "stat", "leave out"],
  ["item_tag", "tag_id", "tag", "leave out"],
  ["item_stat", "stat_id", "stat", "leave out"],
  ["recipe_line", "item_id", "item", "stub"],
  ["source_line", "item_id", "item", "stub"],
] as const;

export class RecordsByPantry extends Migration {
  override async up(): Promise<void> {
    for (const [table, column] of REFERENCES)
      this.addSql(`alter table "${table}" drop constraint "${table}_${column}_foreign"`);
    for (const [table, , column] of PARTS)
      this.addSql(`alter table "${table}" drop constraint "${table}_${column}_foreign"`);
    for (const [table, of, column, rest] of PARTS) {
      this.addSql(`alter table "${table}" add column "pantry_id" varchar(12) null`);
      this.addSql(`update "${table}" c set "pantry_id" = o."pantry_id" from "${of}" o where o."id" = c."${column}"`);
      this.addSql(
        `alter table "${table}" alter column "pantry_id" set not null, drop constraint "${table}_pkey", add constraint "${table}_pkey" primary key ("pantry_id", "${column}", "${rest}")`,
      );
    }
    for (const table of KINDS) {
      this.addSql(`drop index "${table}_pantry_id_index"`);
      this.addSql(
        `alter table "${table}" drop constraint "${table}_pkey", add constraint "${table}_pkey" primary key ("pantry_id", "id")`,
      );
    }
    for (const table of ["recipe_line", "source_line"]) this.addSql(`drop index "${table}_item_id_index"`);
    for (const [table, column, of, then] of REFERENCES) {
      const astray = `not exists (select 1 from "${of}" o where o."pantry_id" = c."pantry_id" and o."id" = c."${column}")`;
      if (then === "empty")
        this.addSql(`update "${table}" c set "${column}" = null where c."${column}" is not null and ${astray}`);
      else if (then === "leave out") this.addSql(`delete from "${table}" c where ${astray}`);
      else
        this.addSql(
          `insert into "item" ("pantry_id", "id", "key", "name", "description", "status", "note") select distinct on (c."pantry_id", i."id") c."pantry_id", i."id", left(i."key", 70) || '_' || i."id", i."name", '', 'stub', '' from "${table}" c join "item" i on i."id" = c."${column}" where ${astray}`,
        );
    }
    this.addSql(`update "pantry" set "key" = 'pantry_' || "id" where "key" !~ '^[a-z0-9]+(_[a-z0-9]+)*$'`);
    this.addSql(`update "pantry" set "name" = 'Pantry' where btrim("name") = ''`);
    this.addSql("set constraints all immediate");
    for (const [table, column, of] of REFERENCES) {
      this.addSql(`create index "${table}_${column}_index" on "${table}" ("pantry_id", "${column}")`);
      this.addSql(
        `alter table "${table}" add constraint "${table}_${column}_foreign" foreign key ("pantry_id", "${column}") references "${of}" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
      );
    }
    for (const [table, of, column] of PARTS) {
      this.addSql(
        `alter table "${table}" add constraint "${table}_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
      );
      this.addSql(
        `alter table "${table}" add constraint "${table}_${column}_foreign" foreign key ("pantry_id", "${column}") references "${of}" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
      );
    }
  }
  /** Ids that stand in several pantries have no place in the tables before. */
  override async down(): Promise<void> {
    throw new Error("There is no way back from records by pantry. Restore a backup made before it.");
  }
}
