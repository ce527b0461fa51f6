/** salvage by worth. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class SalvageByWorth extends Migration {
  override async up(): Promise<void> {
    this.addSql(`alter table "payback" add column "into_id" varchar(12) null`);
    this.addSql(
      `alter table "payback" add constraint "payback_into_id_foreign" foreign key ("pantry_id", "into_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(`create index "payback_into_id_index" on "payback" ("pantry_id", "into_id")`);
  }
}
