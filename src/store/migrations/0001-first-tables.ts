/** The first tables. Written once, never edited: later shapes are later migrations. */
import { Migration } from "@mikro-orm/migrations";

const UP = [
  `create table "pantry" ("id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "ticks_per_second" int not null, "labour_per_hour" double precision not null, "price_floor" double precision not null, "salvage_ceiling" double precision not null, "revision" int not null default 0, constraint "pantry_pkey" primary key ("id"))`,
  `alter table "pantry" add constraint "pantry_key_unique" unique ("key")`,
  `create table "currency" ("id" varchar(12) not null, "pantry_id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "symbol" varchar(12) not null, "worth" double precision not null, constraint "currency_pkey" primary key ("id"))`,
  `create index "currency_pantry_id_index" on "currency" ("pantry_id")`,
  `alter table "currency" add constraint "currency_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
  `create table "change_touch" ("pantry_id" varchar(12) not null, "revision" int not null, "record" varchar(12) not null, constraint "change_touch_pkey" primary key ("pantry_id", "revision", "record"))`,
  `create index "change_touch_record_index" on "change_touch" ("pantry_id", "record")`,
  `create table "change" ("pantry_id" varchar(12) not null, "revision" int not null, "author" varchar(80) not null, "at" timestamptz(3) not null, "note" text not null, "undoes" int null, "edits" jsonb not null, "size" int not null, "moved" jsonb null, constraint "change_pkey" primary key ("pantry_id", "revision"))`,
  `create table "rarity" ("id" varchar(12) not null, "pantry_id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "rank" int not null, "colour" varchar(7) not null, constraint "rarity_pkey" primary key ("id"))`,
  `create index "rarity_pantry_id_index" on "rarity" ("pantry_id")`,
  `alter table "rarity" add constraint "rarity_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
  `create table "recipe" ("id" varchar(12) not null, "pantry_id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "kind" varchar(10) not null, "ticks" bigint not null, "fee" double precision not null, "fee_currency_id" varchar(12) null, "status" varchar(10) not null, "note" text not null, constraint "recipe_pkey" primary key ("id"))`,
  `create index "recipe_pantry_id_index" on "recipe" ("pantry_id")`,
  `alter table "recipe" add constraint "recipe_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
  `create table "source" ("id" varchar(12) not null, "pantry_id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "kind" varchar(10) not null, "ticks" bigint not null, "price" double precision not null, "currency_id" varchar(12) null, "note" text not null, constraint "source_pkey" primary key ("id"))`,
  `create index "source_pantry_id_index" on "source" ("pantry_id")`,
  `alter table "source" add constraint "source_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
  `create table "stat" ("id" varchar(12) not null, "pantry_id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "unit" varchar(20) not null, "form" varchar(10) not null, "better" varchar(10) not null, "min" double precision null, "max" double precision null, constraint "stat_pkey" primary key ("id"))`,
  `create index "stat_pantry_id_index" on "stat" ("pantry_id")`,
  `alter table "stat" add constraint "stat_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
  `create table "tag" ("id" varchar(12) not null, "pantry_id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, constraint "tag_pkey" primary key ("id"))`,
  `create index "tag_pantry_id_index" on "tag" ("pantry_id")`,
  `alter table "tag" add constraint "tag_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
  `create table "item_type" ("id" varchar(12) not null, "pantry_id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "parent_id" varchar(12) null, "colour" varchar(7) not null, "level" int null, "icon" varchar(80) null, "stack" int null, "mass" double precision null, "buy" double precision null, "sell" double precision null, constraint "item_type_pkey" primary key ("id"))`,
  `create index "item_type_pantry_id_index" on "item_type" ("pantry_id")`,
  `alter table "item_type" add constraint "item_type_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
  `create table "item" ("id" varchar(12) not null, "pantry_id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "type_id" varchar(12) null, "rarity_id" varchar(12) null, "level" int null, "icon" varchar(80) null, "stack" int null, "mass" double precision null, "buy" double precision null, "sell" double precision null, "description" text not null, "status" varchar(10) not null, "note" text not null, constraint "item_pkey" primary key ("id"))`,
  `create index "item_pantry_id_index" on "item" ("pantry_id")`,
  `alter table "item" add constraint "item_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
  `create table "source_line" ("source_id" varchar(12) not null, "position" int not null, "role" varchar(10) not null, "item_id" varchar(12) not null, "min" double precision not null, "max" double precision not null, "chance" double precision not null, "uses" int null, constraint "source_line_pkey" primary key ("source_id", "position"))`,
  `create index "source_line_item_id_index" on "source_line" ("item_id")`,
  `create table "recipe_line" ("recipe_id" varchar(12) not null, "position" int not null, "role" varchar(10) not null, "item_id" varchar(12) not null, "min" double precision not null, "max" double precision not null, "chance" double precision not null, "uses" int null, constraint "recipe_line_pkey" primary key ("recipe_id", "position"))`,
  `create index "recipe_line_item_id_index" on "recipe_line" ("item_id")`,
  `create table "item_tag" ("item_id" varchar(12) not null, "tag_id" varchar(12) not null, "position" int not null, constraint "item_tag_pkey" primary key ("item_id", "tag_id"))`,
  `create table "item_stat" ("item_id" varchar(12) not null, "stat_id" varchar(12) not null, "value" double precision not null, constraint "item_stat_pkey" primary key ("item_id", "stat_id"))`,
  `create table "item_type_stat" ("type_id" varchar(12) not null, "stat_id" varchar(12) not null, "value" double precision not null, constraint "item_type_stat_pkey" primary key ("type_id", "stat_id"))`,
  `alter table "currency" add constraint "currency_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
  `alter table "change_touch" add constraint "change_touch_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
  `alter table "change" add constraint "change_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
  `alter table "rarity" add constraint "rarity_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
  `alter table "recipe" add constraint "recipe_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
  `alter table "recipe" add constraint "recipe_fee_currency_id_foreign" foreign key ("fee_currency_id") references "currency" ("id") on update cascade on delete no action deferrable initially deferred`,
  `alter table "source" add constraint "source_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
  `alter table "source" add constraint "source_currency_id_foreign" foreign key ("currency_id") references "currency" ("id") on update cascade on delete no action deferrable initially deferred`,
  `alter table "stat" add constraint "stat_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
  `alter table "tag" add constraint "tag_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
  `alter table "item_type" add constraint "item_type_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
  `alter table "item_type" add constraint "item_type_parent_id_foreign" foreign key ("parent_id") references "item_type" ("id") on update cascade on delete no action deferrable initially deferred`,
  `alter table "item" add constraint "item_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
  `alter table "item" add constraint "item_type_id_foreign" foreign key ("type_id") references "item_type" ("id") on update cascade on delete no action deferrable initially deferred`,
  `alter table "item" add constraint "item_rarity_id_foreign" foreign key ("rarity_id") references "rarity" ("id") on update cascade on delete no action deferrable initially deferred`,
  `alter table "source_line" add constraint "source_line_source_id_foreign" foreign key ("source_id") references "source" ("id") on update cascade on delete cascade deferrable initially deferred`,
  `alter table "source_line" add constraint "source_line_item_id_foreign" foreign key ("item_id") references "item" ("id") on update cascade deferrable initially deferred`,
  `alter table "recipe_line" add constraint "recipe_line_recipe_id_foreign" foreign key ("recipe_id") references "recipe" ("id") on update cascade on delete cascade deferrable initially deferred`,
  `alter table "recipe_line" add constraint "recipe_line_item_id_foreign" foreign key ("item_id") references "item" ("id") on update cascade deferrable initially deferred`,
  `alter table "item_tag" add constraint "item_tag_item_id_foreign" foreign key ("item_id") references "item" ("id") on update cascade on delete cascade deferrable initially deferred`,
  `alter table "item_tag" add constraint "item_tag_tag_id_foreign" foreign key ("tag_id") references "tag" ("id") on update cascade deferrable initially deferred`,
  `alter table "item_stat" add constraint "item_stat_item_id_foreign" foreign key ("item_id") references "item" ("id") on update cascade on delete cascade deferrable initially deferred`,
  `alter table "item_stat" add constraint "item_stat_stat_id_foreign" foreign key ("stat_id") references "stat" ("id") on update cascade deferrable initially deferred`,
  `alter table "item_type_stat" add constraint "item_type_stat_type_id_foreign" foreign key ("type_id") references "item_type" ("id") on update cascade on delete cascade deferrable initially deferred`,
  `alter table "item_type_stat" add constraint "item_type_stat_stat_id_foreign" foreign key ("stat_id") references "stat" ("id") on update cascade deferrable initially deferred`,
];

export class FirstTables extends Migration {
  override async up(): Promise<void> {
    for (const sql of UP) this.addSql(sql);
  }
  override async down(): Promise<void> {
    this.addSql(
      "drop table if exists change_touch, change, source_line, recipe_line, source, recipe, item_stat, item_tag, item, item_type_stat, item_type, tag, stat, rarity, currency, pantry cascade",
    );
  }
}
