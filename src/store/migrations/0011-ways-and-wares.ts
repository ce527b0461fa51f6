/** ways and wares. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class WaysAndWares extends Migration {
  override async up(): Promise<void> {
    this.addSql(
      `create table "source_table" ("pantry_id" varchar(12) not null, "source_id" varchar(12) not null, "position" int not null, "table_id" varchar(12) not null, "times" int not null, constraint "source_table_pkey" primary key ("pantry_id", "source_id", "position"))`,
    );
    this.addSql(`create index "source_table_table_id_index" on "source_table" ("pantry_id", "table_id")`);
    this.addSql(
      `create table "source_ware" ("pantry_id" varchar(12) not null, "source_id" varchar(12) not null, "position" int not null, "item_id" varchar(12) not null, "amount" double precision not null, "price" double precision not null, "currency_id" varchar(12) null, "stock" int null, "restock" bigint null, "level" int null, constraint "source_ware_pkey" primary key ("pantry_id", "source_id", "position"))`,
    );
    this.addSql(`create index "source_ware_item_id_index" on "source_ware" ("pantry_id", "item_id")`);
    this.addSql(`create index "source_ware_currency_id_index" on "source_ware" ("pantry_id", "currency_id")`);
    this.addSql(
      `create table "recipe_variant" ("pantry_id" varchar(12) not null, "recipe_id" varchar(12) not null, "position" int not null, "name" varchar(120) not null, "ticks" bigint null, "heat" bigint null, "fee" double precision null, "fee_currency_id" varchar(12) null, "level" int null, "taught_by_id" varchar(12) null, constraint "recipe_variant_pkey" primary key ("pantry_id", "recipe_id", "position"))`,
    );
    this.addSql(
      `create index "recipe_variant_fee_currency_id_index" on "recipe_variant" ("pantry_id", "fee_currency_id")`,
    );
    this.addSql(`create index "recipe_variant_taught_by_id_index" on "recipe_variant" ("pantry_id", "taught_by_id")`);
    this.addSql(
      `create table "recipe_variant_line" ("pantry_id" varchar(12) not null, "recipe_id" varchar(12) not null, "variant_position" int not null, "position" int not null, "role" varchar(10) not null, "item_id" varchar(12) null, "any_id" varchar(12) null, "min" double precision not null, "max" double precision not null, "chance" double precision not null, "uses" int null, "draw_group" int null, "draw_times" int null, "draw_weight" double precision null, "draw_of" double precision null, "whole" boolean null, "cells" int null, constraint "recipe_variant_line_pkey" primary key ("pantry_id", "recipe_id", "variant_position", "position"))`,
    );
    this.addSql(`create index "recipe_variant_line_item_id_index" on "recipe_variant_line" ("pantry_id", "item_id")`);
    this.addSql(`create index "recipe_variant_line_any_id_index" on "recipe_variant_line" ("pantry_id", "any_id")`);
    this.addSql(
      `create table "recipe_table" ("pantry_id" varchar(12) not null, "recipe_id" varchar(12) not null, "position" int not null, "table_id" varchar(12) not null, "times" int not null, constraint "recipe_table_pkey" primary key ("pantry_id", "recipe_id", "position"))`,
    );
    this.addSql(`create index "recipe_table_table_id_index" on "recipe_table" ("pantry_id", "table_id")`);
    this.addSql(
      `alter table "source_table" add constraint "source_table_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "source_table" add constraint "source_table_source_id_foreign" foreign key ("pantry_id", "source_id") references "source" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "source_table" add constraint "source_table_table_id_foreign" foreign key ("pantry_id", "table_id") references "chance_table" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "source_ware" add constraint "source_ware_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "source_ware" add constraint "source_ware_source_id_foreign" foreign key ("pantry_id", "source_id") references "source" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "source_ware" add constraint "source_ware_item_id_foreign" foreign key ("pantry_id", "item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "source_ware" add constraint "source_ware_currency_id_foreign" foreign key ("pantry_id", "currency_id") references "currency" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_variant" add constraint "recipe_variant_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "recipe_variant" add constraint "recipe_variant_recipe_id_foreign" foreign key ("pantry_id", "recipe_id") references "recipe" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_variant" add constraint "recipe_variant_fee_currency_id_foreign" foreign key ("pantry_id", "fee_currency_id") references "currency" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_variant" add constraint "recipe_variant_taught_by_id_foreign" foreign key ("pantry_id", "taught_by_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_variant_line" add constraint "recipe_variant_line_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "recipe_variant_line" add constraint "recipe_variant_line_variant_position_foreign" foreign key ("pantry_id", "recipe_id", "variant_position") references "recipe_variant" ("pantry_id", "recipe_id", "position") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_variant_line" add constraint "recipe_variant_line_item_id_foreign" foreign key ("pantry_id", "item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_variant_line" add constraint "recipe_variant_line_any_id_foreign" foreign key ("pantry_id", "any_id") references "tag" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_table" add constraint "recipe_table_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "recipe_table" add constraint "recipe_table_recipe_id_foreign" foreign key ("pantry_id", "recipe_id") references "recipe" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_table" add constraint "recipe_table_table_id_foreign" foreign key ("pantry_id", "table_id") references "chance_table" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "source" add column "level" int null, add column "runs" int null, add column "share" double precision null`,
    );
    this.addSql(
      `alter table "item" add column "vessel_id" varchar(12) null, add column "burns" bigint null, add column "ash_id" varchar(12) null, add column "fuel_id" varchar(12) null, add column "pace" double precision null, add column "extra" double precision null`,
    );
    this.addSql(
      `alter table "item" add constraint "item_vessel_id_foreign" foreign key ("pantry_id", "vessel_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item" add constraint "item_ash_id_foreign" foreign key ("pantry_id", "ash_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item" add constraint "item_fuel_id_foreign" foreign key ("pantry_id", "fuel_id") references "tag" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(`create index "item_vessel_id_index" on "item" ("pantry_id", "vessel_id")`);
    this.addSql(`create index "item_ash_id_index" on "item" ("pantry_id", "ash_id")`);
    this.addSql(`create index "item_fuel_id_index" on "item" ("pantry_id", "fuel_id")`);
    this.addSql(
      `alter table "recipe" add column "grid_width" int not null default 0, add column "grid_height" int not null default 0, add column "grid_shifted" boolean not null default false, add column "grid_mirrored" boolean not null default false, add column "grid_turned" boolean not null default false, add column "heat" bigint not null default 0`,
    );
    this.addSql(`alter table "recipe" alter column "grid_width" drop default`);
    this.addSql(`alter table "recipe" alter column "grid_height" drop default`);
    this.addSql(`alter table "recipe" alter column "grid_shifted" drop default`);
    this.addSql(`alter table "recipe" alter column "grid_mirrored" drop default`);
    this.addSql(`alter table "recipe" alter column "grid_turned" drop default`);
    this.addSql(`alter table "recipe" alter column "heat" drop default`);
    this.addSql(`alter table "recipe_line" add column "whole" boolean null, add column "cells" int null`);
    this.addSql(
      `alter table "item_type" add column "vessel_id" varchar(12) null, add column "burns" bigint null, add column "ash_id" varchar(12) null, add column "fuel_id" varchar(12) null, add column "pace" double precision null, add column "extra" double precision null`,
    );
    this.addSql(
      `alter table "item_type" add constraint "item_type_vessel_id_foreign" foreign key ("pantry_id", "vessel_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type" add constraint "item_type_ash_id_foreign" foreign key ("pantry_id", "ash_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type" add constraint "item_type_fuel_id_foreign" foreign key ("pantry_id", "fuel_id") references "tag" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(`create index "item_type_vessel_id_index" on "item_type" ("pantry_id", "vessel_id")`);
    this.addSql(`create index "item_type_ash_id_index" on "item_type" ("pantry_id", "ash_id")`);
    this.addSql(`create index "item_type_fuel_id_index" on "item_type" ("pantry_id", "fuel_id")`);
  }
}
