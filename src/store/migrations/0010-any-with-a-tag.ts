/** any with a tag. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class AnyWithATag extends Migration {
  override async up(): Promise<void> {
    this.addSql(`alter table "recipe_line" add column "any_id" varchar(12) null`);
    this.addSql(`alter table "recipe_line" alter column "item_id" type varchar(12) using ("item_id"::varchar(12))`);
    this.addSql(`alter table "recipe_line" alter column "item_id" drop not null`);
    this.addSql(
      `alter table "recipe_line" add constraint "recipe_line_any_id_foreign" foreign key ("pantry_id", "any_id") references "tag" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(`create index "recipe_line_any_id_index" on "recipe_line" ("pantry_id", "any_id")`);
  }
}
