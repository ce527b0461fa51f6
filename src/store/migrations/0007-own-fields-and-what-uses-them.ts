/** own fields and what uses them. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class OwnFieldsAndWhatUsesThem extends Migration {
  override async up(): Promise<void> {
    this.addSql(
      `create table "mapping" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "of" varchar(10) not null, "columns" text not null, "decimal" varchar(10) not null, "note" text not null, constraint "mapping_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(
      `alter table "mapping" add constraint "mapping_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "saved_view" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "query" varchar(2000) not null, "columns" varchar(4000) not null, "order" varchar(400) not null, "note" text not null, constraint "saved_view_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(
      `alter table "saved_view" add constraint "saved_view_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "series" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "first_id" varchar(12) null, "names" varchar(120) not null, "recipe" varchar(500) not null, "note" text not null, constraint "series_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(`create index "series_first_id_index" on "series" ("pantry_id", "first_id")`);
    this.addSql(
      `alter table "series" add constraint "series_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "series_word" ("pantry_id" varchar(12) not null, "series_id" varchar(12) not null, "position" int not null, "word" varchar(60) not null, constraint "series_word_pkey" primary key ("pantry_id", "series_id", "position"))`,
    );
    this.addSql(
      `create table "series_step" ("pantry_id" varchar(12) not null, "series_id" varchar(12) not null, "position" int not null, "item_id" varchar(12) not null, constraint "series_step_pkey" primary key ("pantry_id", "series_id", "position"))`,
    );
    this.addSql(`create index "series_step_item_id_index" on "series_step" ("pantry_id", "item_id")`);
    this.addSql(
      `create table "item_type_measure" ("pantry_id" varchar(12) not null, "type_id" varchar(12) not null, "stat_id" varchar(12) not null, "value_required" boolean null, "value_min" double precision null, "value_max" double precision null, constraint "item_type_measure_pkey" primary key ("pantry_id", "type_id", "stat_id"))`,
    );
    this.addSql(`create index "item_type_measure_stat_id_index" on "item_type_measure" ("pantry_id", "stat_id")`);
    this.addSql(
      `create table "field" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "of" varchar(10) not null, "form" varchar(10) not null, "unit" varchar(20) not null, "to" varchar(10) not null, "of_type_id" varchar(12) null, "of_tag_id" varchar(12) null, "min" double precision null, "max" double precision null, "everywhere" boolean not null, "required" boolean not null, "shown" boolean not null, "order" int not null, "help" varchar(300) not null, constraint "field_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(`create index "field_of_type_id_index" on "field" ("pantry_id", "of_type_id")`);
    this.addSql(`create index "field_of_tag_id_index" on "field" ("pantry_id", "of_tag_id")`);
    this.addSql(
      `alter table "field" add constraint "field_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "tag_own" ("pantry_id" varchar(12) not null, "tag_id" varchar(12) not null, "field_id" varchar(12) not null, "value_text" text null, "value_number" double precision null, "value_flag" boolean null, constraint "tag_own_pkey" primary key ("pantry_id", "tag_id", "field_id"))`,
    );
    this.addSql(`create index "tag_own_field_id_index" on "tag_own" ("pantry_id", "field_id")`);
    this.addSql(
      `create table "tag_own_link" ("pantry_id" varchar(12) not null, "tag_id" varchar(12) not null, "own_field_id" varchar(12) not null, "position" int not null, "amount" double precision not null, "to_item_id" varchar(12) null, "to_type_id" varchar(12) null, "to_rarity_id" varchar(12) null, "to_stat_id" varchar(12) null, "to_tag_id" varchar(12) null, "to_currency_id" varchar(12) null, "to_slot_id" varchar(12) null, "to_cooldown_id" varchar(12) null, "to_situation_id" varchar(12) null, constraint "tag_own_link_pkey" primary key ("pantry_id", "tag_id", "own_field_id", "position"))`,
    );
    this.addSql(`create index "tag_own_link_to_item_id_index" on "tag_own_link" ("pantry_id", "to_item_id")`);
    this.addSql(`create index "tag_own_link_to_type_id_index" on "tag_own_link" ("pantry_id", "to_type_id")`);
    this.addSql(`create index "tag_own_link_to_rarity_id_index" on "tag_own_link" ("pantry_id", "to_rarity_id")`);
    this.addSql(`create index "tag_own_link_to_stat_id_index" on "tag_own_link" ("pantry_id", "to_stat_id")`);
    this.addSql(`create index "tag_own_link_to_tag_id_index" on "tag_own_link" ("pantry_id", "to_tag_id")`);
    this.addSql(`create index "tag_own_link_to_currency_id_index" on "tag_own_link" ("pantry_id", "to_currency_id")`);
    this.addSql(`create index "tag_own_link_to_slot_id_index" on "tag_own_link" ("pantry_id", "to_slot_id")`);
    this.addSql(`create index "tag_own_link_to_cooldown_id_index" on "tag_own_link" ("pantry_id", "to_cooldown_id")`);
    this.addSql(`create index "tag_own_link_to_situation_id_index" on "tag_own_link" ("pantry_id", "to_situation_id")`);
    this.addSql(
      `create table "source_own" ("pantry_id" varchar(12) not null, "source_id" varchar(12) not null, "field_id" varchar(12) not null, "value_text" text null, "value_number" double precision null, "value_flag" boolean null, constraint "source_own_pkey" primary key ("pantry_id", "source_id", "field_id"))`,
    );
    this.addSql(`create index "source_own_field_id_index" on "source_own" ("pantry_id", "field_id")`);
    this.addSql(
      `create table "source_own_link" ("pantry_id" varchar(12) not null, "source_id" varchar(12) not null, "own_field_id" varchar(12) not null, "position" int not null, "amount" double precision not null, "to_item_id" varchar(12) null, "to_type_id" varchar(12) null, "to_rarity_id" varchar(12) null, "to_stat_id" varchar(12) null, "to_tag_id" varchar(12) null, "to_currency_id" varchar(12) null, "to_slot_id" varchar(12) null, "to_cooldown_id" varchar(12) null, "to_situation_id" varchar(12) null, constraint "source_own_link_pkey" primary key ("pantry_id", "source_id", "own_field_id", "position"))`,
    );
    this.addSql(`create index "source_own_link_to_item_id_index" on "source_own_link" ("pantry_id", "to_item_id")`);
    this.addSql(`create index "source_own_link_to_type_id_index" on "source_own_link" ("pantry_id", "to_type_id")`);
    this.addSql(`create index "source_own_link_to_rarity_id_index" on "source_own_link" ("pantry_id", "to_rarity_id")`);
    this.addSql(`create index "source_own_link_to_stat_id_index" on "source_own_link" ("pantry_id", "to_stat_id")`);
    this.addSql(`create index "source_own_link_to_tag_id_index" on "source_own_link" ("pantry_id", "to_tag_id")`);
    this.addSql(
      `create index "source_own_link_to_currency_id_index" on "source_own_link" ("pantry_id", "to_currency_id")`,
    );
    this.addSql(`create index "source_own_link_to_slot_id_index" on "source_own_link" ("pantry_id", "to_slot_id")`);
    this.addSql(
      `create index "source_own_link_to_cooldown_id_index" on "source_own_link" ("pantry_id", "to_cooldown_id")`,
    );
    this.addSql(
      `create index "source_own_link_to_situation_id_index" on "source_own_link" ("pantry_id", "to_situation_id")`,
    );
    this.addSql(
      `create table "slot_own" ("pantry_id" varchar(12) not null, "slot_id" varchar(12) not null, "field_id" varchar(12) not null, "value_text" text null, "value_number" double precision null, "value_flag" boolean null, constraint "slot_own_pkey" primary key ("pantry_id", "slot_id", "field_id"))`,
    );
    this.addSql(`create index "slot_own_field_id_index" on "slot_own" ("pantry_id", "field_id")`);
    this.addSql(
      `create table "slot_own_link" ("pantry_id" varchar(12) not null, "slot_id" varchar(12) not null, "own_field_id" varchar(12) not null, "position" int not null, "amount" double precision not null, "to_item_id" varchar(12) null, "to_type_id" varchar(12) null, "to_rarity_id" varchar(12) null, "to_stat_id" varchar(12) null, "to_tag_id" varchar(12) null, "to_currency_id" varchar(12) null, "to_slot_id" varchar(12) null, "to_cooldown_id" varchar(12) null, "to_situation_id" varchar(12) null, constraint "slot_own_link_pkey" primary key ("pantry_id", "slot_id", "own_field_id", "position"))`,
    );
    this.addSql(`create index "slot_own_link_to_item_id_index" on "slot_own_link" ("pantry_id", "to_item_id")`);
    this.addSql(`create index "slot_own_link_to_type_id_index" on "slot_own_link" ("pantry_id", "to_type_id")`);
    this.addSql(`create index "slot_own_link_to_rarity_id_index" on "slot_own_link" ("pantry_id", "to_rarity_id")`);
    this.addSql(`create index "slot_own_link_to_stat_id_index" on "slot_own_link" ("pantry_id", "to_stat_id")`);
    this.addSql(`create index "slot_own_link_to_tag_id_index" on "slot_own_link" ("pantry_id", "to_tag_id")`);
    this.addSql(`create index "slot_own_link_to_currency_id_index" on "slot_own_link" ("pantry_id", "to_currency_id")`);
    this.addSql(`create index "slot_own_link_to_slot_id_index" on "slot_own_link" ("pantry_id", "to_slot_id")`);
    this.addSql(`create index "slot_own_link_to_cooldown_id_index" on "slot_own_link" ("pantry_id", "to_cooldown_id")`);
    this.addSql(
      `create index "slot_own_link_to_situation_id_index" on "slot_own_link" ("pantry_id", "to_situation_id")`,
    );
    this.addSql(
      `create table "situation_own" ("pantry_id" varchar(12) not null, "situation_id" varchar(12) not null, "field_id" varchar(12) not null, "value_text" text null, "value_number" double precision null, "value_flag" boolean null, constraint "situation_own_pkey" primary key ("pantry_id", "situation_id", "field_id"))`,
    );
    this.addSql(`create index "situation_own_field_id_index" on "situation_own" ("pantry_id", "field_id")`);
    this.addSql(
      `create table "situation_own_link" ("pantry_id" varchar(12) not null, "situation_id" varchar(12) not null, "own_field_id" varchar(12) not null, "position" int not null, "amount" double precision not null, "to_item_id" varchar(12) null, "to_type_id" varchar(12) null, "to_rarity_id" varchar(12) null, "to_stat_id" varchar(12) null, "to_tag_id" varchar(12) null, "to_currency_id" varchar(12) null, "to_slot_id" varchar(12) null, "to_cooldown_id" varchar(12) null, "to_situation_id" varchar(12) null, constraint "situation_own_link_pkey" primary key ("pantry_id", "situation_id", "own_field_id", "position"))`,
    );
    this.addSql(
      `create index "situation_own_link_to_item_id_index" on "situation_own_link" ("pantry_id", "to_item_id")`,
    );
    this.addSql(
      `create index "situation_own_link_to_type_id_index" on "situation_own_link" ("pantry_id", "to_type_id")`,
    );
    this.addSql(
      `create index "situation_own_link_to_rarity_id_index" on "situation_own_link" ("pantry_id", "to_rarity_id")`,
    );
    this.addSql(
      `create index "situation_own_link_to_stat_id_index" on "situation_own_link" ("pantry_id", "to_stat_id")`,
    );
    this.addSql(`create index "situation_own_link_to_tag_id_index" on "situation_own_link" ("pantry_id", "to_tag_id")`);
    this.addSql(
      `create index "situation_own_link_to_currency_id_index" on "situation_own_link" ("pantry_id", "to_currency_id")`,
    );
    this.addSql(
      `create index "situation_own_link_to_slot_id_index" on "situation_own_link" ("pantry_id", "to_slot_id")`,
    );
    this.addSql(
      `create index "situation_own_link_to_cooldown_id_index" on "situation_own_link" ("pantry_id", "to_cooldown_id")`,
    );
    this.addSql(
      `create index "situation_own_link_to_situation_id_index" on "situation_own_link" ("pantry_id", "to_situation_id")`,
    );
    this.addSql(
      `create table "series_rule" ("pantry_id" varchar(12) not null, "series_id" varchar(12) not null, "position" int not null, "field" varchar(40) not null, "stat_id" varchar(12) null, "own_id" varchar(12) null, "how" varchar(10) not null, "by" varchar(500) not null, "round" double precision null, constraint "series_rule_pkey" primary key ("pantry_id", "series_id", "position"))`,
    );
    this.addSql(`create index "series_rule_stat_id_index" on "series_rule" ("pantry_id", "stat_id")`);
    this.addSql(`create index "series_rule_own_id_index" on "series_rule" ("pantry_id", "own_id")`);
    this.addSql(
      `create table "recipe_own" ("pantry_id" varchar(12) not null, "recipe_id" varchar(12) not null, "field_id" varchar(12) not null, "value_text" text null, "value_number" double precision null, "value_flag" boolean null, constraint "recipe_own_pkey" primary key ("pantry_id", "recipe_id", "field_id"))`,
    );
    this.addSql(`create index "recipe_own_field_id_index" on "recipe_own" ("pantry_id", "field_id")`);
    this.addSql(
      `create table "recipe_own_link" ("pantry_id" varchar(12) not null, "recipe_id" varchar(12) not null, "own_field_id" varchar(12) not null, "position" int not null, "amount" double precision not null, "to_item_id" varchar(12) null, "to_type_id" varchar(12) null, "to_rarity_id" varchar(12) null, "to_stat_id" varchar(12) null, "to_tag_id" varchar(12) null, "to_currency_id" varchar(12) null, "to_slot_id" varchar(12) null, "to_cooldown_id" varchar(12) null, "to_situation_id" varchar(12) null, constraint "recipe_own_link_pkey" primary key ("pantry_id", "recipe_id", "own_field_id", "position"))`,
    );
    this.addSql(`create index "recipe_own_link_to_item_id_index" on "recipe_own_link" ("pantry_id", "to_item_id")`);
    this.addSql(`create index "recipe_own_link_to_type_id_index" on "recipe_own_link" ("pantry_id", "to_type_id")`);
    this.addSql(`create index "recipe_own_link_to_rarity_id_index" on "recipe_own_link" ("pantry_id", "to_rarity_id")`);
    this.addSql(`create index "recipe_own_link_to_stat_id_index" on "recipe_own_link" ("pantry_id", "to_stat_id")`);
    this.addSql(`create index "recipe_own_link_to_tag_id_index" on "recipe_own_link" ("pantry_id", "to_tag_id")`);
    this.addSql(
      `create index "recipe_own_link_to_currency_id_index" on "recipe_own_link" ("pantry_id", "to_currency_id")`,
    );
    this.addSql(`create index "recipe_own_link_to_slot_id_index" on "recipe_own_link" ("pantry_id", "to_slot_id")`);
    this.addSql(
      `create index "recipe_own_link_to_cooldown_id_index" on "recipe_own_link" ("pantry_id", "to_cooldown_id")`,
    );
    this.addSql(
      `create index "recipe_own_link_to_situation_id_index" on "recipe_own_link" ("pantry_id", "to_situation_id")`,
    );
    this.addSql(
      `create table "rarity_own" ("pantry_id" varchar(12) not null, "rarity_id" varchar(12) not null, "field_id" varchar(12) not null, "value_text" text null, "value_number" double precision null, "value_flag" boolean null, constraint "rarity_own_pkey" primary key ("pantry_id", "rarity_id", "field_id"))`,
    );
    this.addSql(`create index "rarity_own_field_id_index" on "rarity_own" ("pantry_id", "field_id")`);
    this.addSql(
      `create table "rarity_own_link" ("pantry_id" varchar(12) not null, "rarity_id" varchar(12) not null, "own_field_id" varchar(12) not null, "position" int not null, "amount" double precision not null, "to_item_id" varchar(12) null, "to_type_id" varchar(12) null, "to_rarity_id" varchar(12) null, "to_stat_id" varchar(12) null, "to_tag_id" varchar(12) null, "to_currency_id" varchar(12) null, "to_slot_id" varchar(12) null, "to_cooldown_id" varchar(12) null, "to_situation_id" varchar(12) null, constraint "rarity_own_link_pkey" primary key ("pantry_id", "rarity_id", "own_field_id", "position"))`,
    );
    this.addSql(`create index "rarity_own_link_to_item_id_index" on "rarity_own_link" ("pantry_id", "to_item_id")`);
    this.addSql(`create index "rarity_own_link_to_type_id_index" on "rarity_own_link" ("pantry_id", "to_type_id")`);
    this.addSql(`create index "rarity_own_link_to_rarity_id_index" on "rarity_own_link" ("pantry_id", "to_rarity_id")`);
    this.addSql(`create index "rarity_own_link_to_stat_id_index" on "rarity_own_link" ("pantry_id", "to_stat_id")`);
    this.addSql(`create index "rarity_own_link_to_tag_id_index" on "rarity_own_link" ("pantry_id", "to_tag_id")`);
    this.addSql(
      `create index "rarity_own_link_to_currency_id_index" on "rarity_own_link" ("pantry_id", "to_currency_id")`,
    );
    this.addSql(`create index "rarity_own_link_to_slot_id_index" on "rarity_own_link" ("pantry_id", "to_slot_id")`);
    this.addSql(
      `create index "rarity_own_link_to_cooldown_id_index" on "rarity_own_link" ("pantry_id", "to_cooldown_id")`,
    );
    this.addSql(
      `create index "rarity_own_link_to_situation_id_index" on "rarity_own_link" ("pantry_id", "to_situation_id")`,
    );
    this.addSql(
      `create table "item_type_take" ("pantry_id" varchar(12) not null, "type_id" varchar(12) not null, "field_id" varchar(12) not null, "value_required" boolean null, "value_min" double precision null, "value_max" double precision null, constraint "item_type_take_pkey" primary key ("pantry_id", "type_id", "field_id"))`,
    );
    this.addSql(`create index "item_type_take_field_id_index" on "item_type_take" ("pantry_id", "field_id")`);
    this.addSql(
      `create table "item_type_own" ("pantry_id" varchar(12) not null, "type_id" varchar(12) not null, "field_id" varchar(12) not null, "value_text" text null, "value_number" double precision null, "value_flag" boolean null, constraint "item_type_own_pkey" primary key ("pantry_id", "type_id", "field_id"))`,
    );
    this.addSql(`create index "item_type_own_field_id_index" on "item_type_own" ("pantry_id", "field_id")`);
    this.addSql(
      `create table "item_type_own_link" ("pantry_id" varchar(12) not null, "type_id" varchar(12) not null, "own_field_id" varchar(12) not null, "position" int not null, "amount" double precision not null, "to_item_id" varchar(12) null, "to_type_id" varchar(12) null, "to_rarity_id" varchar(12) null, "to_stat_id" varchar(12) null, "to_tag_id" varchar(12) null, "to_currency_id" varchar(12) null, "to_slot_id" varchar(12) null, "to_cooldown_id" varchar(12) null, "to_situation_id" varchar(12) null, constraint "item_type_own_link_pkey" primary key ("pantry_id", "type_id", "own_field_id", "position"))`,
    );
    this.addSql(
      `create index "item_type_own_link_to_item_id_index" on "item_type_own_link" ("pantry_id", "to_item_id")`,
    );
    this.addSql(
      `create index "item_type_own_link_to_type_id_index" on "item_type_own_link" ("pantry_id", "to_type_id")`,
    );
    this.addSql(
      `create index "item_type_own_link_to_rarity_id_index" on "item_type_own_link" ("pantry_id", "to_rarity_id")`,
    );
    this.addSql(
      `create index "item_type_own_link_to_stat_id_index" on "item_type_own_link" ("pantry_id", "to_stat_id")`,
    );
    this.addSql(`create index "item_type_own_link_to_tag_id_index" on "item_type_own_link" ("pantry_id", "to_tag_id")`);
    this.addSql(
      `create index "item_type_own_link_to_currency_id_index" on "item_type_own_link" ("pantry_id", "to_currency_id")`,
    );
    this.addSql(
      `create index "item_type_own_link_to_slot_id_index" on "item_type_own_link" ("pantry_id", "to_slot_id")`,
    );
    this.addSql(
      `create index "item_type_own_link_to_cooldown_id_index" on "item_type_own_link" ("pantry_id", "to_cooldown_id")`,
    );
    this.addSql(
      `create index "item_type_own_link_to_situation_id_index" on "item_type_own_link" ("pantry_id", "to_situation_id")`,
    );
    this.addSql(
      `create table "item_own" ("pantry_id" varchar(12) not null, "item_id" varchar(12) not null, "field_id" varchar(12) not null, "value_text" text null, "value_number" double precision null, "value_flag" boolean null, constraint "item_own_pkey" primary key ("pantry_id", "item_id", "field_id"))`,
    );
    this.addSql(`create index "item_own_field_id_index" on "item_own" ("pantry_id", "field_id")`);
    this.addSql(
      `create table "item_own_link" ("pantry_id" varchar(12) not null, "item_id" varchar(12) not null, "own_field_id" varchar(12) not null, "position" int not null, "amount" double precision not null, "to_item_id" varchar(12) null, "to_type_id" varchar(12) null, "to_rarity_id" varchar(12) null, "to_stat_id" varchar(12) null, "to_tag_id" varchar(12) null, "to_currency_id" varchar(12) null, "to_slot_id" varchar(12) null, "to_cooldown_id" varchar(12) null, "to_situation_id" varchar(12) null, constraint "item_own_link_pkey" primary key ("pantry_id", "item_id", "own_field_id", "position"))`,
    );
    this.addSql(`create index "item_own_link_to_item_id_index" on "item_own_link" ("pantry_id", "to_item_id")`);
    this.addSql(`create index "item_own_link_to_type_id_index" on "item_own_link" ("pantry_id", "to_type_id")`);
    this.addSql(`create index "item_own_link_to_rarity_id_index" on "item_own_link" ("pantry_id", "to_rarity_id")`);
    this.addSql(`create index "item_own_link_to_stat_id_index" on "item_own_link" ("pantry_id", "to_stat_id")`);
    this.addSql(`create index "item_own_link_to_tag_id_index" on "item_own_link" ("pantry_id", "to_tag_id")`);
    this.addSql(`create index "item_own_link_to_currency_id_index" on "item_own_link" ("pantry_id", "to_currency_id")`);
    this.addSql(`create index "item_own_link_to_slot_id_index" on "item_own_link" ("pantry_id", "to_slot_id")`);
    this.addSql(`create index "item_own_link_to_cooldown_id_index" on "item_own_link" ("pantry_id", "to_cooldown_id")`);
    this.addSql(
      `create index "item_own_link_to_situation_id_index" on "item_own_link" ("pantry_id", "to_situation_id")`,
    );
    this.addSql(
      `create table "field_option" ("pantry_id" varchar(12) not null, "field_id" varchar(12) not null, "position" int not null, "word" varchar(60) not null, constraint "field_option_pkey" primary key ("pantry_id", "field_id", "position"))`,
    );
    this.addSql(
      `create table "currency_own" ("pantry_id" varchar(12) not null, "currency_id" varchar(12) not null, "field_id" varchar(12) not null, "value_text" text null, "value_number" double precision null, "value_flag" boolean null, constraint "currency_own_pkey" primary key ("pantry_id", "currency_id", "field_id"))`,
    );
    this.addSql(`create index "currency_own_field_id_index" on "currency_own" ("pantry_id", "field_id")`);
    this.addSql(
      `create table "currency_own_link" ("pantry_id" varchar(12) not null, "currency_id" varchar(12) not null, "own_field_id" varchar(12) not null, "position" int not null, "amount" double precision not null, "to_item_id" varchar(12) null, "to_type_id" varchar(12) null, "to_rarity_id" varchar(12) null, "to_stat_id" varchar(12) null, "to_tag_id" varchar(12) null, "to_currency_id" varchar(12) null, "to_slot_id" varchar(12) null, "to_cooldown_id" varchar(12) null, "to_situation_id" varchar(12) null, constraint "currency_own_link_pkey" primary key ("pantry_id", "currency_id", "own_field_id", "position"))`,
    );
    this.addSql(`create index "currency_own_link_to_item_id_index" on "currency_own_link" ("pantry_id", "to_item_id")`);
    this.addSql(`create index "currency_own_link_to_type_id_index" on "currency_own_link" ("pantry_id", "to_type_id")`);
    this.addSql(
      `create index "currency_own_link_to_rarity_id_index" on "currency_own_link" ("pantry_id", "to_rarity_id")`,
    );
    this.addSql(`create index "currency_own_link_to_stat_id_index" on "currency_own_link" ("pantry_id", "to_stat_id")`);
    this.addSql(`create index "currency_own_link_to_tag_id_index" on "currency_own_link" ("pantry_id", "to_tag_id")`);
    this.addSql(
      `create index "currency_own_link_to_currency_id_index" on "currency_own_link" ("pantry_id", "to_currency_id")`,
    );
    this.addSql(`create index "currency_own_link_to_slot_id_index" on "currency_own_link" ("pantry_id", "to_slot_id")`);
    this.addSql(
      `create index "currency_own_link_to_cooldown_id_index" on "currency_own_link" ("pantry_id", "to_cooldown_id")`,
    );
    this.addSql(
      `create index "currency_own_link_to_situation_id_index" on "currency_own_link" ("pantry_id", "to_situation_id")`,
    );
    this.addSql(
      `create table "wordlist" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "note" text not null, constraint "wordlist_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(
      `alter table "wordlist" add constraint "wordlist_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "wordlist_word" ("pantry_id" varchar(12) not null, "wordlist_id" varchar(12) not null, "position" int not null, "word" varchar(60) not null, constraint "wordlist_word_pkey" primary key ("pantry_id", "wordlist_id", "position"))`,
    );
    this.addSql(
      `alter table "mapping" add constraint "mapping_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "saved_view" add constraint "saved_view_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "series" add constraint "series_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "series" add constraint "series_first_id_foreign" foreign key ("pantry_id", "first_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "series_word" add constraint "series_word_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "series_word" add constraint "series_word_series_id_foreign" foreign key ("pantry_id", "series_id") references "series" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "series_step" add constraint "series_step_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "series_step" add constraint "series_step_series_id_foreign" foreign key ("pantry_id", "series_id") references "series" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "series_step" add constraint "series_step_item_id_foreign" foreign key ("pantry_id", "item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_measure" add constraint "item_type_measure_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_type_measure" add constraint "item_type_measure_type_id_foreign" foreign key ("pantry_id", "type_id") references "item_type" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_measure" add constraint "item_type_measure_stat_id_foreign" foreign key ("pantry_id", "stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "field" add constraint "field_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "field" add constraint "field_of_type_id_foreign" foreign key ("pantry_id", "of_type_id") references "item_type" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "field" add constraint "field_of_tag_id_foreign" foreign key ("pantry_id", "of_tag_id") references "tag" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "tag_own" add constraint "tag_own_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "tag_own" add constraint "tag_own_tag_id_foreign" foreign key ("pantry_id", "tag_id") references "tag" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "tag_own" add constraint "tag_own_field_id_foreign" foreign key ("pantry_id", "field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "tag_own_link" add constraint "tag_own_link_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "tag_own_link" add constraint "tag_own_link_own_field_id_foreign" foreign key ("pantry_id", "tag_id", "own_field_id") references "tag_own" ("pantry_id", "tag_id", "field_id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "tag_own_link" add constraint "tag_own_link_to_item_id_foreign" foreign key ("pantry_id", "to_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "tag_own_link" add constraint "tag_own_link_to_type_id_foreign" foreign key ("pantry_id", "to_type_id") references "item_type" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "tag_own_link" add constraint "tag_own_link_to_rarity_id_foreign" foreign key ("pantry_id", "to_rarity_id") references "rarity" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "tag_own_link" add constraint "tag_own_link_to_stat_id_foreign" foreign key ("pantry_id", "to_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "tag_own_link" add constraint "tag_own_link_to_tag_id_foreign" foreign key ("pantry_id", "to_tag_id") references "tag" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "tag_own_link" add constraint "tag_own_link_to_currency_id_foreign" foreign key ("pantry_id", "to_currency_id") references "currency" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "tag_own_link" add constraint "tag_own_link_to_slot_id_foreign" foreign key ("pantry_id", "to_slot_id") references "slot" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "tag_own_link" add constraint "tag_own_link_to_cooldown_id_foreign" foreign key ("pantry_id", "to_cooldown_id") references "cooldown" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "tag_own_link" add constraint "tag_own_link_to_situation_id_foreign" foreign key ("pantry_id", "to_situation_id") references "situation" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "source_own" add constraint "source_own_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "source_own" add constraint "source_own_source_id_foreign" foreign key ("pantry_id", "source_id") references "source" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "source_own" add constraint "source_own_field_id_foreign" foreign key ("pantry_id", "field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "source_own_link" add constraint "source_own_link_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "source_own_link" add constraint "source_own_link_own_field_id_foreign" foreign key ("pantry_id", "source_id", "own_field_id") references "source_own" ("pantry_id", "source_id", "field_id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "source_own_link" add constraint "source_own_link_to_item_id_foreign" foreign key ("pantry_id", "to_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "source_own_link" add constraint "source_own_link_to_type_id_foreign" foreign key ("pantry_id", "to_type_id") references "item_type" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "source_own_link" add constraint "source_own_link_to_rarity_id_foreign" foreign key ("pantry_id", "to_rarity_id") references "rarity" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "source_own_link" add constraint "source_own_link_to_stat_id_foreign" foreign key ("pantry_id", "to_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "source_own_link" add constraint "source_own_link_to_tag_id_foreign" foreign key ("pantry_id", "to_tag_id") references "tag" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "source_own_link" add constraint "source_own_link_to_currency_id_foreign" foreign key ("pantry_id", "to_currency_id") references "currency" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "source_own_link" add constraint "source_own_link_to_slot_id_foreign" foreign key ("pantry_id", "to_slot_id") references "slot" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "source_own_link" add constraint "source_own_link_to_cooldown_id_foreign" foreign key ("pantry_id", "to_cooldown_id") references "cooldown" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "source_own_link" add constraint "source_own_link_to_situation_id_foreign" foreign key ("pantry_id", "to_situation_id") references "situation" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "slot_own" add constraint "slot_own_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "slot_own" add constraint "slot_own_slot_id_foreign" foreign key ("pantry_id", "slot_id") references "slot" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "slot_own" add constraint "slot_own_field_id_foreign" foreign key ("pantry_id", "field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "slot_own_link" add constraint "slot_own_link_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "slot_own_link" add constraint "slot_own_link_own_field_id_foreign" foreign key ("pantry_id", "slot_id", "own_field_id") references "slot_own" ("pantry_id", "slot_id", "field_id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "slot_own_link" add constraint "slot_own_link_to_item_id_foreign" foreign key ("pantry_id", "to_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "slot_own_link" add constraint "slot_own_link_to_type_id_foreign" foreign key ("pantry_id", "to_type_id") references "item_type" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "slot_own_link" add constraint "slot_own_link_to_rarity_id_foreign" foreign key ("pantry_id", "to_rarity_id") references "rarity" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "slot_own_link" add constraint "slot_own_link_to_stat_id_foreign" foreign key ("pantry_id", "to_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "slot_own_link" add constraint "slot_own_link_to_tag_id_foreign" foreign key ("pantry_id", "to_tag_id") references "tag" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "slot_own_link" add constraint "slot_own_link_to_currency_id_foreign" foreign key ("pantry_id", "to_currency_id") references "currency" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "slot_own_link" add constraint "slot_own_link_to_slot_id_foreign" foreign key ("pantry_id", "to_slot_id") references "slot" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "slot_own_link" add constraint "slot_own_link_to_cooldown_id_foreign" foreign key ("pantry_id", "to_cooldown_id") references "cooldown" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "slot_own_link" add constraint "slot_own_link_to_situation_id_foreign" foreign key ("pantry_id", "to_situation_id") references "situation" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "situation_own" add constraint "situation_own_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "situation_own" add constraint "situation_own_situation_id_foreign" foreign key ("pantry_id", "situation_id") references "situation" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "situation_own" add constraint "situation_own_field_id_foreign" foreign key ("pantry_id", "field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "situation_own_link" add constraint "situation_own_link_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "situation_own_link" add constraint "situation_own_link_own_field_id_foreign" foreign key ("pantry_id", "situation_id", "own_field_id") references "situation_own" ("pantry_id", "situation_id", "field_id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "situation_own_link" add constraint "situation_own_link_to_item_id_foreign" foreign key ("pantry_id", "to_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "situation_own_link" add constraint "situation_own_link_to_type_id_foreign" foreign key ("pantry_id", "to_type_id") references "item_type" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "situation_own_link" add constraint "situation_own_link_to_rarity_id_foreign" foreign key ("pantry_id", "to_rarity_id") references "rarity" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "situation_own_link" add constraint "situation_own_link_to_stat_id_foreign" foreign key ("pantry_id", "to_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "situation_own_link" add constraint "situation_own_link_to_tag_id_foreign" foreign key ("pantry_id", "to_tag_id") references "tag" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "situation_own_link" add constraint "situation_own_link_to_currency_id_foreign" foreign key ("pantry_id", "to_currency_id") references "currency" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "situation_own_link" add constraint "situation_own_link_to_slot_id_foreign" foreign key ("pantry_id", "to_slot_id") references "slot" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "situation_own_link" add constraint "situation_own_link_to_cooldown_id_foreign" foreign key ("pantry_id", "to_cooldown_id") references "cooldown" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "situation_own_link" add constraint "situation_own_link_to_situation_id_foreign" foreign key ("pantry_id", "to_situation_id") references "situation" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "series_rule" add constraint "series_rule_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "series_rule" add constraint "series_rule_series_id_foreign" foreign key ("pantry_id", "series_id") references "series" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "series_rule" add constraint "series_rule_stat_id_foreign" foreign key ("pantry_id", "stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "series_rule" add constraint "series_rule_own_id_foreign" foreign key ("pantry_id", "own_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_own" add constraint "recipe_own_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "recipe_own" add constraint "recipe_own_recipe_id_foreign" foreign key ("pantry_id", "recipe_id") references "recipe" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_own" add constraint "recipe_own_field_id_foreign" foreign key ("pantry_id", "field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_own_link" add constraint "recipe_own_link_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "recipe_own_link" add constraint "recipe_own_link_own_field_id_foreign" foreign key ("pantry_id", "recipe_id", "own_field_id") references "recipe_own" ("pantry_id", "recipe_id", "field_id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_own_link" add constraint "recipe_own_link_to_item_id_foreign" foreign key ("pantry_id", "to_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_own_link" add constraint "recipe_own_link_to_type_id_foreign" foreign key ("pantry_id", "to_type_id") references "item_type" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_own_link" add constraint "recipe_own_link_to_rarity_id_foreign" foreign key ("pantry_id", "to_rarity_id") references "rarity" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_own_link" add constraint "recipe_own_link_to_stat_id_foreign" foreign key ("pantry_id", "to_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_own_link" add constraint "recipe_own_link_to_tag_id_foreign" foreign key ("pantry_id", "to_tag_id") references "tag" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_own_link" add constraint "recipe_own_link_to_currency_id_foreign" foreign key ("pantry_id", "to_currency_id") references "currency" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_own_link" add constraint "recipe_own_link_to_slot_id_foreign" foreign key ("pantry_id", "to_slot_id") references "slot" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_own_link" add constraint "recipe_own_link_to_cooldown_id_foreign" foreign key ("pantry_id", "to_cooldown_id") references "cooldown" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "recipe_own_link" add constraint "recipe_own_link_to_situation_id_foreign" foreign key ("pantry_id", "to_situation_id") references "situation" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "rarity_own" add constraint "rarity_own_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "rarity_own" add constraint "rarity_own_rarity_id_foreign" foreign key ("pantry_id", "rarity_id") references "rarity" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "rarity_own" add constraint "rarity_own_field_id_foreign" foreign key ("pantry_id", "field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "rarity_own_link" add constraint "rarity_own_link_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "rarity_own_link" add constraint "rarity_own_link_own_field_id_foreign" foreign key ("pantry_id", "rarity_id", "own_field_id") references "rarity_own" ("pantry_id", "rarity_id", "field_id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "rarity_own_link" add constraint "rarity_own_link_to_item_id_foreign" foreign key ("pantry_id", "to_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "rarity_own_link" add constraint "rarity_own_link_to_type_id_foreign" foreign key ("pantry_id", "to_type_id") references "item_type" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "rarity_own_link" add constraint "rarity_own_link_to_rarity_id_foreign" foreign key ("pantry_id", "to_rarity_id") references "rarity" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "rarity_own_link" add constraint "rarity_own_link_to_stat_id_foreign" foreign key ("pantry_id", "to_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "rarity_own_link" add constraint "rarity_own_link_to_tag_id_foreign" foreign key ("pantry_id", "to_tag_id") references "tag" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "rarity_own_link" add constraint "rarity_own_link_to_currency_id_foreign" foreign key ("pantry_id", "to_currency_id") references "currency" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "rarity_own_link" add constraint "rarity_own_link_to_slot_id_foreign" foreign key ("pantry_id", "to_slot_id") references "slot" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "rarity_own_link" add constraint "rarity_own_link_to_cooldown_id_foreign" foreign key ("pantry_id", "to_cooldown_id") references "cooldown" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "rarity_own_link" add constraint "rarity_own_link_to_situation_id_foreign" foreign key ("pantry_id", "to_situation_id") references "situation" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_take" add constraint "item_type_take_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_type_take" add constraint "item_type_take_type_id_foreign" foreign key ("pantry_id", "type_id") references "item_type" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_take" add constraint "item_type_take_field_id_foreign" foreign key ("pantry_id", "field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_own" add constraint "item_type_own_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_type_own" add constraint "item_type_own_type_id_foreign" foreign key ("pantry_id", "type_id") references "item_type" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_own" add constraint "item_type_own_field_id_foreign" foreign key ("pantry_id", "field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_own_link" add constraint "item_type_own_link_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_type_own_link" add constraint "item_type_own_link_own_field_id_foreign" foreign key ("pantry_id", "type_id", "own_field_id") references "item_type_own" ("pantry_id", "type_id", "field_id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_own_link" add constraint "item_type_own_link_to_item_id_foreign" foreign key ("pantry_id", "to_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_own_link" add constraint "item_type_own_link_to_type_id_foreign" foreign key ("pantry_id", "to_type_id") references "item_type" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_own_link" add constraint "item_type_own_link_to_rarity_id_foreign" foreign key ("pantry_id", "to_rarity_id") references "rarity" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_own_link" add constraint "item_type_own_link_to_stat_id_foreign" foreign key ("pantry_id", "to_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_own_link" add constraint "item_type_own_link_to_tag_id_foreign" foreign key ("pantry_id", "to_tag_id") references "tag" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_own_link" add constraint "item_type_own_link_to_currency_id_foreign" foreign key ("pantry_id", "to_currency_id") references "currency" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_own_link" add constraint "item_type_own_link_to_slot_id_foreign" foreign key ("pantry_id", "to_slot_id") references "slot" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_own_link" add constraint "item_type_own_link_to_cooldown_id_foreign" foreign key ("pantry_id", "to_cooldown_id") references "cooldown" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_own_link" add constraint "item_type_own_link_to_situation_id_foreign" foreign key ("pantry_id", "to_situation_id") references "situation" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_own" add constraint "item_own_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_own" add constraint "item_own_item_id_foreign" foreign key ("pantry_id", "item_id") references "item" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_own" add constraint "item_own_field_id_foreign" foreign key ("pantry_id", "field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_own_link" add constraint "item_own_link_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_own_link" add constraint "item_own_link_own_field_id_foreign" foreign key ("pantry_id", "item_id", "own_field_id") references "item_own" ("pantry_id", "item_id", "field_id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_own_link" add constraint "item_own_link_to_item_id_foreign" foreign key ("pantry_id", "to_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_own_link" add constraint "item_own_link_to_type_id_foreign" foreign key ("pantry_id", "to_type_id") references "item_type" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_own_link" add constraint "item_own_link_to_rarity_id_foreign" foreign key ("pantry_id", "to_rarity_id") references "rarity" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_own_link" add constraint "item_own_link_to_stat_id_foreign" foreign key ("pantry_id", "to_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_own_link" add constraint "item_own_link_to_tag_id_foreign" foreign key ("pantry_id", "to_tag_id") references "tag" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_own_link" add constraint "item_own_link_to_currency_id_foreign" foreign key ("pantry_id", "to_currency_id") references "currency" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_own_link" add constraint "item_own_link_to_slot_id_foreign" foreign key ("pantry_id", "to_slot_id") references "slot" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_own_link" add constraint "item_own_link_to_cooldown_id_foreign" foreign key ("pantry_id", "to_cooldown_id") references "cooldown" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_own_link" add constraint "item_own_link_to_situation_id_foreign" foreign key ("pantry_id", "to_situation_id") references "situation" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "field_option" add constraint "field_option_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "field_option" add constraint "field_option_field_id_foreign" foreign key ("pantry_id", "field_id") references "field" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "currency_own" add constraint "currency_own_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "currency_own" add constraint "currency_own_currency_id_foreign" foreign key ("pantry_id", "currency_id") references "currency" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "currency_own" add constraint "currency_own_field_id_foreign" foreign key ("pantry_id", "field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "currency_own_link" add constraint "currency_own_link_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "currency_own_link" add constraint "currency_own_link_own_field_id_foreign" foreign key ("pantry_id", "currency_id", "own_field_id") references "currency_own" ("pantry_id", "currency_id", "field_id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "currency_own_link" add constraint "currency_own_link_to_item_id_foreign" foreign key ("pantry_id", "to_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "currency_own_link" add constraint "currency_own_link_to_type_id_foreign" foreign key ("pantry_id", "to_type_id") references "item_type" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "currency_own_link" add constraint "currency_own_link_to_rarity_id_foreign" foreign key ("pantry_id", "to_rarity_id") references "rarity" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "currency_own_link" add constraint "currency_own_link_to_stat_id_foreign" foreign key ("pantry_id", "to_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "currency_own_link" add constraint "currency_own_link_to_tag_id_foreign" foreign key ("pantry_id", "to_tag_id") references "tag" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "currency_own_link" add constraint "currency_own_link_to_currency_id_foreign" foreign key ("pantry_id", "to_currency_id") references "currency" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "currency_own_link" add constraint "currency_own_link_to_slot_id_foreign" foreign key ("pantry_id", "to_slot_id") references "slot" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "currency_own_link" add constraint "currency_own_link_to_cooldown_id_foreign" foreign key ("pantry_id", "to_cooldown_id") references "cooldown" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "currency_own_link" add constraint "currency_own_link_to_situation_id_foreign" foreign key ("pantry_id", "to_situation_id") references "situation" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "wordlist" add constraint "wordlist_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "wordlist_word" add constraint "wordlist_word_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "wordlist_word" add constraint "wordlist_word_wordlist_id_foreign" foreign key ("pantry_id", "wordlist_id") references "wordlist" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
  }
}
