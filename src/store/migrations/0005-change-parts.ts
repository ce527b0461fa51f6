/** The edits of a large change go on in rows of their own. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class ChangeParts extends Migration {
  override async up(): Promise<void> {
    this.addSql(
      `create table "change_part" ("pantry_id" varchar(12) not null, "revision" int not null, "part" int not null, "edits" jsonb not null, constraint "change_part_pkey" primary key ("pantry_id", "revision", "part"))`,
    );
    this.addSql(
      `alter table "change_part" add constraint "change_part_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
  }
}
