/** makers and batches. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class MakersAndBatches extends Migration {
  override async up(): Promise<void> {
    this.addSql(`alter table "stat" add column "maker" double precision not null default 0`);
    this.addSql(`alter table "stat" alter column "maker" drop default`);
    this.addSql(
      `alter table "source_line" add column "bonus_share" double precision null, add column "bonus_stat_id" varchar(12) null`,
    );
    this.addSql(
      `alter table "source_line" add constraint "source_line_bonus_stat_id_foreign" foreign key ("pantry_id", "bonus_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(`create index "source_line_bonus_stat_id_index" on "source_line" ("pantry_id", "bonus_stat_id")`);
    this.addSql(`alter table "recipe" add column "batch" int null`);
    this.addSql(`alter table "recipe_variant" add column "batch" int null`);
    this.addSql(
      `alter table "recipe_variant_line" add column "bonus_share" double precision null, add column "bonus_stat_id" varchar(12) null`,
    );
    this.addSql(
      `alter table "recipe_variant_line" add constraint "recipe_variant_line_bonus_stat_id_foreign" foreign key ("pantry_id", "bonus_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `create index "recipe_variant_line_bonus_stat_id_index" on "recipe_variant_line" ("pantry_id", "bonus_stat_id")`,
    );
    this.addSql(
      `alter table "recipe_line" add column "bonus_share" double precision null, add column "bonus_stat_id" varchar(12) null`,
    );
    this.addSql(
      `alter table "recipe_line" add constraint "recipe_line_bonus_stat_id_foreign" foreign key ("pantry_id", "bonus_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(`create index "recipe_line_bonus_stat_id_index" on "recipe_line" ("pantry_id", "bonus_stat_id")`);
  }
}
