/** findings decided. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class FindingsDecided extends Migration {
  override async up(): Promise<void> {
    this.addSql(
      `create table "saved_point" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "revision" int not null, "note" text not null, constraint "saved_point_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(
      `alter table "saved_point" add constraint "saved_point_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "severity" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "severity" varchar(10) not null, "note" text not null, constraint "severity_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(
      `alter table "severity" add constraint "severity_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "decision" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "what" varchar(10) not null, "rule" varchar(40) not null, "scope" varchar(10) not null, "about" text not null, "nth" int not null, "type_id" varchar(12) null, "tag_id" varchar(12) null, "person" varchar(80) not null, "reason" text not null, "until_day" varchar(10) not null, "until_revision" int null, "at_most" double precision null, constraint "decision_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(`create index "decision_type_id_index" on "decision" ("pantry_id", "type_id")`);
    this.addSql(`create index "decision_tag_id_index" on "decision" ("pantry_id", "tag_id")`);
    this.addSql(
      `alter table "decision" add constraint "decision_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `alter table "saved_point" add constraint "saved_point_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "severity" add constraint "severity_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "decision" add constraint "decision_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "decision" add constraint "decision_type_id_foreign" foreign key ("pantry_id", "type_id") references "item_type" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "decision" add constraint "decision_tag_id_foreign" foreign key ("pantry_id", "tag_id") references "tag" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
  }
}
