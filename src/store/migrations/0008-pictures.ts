/** pictures. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class Pictures extends Migration {
  override async up(): Promise<void> {
    this.addSql(
      `create table "picture" ("pantry_id" varchar(12) not null, "hash" varchar(24) not null, "type" varchar(20) not null, "bytes" bytea not null, constraint "picture_pkey" primary key ("pantry_id", "hash"))`,
    );
    this.addSql(
      `alter table "picture" add constraint "picture_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
  }
}
