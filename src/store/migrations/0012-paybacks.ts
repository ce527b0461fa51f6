/** paybacks. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class Paybacks extends Migration {
  override async up(): Promise<void> {
    this.addSql(
      `create table "payback" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "type_id" varchar(12) null, "share" double precision not null, "rounding" varchar(10) not null, "least" int not null, "tool_id" varchar(12) null, "note" text not null, constraint "payback_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(`create index "payback_type_id_index" on "payback" ("pantry_id", "type_id")`);
    this.addSql(`create index "payback_tool_id_index" on "payback" ("pantry_id", "tool_id")`);
    this.addSql(
      `alter table "payback" add constraint "payback_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `alter table "payback" add constraint "payback_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "payback" add constraint "payback_type_id_foreign" foreign key ("pantry_id", "type_id") references "item_type" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "payback" add constraint "payback_tool_id_foreign" foreign key ("pantry_id", "tool_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
  }
}
