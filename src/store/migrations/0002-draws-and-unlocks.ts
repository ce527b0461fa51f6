/** Weighted draws, and what unlocks a recipe. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

const LINES = ["recipe_line", "source_line"];

export class DrawsAndUnlocks extends Migration {
  override async up(): Promise<void> {
    for (const table of LINES)
      this.addSql(
        `alter table "${table}" add column "draw" int null, add column "times" int null, add column "weight" double precision null, add column "draw_of" double precision null`,
      );
    this.addSql(`alter table "recipe" add column "level" int null, add column "taught_by_id" varchar(12) null`);
    this.addSql(
      `alter table "recipe" add constraint "recipe_taught_by_id_foreign" foreign key ("taught_by_id") references "item" ("id") on update cascade on delete no action deferrable initially deferred`,
    );
  }
  override async down(): Promise<void> {
    this.addSql(`alter table "recipe" drop column "level", drop column "taught_by_id"`);
    for (const table of LINES)
      this.addSql(
        `alter table "${table}" drop column "draw", drop column "times", drop column "weight", drop column "draw_of"`,
      );
  }
}
