/** scenarios. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class Scenarios extends Migration {
  override async up(): Promise<void> {
    this.addSql(
      `create table "scenario" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "edits" text not null, "note" text not null, constraint "scenario_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(
      `alter table "scenario" add constraint "scenario_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `alter table "scenario" add constraint "scenario_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
  }
}
