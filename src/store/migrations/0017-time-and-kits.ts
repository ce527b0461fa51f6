/** time and kits. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class TimeAndKits extends Migration {
  override async up(): Promise<void> {
    this.addSql(
      `create table "item_type_carrying" ("pantry_id" varchar(12) not null, "type_id" varchar(12) not null, "condition_id" varchar(12) not null, "position" int not null, constraint "item_type_carrying_pkey" primary key ("pantry_id", "type_id", "condition_id"))`,
    );
    this.addSql(
      `create index "item_type_carrying_condition_id_index" on "item_type_carrying" ("pantry_id", "condition_id")`,
    );
    this.addSql(
      `create table "item_carrying" ("pantry_id" varchar(12) not null, "item_id" varchar(12) not null, "condition_id" varchar(12) not null, "position" int not null, constraint "item_carrying_pkey" primary key ("pantry_id", "item_id", "condition_id"))`,
    );
    this.addSql(`create index "item_carrying_condition_id_index" on "item_carrying" ("pantry_id", "condition_id")`);
    this.addSql(
      `create table "trial_station" ("pantry_id" varchar(12) not null, "trial_id" varchar(12) not null, "item_id" varchar(12) not null, "position" int not null, constraint "trial_station_pkey" primary key ("pantry_id", "trial_id", "item_id"))`,
    );
    this.addSql(`create index "trial_station_item_id_index" on "trial_station" ("pantry_id", "item_id")`);
    this.addSql(
      `alter table "item_type_carrying" add constraint "item_type_carrying_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_type_carrying" add constraint "item_type_carrying_type_id_foreign" foreign key ("pantry_id", "type_id") references "item_type" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_carrying" add constraint "item_type_carrying_condition_id_foreign" foreign key ("pantry_id", "condition_id") references "condition" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_carrying" add constraint "item_carrying_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_carrying" add constraint "item_carrying_item_id_foreign" foreign key ("pantry_id", "item_id") references "item" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_carrying" add constraint "item_carrying_condition_id_foreign" foreign key ("pantry_id", "condition_id") references "condition" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_station" add constraint "trial_station_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "trial_station" add constraint "trial_station_trial_id_foreign" foreign key ("pantry_id", "trial_id") references "trial" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_station" add constraint "trial_station_item_id_foreign" foreign key ("pantry_id", "item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(`alter table "currency" add column "most" double precision null`);
    this.addSql(`alter table "condition" add column "layers_end" varchar(12) not null default 'all together'`);
    this.addSql(`alter table "condition" alter column "layers_end" drop default`);
    this.addSql(`alter table "condition_pulse" add column "first" bigint null`);
    this.addSql(`alter table "situation" add column "overflow" varchar(10) null`);
    this.addSql(`alter table "source" add column "kit_id" varchar(12) null`);
    this.addSql(
      `alter table "source" add constraint "source_kit_id_foreign" foreign key ("pantry_id", "kit_id") references "subject" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(`create index "source_kit_id_index" on "source" ("pantry_id", "kit_id")`);
    this.addSql(
      `alter table "item_use_effect" add column "does_restore_first" bigint null, add column "does_drain_first" bigint null, add column "does_cost_resource_id" varchar(12) null, add column "does_cost_share" boolean null`,
    );
    this.addSql(
      `alter table "item_use_effect" add constraint "item_use_effect_does_cost_resource_id_foreign" foreign key ("pantry_id", "does_cost_resource_id") references "resource" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `create index "item_use_effect_does_cost_resource_id_index" on "item_use_effect" ("pantry_id", "does_cost_resource_id")`,
    );
    this.addSql(`alter table "trial" add column "at_hand" varchar(13) not null default 'every station'`);
    this.addSql(`alter table "trial" alter column "at_hand" drop default`);
    this.addSql(
      `alter table "trial_step" add column "does_swap_one" int null, add column "does_swap_other" int null, add column "does_expect_within" bigint null, add column "does_expect_by" bigint null, add column "does_expect_item_within" bigint null, add column "does_expect_item_by" bigint null, add column "does_expect_condition_within" bigint null, add column "does_expect_condition_by" bigint null`,
    );
  }
}
