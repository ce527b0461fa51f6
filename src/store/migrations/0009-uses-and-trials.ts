/** uses and trials. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class UsesAndTrials extends Migration {
  override async up(): Promise<void> {
    this.addSql(
      `create table "exclusion" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "note" text not null, constraint "exclusion_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(
      `alter table "exclusion" add constraint "exclusion_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "constant" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "value" double precision not null, "unit" varchar(20) not null, "note" text not null, constraint "constant_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(
      `alter table "constant" add constraint "constant_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "condition" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "icon" varchar(80) null, "nature" varchar(10) not null, "ticks" bigint null, "twice" varchar(15) not null, "layers" int not null, "exclusion_id" varchar(12) null, "strength" double precision not null, "note" text not null, constraint "condition_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(`create index "condition_exclusion_id_index" on "condition" ("pantry_id", "exclusion_id")`);
    this.addSql(
      `alter table "condition" add constraint "condition_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "chance_table" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "note" text not null, constraint "chance_table_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(
      `alter table "chance_table" add constraint "chance_table_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "chance_table_draw" ("pantry_id" varchar(12) not null, "table_id" varchar(12) not null, "position" int not null, "times" int not null, "back" boolean not null, constraint "chance_table_draw_pkey" primary key ("pantry_id", "table_id", "position"))`,
    );
    this.addSql(
      `create table "resource" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "unit" varchar(20) not null, "colour" varchar(7) not null, "min" double precision not null, "most" text null, "start" text null, "recovery" text null, "note" text not null, constraint "resource_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(
      `alter table "resource" add constraint "resource_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "condition_pulse" ("pantry_id" varchar(12) not null, "condition_id" varchar(12) not null, "position" int not null, "resource_id" varchar(12) not null, "amount" text null, "every" bigint not null, constraint "condition_pulse_pkey" primary key ("pantry_id", "condition_id", "position"))`,
    );
    this.addSql(`create index "condition_pulse_resource_id_index" on "condition_pulse" ("pantry_id", "resource_id")`);
    this.addSql(
      `create table "signal" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "note" text not null, constraint "signal_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(
      `alter table "signal" add constraint "signal_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "signal_parameter" ("pantry_id" varchar(12) not null, "signal_id" varchar(12) not null, "position" int not null, "called" varchar(40) not null, "form" varchar(10) not null, constraint "signal_parameter_pkey" primary key ("pantry_id", "signal_id", "position"))`,
    );
    this.addSql(
      `create table "condition_bar" ("pantry_id" varchar(12) not null, "condition_id" varchar(12) not null, "situation_id" varchar(12) not null, "position" int not null, constraint "condition_bar_pkey" primary key ("pantry_id", "condition_id", "situation_id"))`,
    );
    this.addSql(`create index "condition_bar_situation_id_index" on "condition_bar" ("pantry_id", "situation_id")`);
    this.addSql(
      `create table "item_type_block" ("pantry_id" varchar(12) not null, "type_id" varchar(12) not null, "slot_id" varchar(12) not null, "position" int not null, constraint "item_type_block_pkey" primary key ("pantry_id", "type_id", "slot_id"))`,
    );
    this.addSql(`create index "item_type_block_slot_id_index" on "item_type_block" ("pantry_id", "slot_id")`);
    this.addSql(
      `create table "item_use" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "item_id" varchar(12) null, "type_id" varchar(12) null, "varies_id" varchar(12) null, "off" boolean not null, "order" int not null, "everywhere" boolean null, "on" varchar(10) null, "windup" bigint null, "wait" bigint null, "fate" varchar(10) null, "count" int null, "leaves_id" varchar(12) null, "level" int null, "guarded" boolean null, "told" varchar(200) null, "note" text not null, constraint "item_use_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(`create index "item_use_item_id_index" on "item_use" ("pantry_id", "item_id")`);
    this.addSql(`create index "item_use_type_id_index" on "item_use" ("pantry_id", "type_id")`);
    this.addSql(`create index "item_use_varies_id_index" on "item_use" ("pantry_id", "varies_id")`);
    this.addSql(`create index "item_use_leaves_id_index" on "item_use" ("pantry_id", "leaves_id")`);
    this.addSql(
      `alter table "item_use" add constraint "item_use_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "item_use_without" ("pantry_id" varchar(12) not null, "use_id" varchar(12) not null, "condition_id" varchar(12) not null, "position" int not null, constraint "item_use_without_pkey" primary key ("pantry_id", "use_id", "condition_id"))`,
    );
    this.addSql(
      `create index "item_use_without_condition_id_index" on "item_use_without" ("pantry_id", "condition_id")`,
    );
    this.addSql(
      `create table "item_use_situation" ("pantry_id" varchar(12) not null, "use_id" varchar(12) not null, "situation_id" varchar(12) not null, "position" int not null, constraint "item_use_situation_pkey" primary key ("pantry_id", "use_id", "situation_id"))`,
    );
    this.addSql(
      `create index "item_use_situation_situation_id_index" on "item_use_situation" ("pantry_id", "situation_id")`,
    );
    this.addSql(
      `create table "item_use_having" ("pantry_id" varchar(12) not null, "use_id" varchar(12) not null, "condition_id" varchar(12) not null, "position" int not null, constraint "item_use_having_pkey" primary key ("pantry_id", "use_id", "condition_id"))`,
    );
    this.addSql(`create index "item_use_having_condition_id_index" on "item_use_having" ("pantry_id", "condition_id")`);
    this.addSql(
      `create table "condition_stop" ("pantry_id" varchar(12) not null, "condition_id" varchar(12) not null, "use_id" varchar(12) not null, "position" int not null, constraint "condition_stop_pkey" primary key ("pantry_id", "condition_id", "use_id"))`,
    );
    this.addSql(`create index "condition_stop_use_id_index" on "condition_stop" ("pantry_id", "use_id")`);
    this.addSql(
      `create table "chance_table_draw_entry" ("pantry_id" varchar(12) not null, "table_id" varchar(12) not null, "draw_position" int not null, "position" int not null, "weight" double precision not null, "what_is" varchar(40) not null, "what_item_item_id" varchar(12) null, "what_currency_currency_id" varchar(12) null, "what_table_table_id" varchar(12) null, "min" double precision not null, "max" double precision not null, "from" int null, "to" int null, constraint "chance_table_draw_entry_pkey" primary key ("pantry_id", "table_id", "draw_position", "position"))`,
    );
    this.addSql(
      `create index "chance_table_draw_entry_what_item_item_id_index" on "chance_table_draw_entry" ("pantry_id", "what_item_item_id")`,
    );
    this.addSql(
      `create index "chance_table_draw_entry_what_currency_currency_id_index" on "chance_table_draw_entry" ("pantry_id", "what_currency_currency_id")`,
    );
    this.addSql(
      `create index "chance_table_draw_entry_what_table_table_id_index" on "chance_table_draw_entry" ("pantry_id", "what_table_table_id")`,
    );
    this.addSql(
      `create table "chance_table_chance" ("pantry_id" varchar(12) not null, "table_id" varchar(12) not null, "position" int not null, "chance" double precision not null, "what_is" varchar(40) not null, "what_item_item_id" varchar(12) null, "what_currency_currency_id" varchar(12) null, "what_table_table_id" varchar(12) null, "min" double precision not null, "max" double precision not null, "from" int null, "to" int null, constraint "chance_table_chance_pkey" primary key ("pantry_id", "table_id", "position"))`,
    );
    this.addSql(
      `create index "chance_table_chance_what_item_item_id_index" on "chance_table_chance" ("pantry_id", "what_item_item_id")`,
    );
    this.addSql(
      `create index "chance_table_chance_what_currency_currency_id_index" on "chance_table_chance" ("pantry_id", "what_currency_currency_id")`,
    );
    this.addSql(
      `create index "chance_table_chance_what_table_table_id_index" on "chance_table_chance" ("pantry_id", "what_table_table_id")`,
    );
    this.addSql(
      `create table "chance_table_alway" ("pantry_id" varchar(12) not null, "table_id" varchar(12) not null, "position" int not null, "what_is" varchar(40) not null, "what_item_item_id" varchar(12) null, "what_currency_currency_id" varchar(12) null, "what_table_table_id" varchar(12) null, "min" double precision not null, "max" double precision not null, "from" int null, "to" int null, constraint "chance_table_alway_pkey" primary key ("pantry_id", "table_id", "position"))`,
    );
    this.addSql(
      `create index "chance_table_alway_what_item_item_id_index" on "chance_table_alway" ("pantry_id", "what_item_item_id")`,
    );
    this.addSql(
      `create index "chance_table_alway_what_currency_currency_id_index" on "chance_table_alway" ("pantry_id", "what_currency_currency_id")`,
    );
    this.addSql(
      `create index "chance_table_alway_what_table_table_id_index" on "chance_table_alway" ("pantry_id", "what_table_table_id")`,
    );
    this.addSql(
      `create table "item_block" ("pantry_id" varchar(12) not null, "item_id" varchar(12) not null, "slot_id" varchar(12) not null, "position" int not null, constraint "item_block_pkey" primary key ("pantry_id", "item_id", "slot_id"))`,
    );
    this.addSql(`create index "item_block_slot_id_index" on "item_block" ("pantry_id", "slot_id")`);
    this.addSql(
      `create table "item_use_least" ("pantry_id" varchar(12) not null, "use_id" varchar(12) not null, "stat_id" varchar(12) not null, "value" double precision not null, constraint "item_use_least_pkey" primary key ("pantry_id", "use_id", "stat_id"))`,
    );
    this.addSql(`create index "item_use_least_stat_id_index" on "item_use_least" ("pantry_id", "stat_id")`);
    this.addSql(
      `create table "item_use_effect" ("pantry_id" varchar(12) not null, "use_id" varchar(12) not null, "position" int not null, "does_is" varchar(40) not null, "does_restore_resource_id" varchar(12) null, "does_restore_share" boolean null, "does_restore_every" bigint null, "does_restore_lasting" bigint null, "does_drain_resource_id" varchar(12) null, "does_drain_share" boolean null, "does_drain_every" bigint null, "does_drain_lasting" bigint null, "does_apply_condition_id" varchar(12) null, "does_apply_ticks" bigint null, "does_clear_condition_id" varchar(12) null, "does_clear_all_nature" varchar(10) null, "does_change_stat_id" varchar(12) null, "does_change_limit" double precision null, "does_draw_table_id" varchar(12) null, "does_give_item_id" varchar(12) null, "does_take_item_id" varchar(12) null, "does_pay_currency_id" varchar(12) null, "does_charge_currency_id" varchar(12) null, "does_teach_recipe_id" varchar(12) null, "does_send_signal_id" varchar(12) null, "amount" text null, "chance" double precision not null, constraint "item_use_effect_pkey" primary key ("pantry_id", "use_id", "position"))`,
    );
    this.addSql(
      `create index "item_use_effect_does_restore_resource_id_index" on "item_use_effect" ("pantry_id", "does_restore_resource_id")`,
    );
    this.addSql(
      `create index "item_use_effect_does_drain_resource_id_index" on "item_use_effect" ("pantry_id", "does_drain_resource_id")`,
    );
    this.addSql(
      `create index "item_use_effect_does_apply_condition_id_index" on "item_use_effect" ("pantry_id", "does_apply_condition_id")`,
    );
    this.addSql(
      `create index "item_use_effect_does_clear_condition_id_index" on "item_use_effect" ("pantry_id", "does_clear_condition_id")`,
    );
    this.addSql(
      `create index "item_use_effect_does_change_stat_id_index" on "item_use_effect" ("pantry_id", "does_change_stat_id")`,
    );
    this.addSql(
      `create index "item_use_effect_does_draw_table_id_index" on "item_use_effect" ("pantry_id", "does_draw_table_id")`,
    );
    this.addSql(
      `create index "item_use_effect_does_give_item_id_index" on "item_use_effect" ("pantry_id", "does_give_item_id")`,
    );
    this.addSql(
      `create index "item_use_effect_does_take_item_id_index" on "item_use_effect" ("pantry_id", "does_take_item_id")`,
    );
    this.addSql(
      `create index "item_use_effect_does_pay_currency_id_index" on "item_use_effect" ("pantry_id", "does_pay_currency_id")`,
    );
    this.addSql(
      `create index "item_use_effect_does_charge_currency_id_index" on "item_use_effect" ("pantry_id", "does_charge_currency_id")`,
    );
    this.addSql(
      `create index "item_use_effect_does_teach_recipe_id_index" on "item_use_effect" ("pantry_id", "does_teach_recipe_id")`,
    );
    this.addSql(
      `create index "item_use_effect_does_send_signal_id_index" on "item_use_effect" ("pantry_id", "does_send_signal_id")`,
    );
    this.addSql(
      `create table "item_use_effect_does_send_told" ("pantry_id" varchar(12) not null, "use_id" varchar(12) not null, "effect_position" int not null, "position" int not null, "called" varchar(40) not null, "value" varchar(200) not null, constraint "item_use_effect_does_send_told_pkey" primary key ("pantry_id", "use_id", "effect_position", "position"))`,
    );
    this.addSql(
      `create table "condition_change" ("pantry_id" varchar(12) not null, "condition_id" varchar(12) not null, "position" int not null, "stat_id" varchar(12) not null, "how" varchar(10) not null, "by" text null, constraint "condition_change_pkey" primary key ("pantry_id", "condition_id", "position"))`,
    );
    this.addSql(`create index "condition_change_stat_id_index" on "condition_change" ("pantry_id", "stat_id")`);
    this.addSql(
      `create table "subject" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "level" int not null, "bag_slots" int null, "bag_mass" double precision null, "note" text not null, constraint "subject_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(
      `alter table "subject" add constraint "subject_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "subject_resource" ("pantry_id" varchar(12) not null, "subject_id" varchar(12) not null, "resource_id" varchar(12) not null, "position" int not null, constraint "subject_resource_pkey" primary key ("pantry_id", "subject_id", "resource_id"))`,
    );
    this.addSql(`create index "subject_resource_resource_id_index" on "subject_resource" ("pantry_id", "resource_id")`);
    this.addSql(
      `create table "subject_money" ("pantry_id" varchar(12) not null, "subject_id" varchar(12) not null, "currency_id" varchar(12) not null, "value" double precision not null, constraint "subject_money_pkey" primary key ("pantry_id", "subject_id", "currency_id"))`,
    );
    this.addSql(`create index "subject_money_currency_id_index" on "subject_money" ("pantry_id", "currency_id")`);
    this.addSql(
      `create table "subject_know" ("pantry_id" varchar(12) not null, "subject_id" varchar(12) not null, "recipe_id" varchar(12) not null, "position" int not null, constraint "subject_know_pkey" primary key ("pantry_id", "subject_id", "recipe_id"))`,
    );
    this.addSql(`create index "subject_know_recipe_id_index" on "subject_know" ("pantry_id", "recipe_id")`);
    this.addSql(
      `create table "subject_kit" ("pantry_id" varchar(12) not null, "subject_id" varchar(12) not null, "item_id" varchar(12) not null, "value" int not null, constraint "subject_kit_pkey" primary key ("pantry_id", "subject_id", "item_id"))`,
    );
    this.addSql(`create index "subject_kit_item_id_index" on "subject_kit" ("pantry_id", "item_id")`);
    this.addSql(
      `create table "subject_growth" ("pantry_id" varchar(12) not null, "subject_id" varchar(12) not null, "position" int not null, "stat_id" varchar(12) not null, "level" int not null, "value" double precision not null, constraint "subject_growth_pkey" primary key ("pantry_id", "subject_id", "position"))`,
    );
    this.addSql(`create index "subject_growth_stat_id_index" on "subject_growth" ("pantry_id", "stat_id")`);
    this.addSql(
      `create table "subject_slot" ("pantry_id" varchar(12) not null, "subject_id" varchar(12) not null, "slot_id" varchar(12) not null, "position" int not null, constraint "subject_slot_pkey" primary key ("pantry_id", "subject_id", "slot_id"))`,
    );
    this.addSql(`create index "subject_slot_slot_id_index" on "subject_slot" ("pantry_id", "slot_id")`);
    this.addSql(
      `create table "subject_stat" ("pantry_id" varchar(12) not null, "subject_id" varchar(12) not null, "stat_id" varchar(12) not null, "value" text null, constraint "subject_stat_pkey" primary key ("pantry_id", "subject_id", "stat_id"))`,
    );
    this.addSql(`create index "subject_stat_stat_id_index" on "subject_stat" ("pantry_id", "stat_id")`);
    this.addSql(
      `create table "subject_worn" ("pantry_id" varchar(12) not null, "subject_id" varchar(12) not null, "item_id" varchar(12) not null, "position" int not null, constraint "subject_worn_pkey" primary key ("pantry_id", "subject_id", "item_id"))`,
    );
    this.addSql(`create index "subject_worn_item_id_index" on "subject_worn" ("pantry_id", "item_id")`);
    this.addSql(
      `create table "subject_stat_value_name" ("pantry_id" varchar(12) not null, "subject_id" varchar(12) not null, "stat_stat_id" varchar(12) not null, "position" int not null, "to_stat_id" varchar(12) null, "to_resource_id" varchar(12) null, "to_field_id" varchar(12) null, "to_constant_id" varchar(12) null, constraint "subject_stat_value_name_pkey" primary key ("pantry_id", "subject_id", "stat_stat_id", "position"))`,
    );
    this.addSql(
      `create index "subject_stat_value_name_to_stat_id_index" on "subject_stat_value_name" ("pantry_id", "to_stat_id")`,
    );
    this.addSql(
      `create index "subject_stat_value_name_to_resource_id_index" on "subject_stat_value_name" ("pantry_id", "to_resource_id")`,
    );
    this.addSql(
      `create index "subject_stat_value_name_to_field_id_index" on "subject_stat_value_name" ("pantry_id", "to_field_id")`,
    );
    this.addSql(
      `create index "subject_stat_value_name_to_constant_id_index" on "subject_stat_value_name" ("pantry_id", "to_constant_id")`,
    );
    this.addSql(
      `create table "resource_start_name" ("pantry_id" varchar(12) not null, "resource_id" varchar(12) not null, "position" int not null, "to_stat_id" varchar(12) null, "to_resource_id" varchar(12) null, "to_field_id" varchar(12) null, "to_constant_id" varchar(12) null, constraint "resource_start_name_pkey" primary key ("pantry_id", "resource_id", "position"))`,
    );
    this.addSql(
      `create index "resource_start_name_to_stat_id_index" on "resource_start_name" ("pantry_id", "to_stat_id")`,
    );
    this.addSql(
      `create index "resource_start_name_to_resource_id_index" on "resource_start_name" ("pantry_id", "to_resource_id")`,
    );
    this.addSql(
      `create index "resource_start_name_to_field_id_index" on "resource_start_name" ("pantry_id", "to_field_id")`,
    );
    this.addSql(
      `create index "resource_start_name_to_constant_id_index" on "resource_start_name" ("pantry_id", "to_constant_id")`,
    );
    this.addSql(
      `create table "resource_recovery_name" ("pantry_id" varchar(12) not null, "resource_id" varchar(12) not null, "position" int not null, "to_stat_id" varchar(12) null, "to_resource_id" varchar(12) null, "to_field_id" varchar(12) null, "to_constant_id" varchar(12) null, constraint "resource_recovery_name_pkey" primary key ("pantry_id", "resource_id", "position"))`,
    );
    this.addSql(
      `create index "resource_recovery_name_to_stat_id_index" on "resource_recovery_name" ("pantry_id", "to_stat_id")`,
    );
    this.addSql(
      `create index "resource_recovery_name_to_resource_id_index" on "resource_recovery_name" ("pantry_id", "to_resource_id")`,
    );
    this.addSql(
      `create index "resource_recovery_name_to_field_id_index" on "resource_recovery_name" ("pantry_id", "to_field_id")`,
    );
    this.addSql(
      `create index "resource_recovery_name_to_constant_id_index" on "resource_recovery_name" ("pantry_id", "to_constant_id")`,
    );
    this.addSql(
      `create table "resource_most_name" ("pantry_id" varchar(12) not null, "resource_id" varchar(12) not null, "position" int not null, "to_stat_id" varchar(12) null, "to_resource_id" varchar(12) null, "to_field_id" varchar(12) null, "to_constant_id" varchar(12) null, constraint "resource_most_name_pkey" primary key ("pantry_id", "resource_id", "position"))`,
    );
    this.addSql(
      `create index "resource_most_name_to_stat_id_index" on "resource_most_name" ("pantry_id", "to_stat_id")`,
    );
    this.addSql(
      `create index "resource_most_name_to_resource_id_index" on "resource_most_name" ("pantry_id", "to_resource_id")`,
    );
    this.addSql(
      `create index "resource_most_name_to_field_id_index" on "resource_most_name" ("pantry_id", "to_field_id")`,
    );
    this.addSql(
      `create index "resource_most_name_to_constant_id_index" on "resource_most_name" ("pantry_id", "to_constant_id")`,
    );
    this.addSql(
      `create table "item_use_effect_amount_name" ("pantry_id" varchar(12) not null, "use_id" varchar(12) not null, "effect_position" int not null, "position" int not null, "to_stat_id" varchar(12) null, "to_resource_id" varchar(12) null, "to_field_id" varchar(12) null, "to_constant_id" varchar(12) null, constraint "item_use_effect_amount_name_pkey" primary key ("pantry_id", "use_id", "effect_position", "position"))`,
    );
    this.addSql(
      `create index "item_use_effect_amount_name_to_stat_id_index" on "item_use_effect_amount_name" ("pantry_id", "to_stat_id")`,
    );
    this.addSql(
      `create index "item_use_effect_amount_name_to_resource_id_index" on "item_use_effect_amount_name" ("pantry_id", "to_resource_id")`,
    );
    this.addSql(
      `create index "item_use_effect_amount_name_to_field_id_index" on "item_use_effect_amount_name" ("pantry_id", "to_field_id")`,
    );
    this.addSql(
      `create index "item_use_effect_amount_name_to_constant_id_index" on "item_use_effect_amount_name" ("pantry_id", "to_constant_id")`,
    );
    this.addSql(
      `create table "condition_pulse_amount_name" ("pantry_id" varchar(12) not null, "condition_id" varchar(12) not null, "pulse_position" int not null, "position" int not null, "to_stat_id" varchar(12) null, "to_resource_id" varchar(12) null, "to_field_id" varchar(12) null, "to_constant_id" varchar(12) null, constraint "condition_pulse_amount_name_pkey" primary key ("pantry_id", "condition_id", "pulse_position", "position"))`,
    );
    this.addSql(
      `create index "condition_pulse_amount_name_to_stat_id_index" on "condition_pulse_amount_name" ("pantry_id", "to_stat_id")`,
    );
    this.addSql(
      `create index "condition_pulse_amount_name_to_resource_id_index" on "condition_pulse_amount_name" ("pantry_id", "to_resource_id")`,
    );
    this.addSql(
      `create index "condition_pulse_amount_name_to_field_id_index" on "condition_pulse_amount_name" ("pantry_id", "to_field_id")`,
    );
    this.addSql(
      `create index "condition_pulse_amount_name_to_constant_id_index" on "condition_pulse_amount_name" ("pantry_id", "to_constant_id")`,
    );
    this.addSql(
      `create table "condition_change_by_name" ("pantry_id" varchar(12) not null, "condition_id" varchar(12) not null, "change_position" int not null, "position" int not null, "to_stat_id" varchar(12) null, "to_resource_id" varchar(12) null, "to_field_id" varchar(12) null, "to_constant_id" varchar(12) null, constraint "condition_change_by_name_pkey" primary key ("pantry_id", "condition_id", "change_position", "position"))`,
    );
    this.addSql(
      `create index "condition_change_by_name_to_stat_id_index" on "condition_change_by_name" ("pantry_id", "to_stat_id")`,
    );
    this.addSql(
      `create index "condition_change_by_name_to_resource_id_index" on "condition_change_by_name" ("pantry_id", "to_resource_id")`,
    );
    this.addSql(
      `create index "condition_change_by_name_to_field_id_index" on "condition_change_by_name" ("pantry_id", "to_field_id")`,
    );
    this.addSql(
      `create index "condition_change_by_name_to_constant_id_index" on "condition_change_by_name" ("pantry_id", "to_constant_id")`,
    );
    this.addSql(
      `create table "trial" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "subject_id" varchar(12) null, "seed" int not null, "note" text not null, constraint "trial_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(`create index "trial_subject_id_index" on "trial" ("pantry_id", "subject_id")`);
    this.addSql(
      `alter table "trial" add constraint "trial_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "trial_step" ("pantry_id" varchar(12) not null, "trial_id" varchar(12) not null, "position" int not null, "does_is" varchar(40) not null, "does_wait_ticks" bigint null, "does_be_situation_id" varchar(12) null, "does_use_item_id" varchar(12) null, "does_use_use_id" varchar(12) null, "does_use_times" int null, "does_use_every_item_id" varchar(12) null, "does_use_every_use_id" varchar(12) null, "does_use_every_every" bigint null, "does_use_whenever_item_id" varchar(12) null, "does_use_whenever_use_id" varchar(12) null, "does_stop_item_id" varchar(12) null, "does_harm_resource_id" varchar(12) null, "does_harm_amount" double precision null, "does_wear_item_id" varchar(12) null, "does_take_off_item_id" varchar(12) null, "does_get_item_id" varchar(12) null, "does_get_amount" double precision null, "does_drop_item_id" varchar(12) null, "does_drop_amount" double precision null, "does_make_recipe_id" varchar(12) null, "does_make_times" int null, "does_run_source_id" varchar(12) null, "does_run_times" int null, "does_expect_when" varchar(10) null, "does_expect_item_item_id" varchar(12) null, "does_expect_item_amount" double precision null, "does_expect_item_where" varchar(10) null, "does_expect_condition_condition_id" varchar(12) null, "does_expect_condition_absent" boolean null, "holds" text null, "refused" boolean not null, constraint "trial_step_pkey" primary key ("pantry_id", "trial_id", "position"))`,
    );
    this.addSql(
      `create index "trial_step_does_be_situation_id_index" on "trial_step" ("pantry_id", "does_be_situation_id")`,
    );
    this.addSql(`create index "trial_step_does_use_item_id_index" on "trial_step" ("pantry_id", "does_use_item_id")`);
    this.addSql(`create index "trial_step_does_use_use_id_index" on "trial_step" ("pantry_id", "does_use_use_id")`);
    this.addSql(
      `create index "trial_step_does_use_every_item_id_index" on "trial_step" ("pantry_id", "does_use_every_item_id")`,
    );
    this.addSql(
      `create index "trial_step_does_use_every_use_id_index" on "trial_step" ("pantry_id", "does_use_every_use_id")`,
    );
    this.addSql(
      `create index "trial_step_does_use_whenever_item_id_index" on "trial_step" ("pantry_id", "does_use_whenever_item_id")`,
    );
    this.addSql(
      `create index "trial_step_does_use_whenever_use_id_index" on "trial_step" ("pantry_id", "does_use_whenever_use_id")`,
    );
    this.addSql(`create index "trial_step_does_stop_item_id_index" on "trial_step" ("pantry_id", "does_stop_item_id")`);
    this.addSql(
      `create index "trial_step_does_harm_resource_id_index" on "trial_step" ("pantry_id", "does_harm_resource_id")`,
    );
    this.addSql(`create index "trial_step_does_wear_item_id_index" on "trial_step" ("pantry_id", "does_wear_item_id")`);
    this.addSql(
      `create index "trial_step_does_take_off_item_id_index" on "trial_step" ("pantry_id", "does_take_off_item_id")`,
    );
    this.addSql(`create index "trial_step_does_get_item_id_index" on "trial_step" ("pantry_id", "does_get_item_id")`);
    this.addSql(`create index "trial_step_does_drop_item_id_index" on "trial_step" ("pantry_id", "does_drop_item_id")`);
    this.addSql(
      `create index "trial_step_does_make_recipe_id_index" on "trial_step" ("pantry_id", "does_make_recipe_id")`,
    );
    this.addSql(
      `create index "trial_step_does_run_source_id_index" on "trial_step" ("pantry_id", "does_run_source_id")`,
    );
    this.addSql(
      `create index "trial_step_does_expect_item_item_id_index" on "trial_step" ("pantry_id", "does_expect_item_item_id")`,
    );
    this.addSql(
      `create index "trial_step_does_expect_condition_condition_id_index" on "trial_step" ("pantry_id", "does_expect_condition_condition_id")`,
    );
    this.addSql(
      `create table "trial_step_holds_name" ("pantry_id" varchar(12) not null, "trial_id" varchar(12) not null, "step_position" int not null, "position" int not null, "to_stat_id" varchar(12) null, "to_resource_id" varchar(12) null, "to_field_id" varchar(12) null, "to_constant_id" varchar(12) null, constraint "trial_step_holds_name_pkey" primary key ("pantry_id", "trial_id", "step_position", "position"))`,
    );
    this.addSql(
      `create index "trial_step_holds_name_to_stat_id_index" on "trial_step_holds_name" ("pantry_id", "to_stat_id")`,
    );
    this.addSql(
      `create index "trial_step_holds_name_to_resource_id_index" on "trial_step_holds_name" ("pantry_id", "to_resource_id")`,
    );
    this.addSql(
      `create index "trial_step_holds_name_to_field_id_index" on "trial_step_holds_name" ("pantry_id", "to_field_id")`,
    );
    this.addSql(
      `create index "trial_step_holds_name_to_constant_id_index" on "trial_step_holds_name" ("pantry_id", "to_constant_id")`,
    );
    this.addSql(
      `alter table "exclusion" add constraint "exclusion_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "constant" add constraint "constant_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "condition" add constraint "condition_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "condition" add constraint "condition_exclusion_id_foreign" foreign key ("pantry_id", "exclusion_id") references "exclusion" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "chance_table" add constraint "chance_table_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "chance_table_draw" add constraint "chance_table_draw_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "chance_table_draw" add constraint "chance_table_draw_table_id_foreign" foreign key ("pantry_id", "table_id") references "chance_table" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "resource" add constraint "resource_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "condition_pulse" add constraint "condition_pulse_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "condition_pulse" add constraint "condition_pulse_condition_id_foreign" foreign key ("pantry_id", "condition_id") references "condition" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "condition_pulse" add constraint "condition_pulse_resource_id_foreign" foreign key ("pantry_id", "resource_id") references "resource" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "signal" add constraint "signal_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "signal_parameter" add constraint "signal_parameter_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "signal_parameter" add constraint "signal_parameter_signal_id_foreign" foreign key ("pantry_id", "signal_id") references "signal" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "condition_bar" add constraint "condition_bar_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "condition_bar" add constraint "condition_bar_condition_id_foreign" foreign key ("pantry_id", "condition_id") references "condition" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "condition_bar" add constraint "condition_bar_situation_id_foreign" foreign key ("pantry_id", "situation_id") references "situation" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_block" add constraint "item_type_block_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_type_block" add constraint "item_type_block_type_id_foreign" foreign key ("pantry_id", "type_id") references "item_type" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type_block" add constraint "item_type_block_slot_id_foreign" foreign key ("pantry_id", "slot_id") references "slot" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use" add constraint "item_use_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_use" add constraint "item_use_item_id_foreign" foreign key ("pantry_id", "item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use" add constraint "item_use_type_id_foreign" foreign key ("pantry_id", "type_id") references "item_type" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use" add constraint "item_use_varies_id_foreign" foreign key ("pantry_id", "varies_id") references "item_use" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use" add constraint "item_use_leaves_id_foreign" foreign key ("pantry_id", "leaves_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_without" add constraint "item_use_without_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_use_without" add constraint "item_use_without_use_id_foreign" foreign key ("pantry_id", "use_id") references "item_use" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_without" add constraint "item_use_without_condition_id_foreign" foreign key ("pantry_id", "condition_id") references "condition" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_situation" add constraint "item_use_situation_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_use_situation" add constraint "item_use_situation_use_id_foreign" foreign key ("pantry_id", "use_id") references "item_use" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_situation" add constraint "item_use_situation_situation_id_foreign" foreign key ("pantry_id", "situation_id") references "situation" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_having" add constraint "item_use_having_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_use_having" add constraint "item_use_having_use_id_foreign" foreign key ("pantry_id", "use_id") references "item_use" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_having" add constraint "item_use_having_condition_id_foreign" foreign key ("pantry_id", "condition_id") references "condition" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "condition_stop" add constraint "condition_stop_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "condition_stop" add constraint "condition_stop_condition_id_foreign" foreign key ("pantry_id", "condition_id") references "condition" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "condition_stop" add constraint "condition_stop_use_id_foreign" foreign key ("pantry_id", "use_id") references "item_use" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "chance_table_draw_entry" add constraint "chance_table_draw_entry_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "chance_table_draw_entry" add constraint "chance_table_draw_entry_draw_position_foreign" foreign key ("pantry_id", "table_id", "draw_position") references "chance_table_draw" ("pantry_id", "table_id", "position") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "chance_table_draw_entry" add constraint "chance_table_draw_entry_what_item_item_id_foreign" foreign key ("pantry_id", "what_item_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "chance_table_draw_entry" add constraint "chance_table_draw_entry_what_currency_currency_id_foreign" foreign key ("pantry_id", "what_currency_currency_id") references "currency" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "chance_table_draw_entry" add constraint "chance_table_draw_entry_what_table_table_id_foreign" foreign key ("pantry_id", "what_table_table_id") references "chance_table" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "chance_table_chance" add constraint "chance_table_chance_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "chance_table_chance" add constraint "chance_table_chance_table_id_foreign" foreign key ("pantry_id", "table_id") references "chance_table" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "chance_table_chance" add constraint "chance_table_chance_what_item_item_id_foreign" foreign key ("pantry_id", "what_item_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "chance_table_chance" add constraint "chance_table_chance_what_currency_currency_id_foreign" foreign key ("pantry_id", "what_currency_currency_id") references "currency" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "chance_table_chance" add constraint "chance_table_chance_what_table_table_id_foreign" foreign key ("pantry_id", "what_table_table_id") references "chance_table" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "chance_table_alway" add constraint "chance_table_alway_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "chance_table_alway" add constraint "chance_table_alway_table_id_foreign" foreign key ("pantry_id", "table_id") references "chance_table" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "chance_table_alway" add constraint "chance_table_alway_what_item_item_id_foreign" foreign key ("pantry_id", "what_item_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "chance_table_alway" add constraint "chance_table_alway_what_currency_currency_id_foreign" foreign key ("pantry_id", "what_currency_currency_id") references "currency" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "chance_table_alway" add constraint "chance_table_alway_what_table_table_id_foreign" foreign key ("pantry_id", "what_table_table_id") references "chance_table" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_block" add constraint "item_block_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_block" add constraint "item_block_item_id_foreign" foreign key ("pantry_id", "item_id") references "item" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_block" add constraint "item_block_slot_id_foreign" foreign key ("pantry_id", "slot_id") references "slot" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_least" add constraint "item_use_least_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_use_least" add constraint "item_use_least_use_id_foreign" foreign key ("pantry_id", "use_id") references "item_use" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_least" add constraint "item_use_least_stat_id_foreign" foreign key ("pantry_id", "stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect" add constraint "item_use_effect_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_use_effect" add constraint "item_use_effect_use_id_foreign" foreign key ("pantry_id", "use_id") references "item_use" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect" add constraint "item_use_effect_does_restore_resource_id_foreign" foreign key ("pantry_id", "does_restore_resource_id") references "resource" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect" add constraint "item_use_effect_does_drain_resource_id_foreign" foreign key ("pantry_id", "does_drain_resource_id") references "resource" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect" add constraint "item_use_effect_does_apply_condition_id_foreign" foreign key ("pantry_id", "does_apply_condition_id") references "condition" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect" add constraint "item_use_effect_does_clear_condition_id_foreign" foreign key ("pantry_id", "does_clear_condition_id") references "condition" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect" add constraint "item_use_effect_does_change_stat_id_foreign" foreign key ("pantry_id", "does_change_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect" add constraint "item_use_effect_does_draw_table_id_foreign" foreign key ("pantry_id", "does_draw_table_id") references "chance_table" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect" add constraint "item_use_effect_does_give_item_id_foreign" foreign key ("pantry_id", "does_give_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect" add constraint "item_use_effect_does_take_item_id_foreign" foreign key ("pantry_id", "does_take_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect" add constraint "item_use_effect_does_pay_currency_id_foreign" foreign key ("pantry_id", "does_pay_currency_id") references "currency" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect" add constraint "item_use_effect_does_charge_currency_id_foreign" foreign key ("pantry_id", "does_charge_currency_id") references "currency" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect" add constraint "item_use_effect_does_teach_recipe_id_foreign" foreign key ("pantry_id", "does_teach_recipe_id") references "recipe" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect" add constraint "item_use_effect_does_send_signal_id_foreign" foreign key ("pantry_id", "does_send_signal_id") references "signal" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect_does_send_told" add constraint "item_use_effect_does_send_told_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_use_effect_does_send_told" add constraint "item_use_effect_does_send_told_effect_position_foreign" foreign key ("pantry_id", "use_id", "effect_position") references "item_use_effect" ("pantry_id", "use_id", "position") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "condition_change" add constraint "condition_change_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "condition_change" add constraint "condition_change_condition_id_foreign" foreign key ("pantry_id", "condition_id") references "condition" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "condition_change" add constraint "condition_change_stat_id_foreign" foreign key ("pantry_id", "stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject" add constraint "subject_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "subject_resource" add constraint "subject_resource_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "subject_resource" add constraint "subject_resource_subject_id_foreign" foreign key ("pantry_id", "subject_id") references "subject" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_resource" add constraint "subject_resource_resource_id_foreign" foreign key ("pantry_id", "resource_id") references "resource" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_money" add constraint "subject_money_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "subject_money" add constraint "subject_money_subject_id_foreign" foreign key ("pantry_id", "subject_id") references "subject" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_money" add constraint "subject_money_currency_id_foreign" foreign key ("pantry_id", "currency_id") references "currency" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_know" add constraint "subject_know_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "subject_know" add constraint "subject_know_subject_id_foreign" foreign key ("pantry_id", "subject_id") references "subject" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_know" add constraint "subject_know_recipe_id_foreign" foreign key ("pantry_id", "recipe_id") references "recipe" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_kit" add constraint "subject_kit_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "subject_kit" add constraint "subject_kit_subject_id_foreign" foreign key ("pantry_id", "subject_id") references "subject" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_kit" add constraint "subject_kit_item_id_foreign" foreign key ("pantry_id", "item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_growth" add constraint "subject_growth_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "subject_growth" add constraint "subject_growth_subject_id_foreign" foreign key ("pantry_id", "subject_id") references "subject" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_growth" add constraint "subject_growth_stat_id_foreign" foreign key ("pantry_id", "stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_slot" add constraint "subject_slot_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "subject_slot" add constraint "subject_slot_subject_id_foreign" foreign key ("pantry_id", "subject_id") references "subject" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_slot" add constraint "subject_slot_slot_id_foreign" foreign key ("pantry_id", "slot_id") references "slot" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_stat" add constraint "subject_stat_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "subject_stat" add constraint "subject_stat_subject_id_foreign" foreign key ("pantry_id", "subject_id") references "subject" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_stat" add constraint "subject_stat_stat_id_foreign" foreign key ("pantry_id", "stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_worn" add constraint "subject_worn_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "subject_worn" add constraint "subject_worn_subject_id_foreign" foreign key ("pantry_id", "subject_id") references "subject" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_worn" add constraint "subject_worn_item_id_foreign" foreign key ("pantry_id", "item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_stat_value_name" add constraint "subject_stat_value_name_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "subject_stat_value_name" add constraint "subject_stat_value_name_stat_stat_id_foreign" foreign key ("pantry_id", "subject_id", "stat_stat_id") references "subject_stat" ("pantry_id", "subject_id", "stat_id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_stat_value_name" add constraint "subject_stat_value_name_to_stat_id_foreign" foreign key ("pantry_id", "to_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_stat_value_name" add constraint "subject_stat_value_name_to_resource_id_foreign" foreign key ("pantry_id", "to_resource_id") references "resource" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_stat_value_name" add constraint "subject_stat_value_name_to_field_id_foreign" foreign key ("pantry_id", "to_field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "subject_stat_value_name" add constraint "subject_stat_value_name_to_constant_id_foreign" foreign key ("pantry_id", "to_constant_id") references "constant" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "resource_start_name" add constraint "resource_start_name_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "resource_start_name" add constraint "resource_start_name_resource_id_foreign" foreign key ("pantry_id", "resource_id") references "resource" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "resource_start_name" add constraint "resource_start_name_to_stat_id_foreign" foreign key ("pantry_id", "to_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "resource_start_name" add constraint "resource_start_name_to_resource_id_foreign" foreign key ("pantry_id", "to_resource_id") references "resource" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "resource_start_name" add constraint "resource_start_name_to_field_id_foreign" foreign key ("pantry_id", "to_field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "resource_start_name" add constraint "resource_start_name_to_constant_id_foreign" foreign key ("pantry_id", "to_constant_id") references "constant" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "resource_recovery_name" add constraint "resource_recovery_name_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "resource_recovery_name" add constraint "resource_recovery_name_resource_id_foreign" foreign key ("pantry_id", "resource_id") references "resource" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "resource_recovery_name" add constraint "resource_recovery_name_to_stat_id_foreign" foreign key ("pantry_id", "to_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "resource_recovery_name" add constraint "resource_recovery_name_to_resource_id_foreign" foreign key ("pantry_id", "to_resource_id") references "resource" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "resource_recovery_name" add constraint "resource_recovery_name_to_field_id_foreign" foreign key ("pantry_id", "to_field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "resource_recovery_name" add constraint "resource_recovery_name_to_constant_id_foreign" foreign key ("pantry_id", "to_constant_id") references "constant" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "resource_most_name" add constraint "resource_most_name_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "resource_most_name" add constraint "resource_most_name_resource_id_foreign" foreign key ("pantry_id", "resource_id") references "resource" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "resource_most_name" add constraint "resource_most_name_to_stat_id_foreign" foreign key ("pantry_id", "to_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "resource_most_name" add constraint "resource_most_name_to_resource_id_foreign" foreign key ("pantry_id", "to_resource_id") references "resource" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "resource_most_name" add constraint "resource_most_name_to_field_id_foreign" foreign key ("pantry_id", "to_field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "resource_most_name" add constraint "resource_most_name_to_constant_id_foreign" foreign key ("pantry_id", "to_constant_id") references "constant" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect_amount_name" add constraint "item_use_effect_amount_name_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "item_use_effect_amount_name" add constraint "item_use_effect_amount_name_effect_position_foreign" foreign key ("pantry_id", "use_id", "effect_position") references "item_use_effect" ("pantry_id", "use_id", "position") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect_amount_name" add constraint "item_use_effect_amount_name_to_stat_id_foreign" foreign key ("pantry_id", "to_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect_amount_name" add constraint "item_use_effect_amount_name_to_resource_id_foreign" foreign key ("pantry_id", "to_resource_id") references "resource" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect_amount_name" add constraint "item_use_effect_amount_name_to_field_id_foreign" foreign key ("pantry_id", "to_field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_use_effect_amount_name" add constraint "item_use_effect_amount_name_to_constant_id_foreign" foreign key ("pantry_id", "to_constant_id") references "constant" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "condition_pulse_amount_name" add constraint "condition_pulse_amount_name_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "condition_pulse_amount_name" add constraint "condition_pulse_amount_name_pulse_position_foreign" foreign key ("pantry_id", "condition_id", "pulse_position") references "condition_pulse" ("pantry_id", "condition_id", "position") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "condition_pulse_amount_name" add constraint "condition_pulse_amount_name_to_stat_id_foreign" foreign key ("pantry_id", "to_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "condition_pulse_amount_name" add constraint "condition_pulse_amount_name_to_resource_id_foreign" foreign key ("pantry_id", "to_resource_id") references "resource" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "condition_pulse_amount_name" add constraint "condition_pulse_amount_name_to_field_id_foreign" foreign key ("pantry_id", "to_field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "condition_pulse_amount_name" add constraint "condition_pulse_amount_name_to_constant_id_foreign" foreign key ("pantry_id", "to_constant_id") references "constant" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "condition_change_by_name" add constraint "condition_change_by_name_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "condition_change_by_name" add constraint "condition_change_by_name_change_position_foreign" foreign key ("pantry_id", "condition_id", "change_position") references "condition_change" ("pantry_id", "condition_id", "position") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "condition_change_by_name" add constraint "condition_change_by_name_to_stat_id_foreign" foreign key ("pantry_id", "to_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "condition_change_by_name" add constraint "condition_change_by_name_to_resource_id_foreign" foreign key ("pantry_id", "to_resource_id") references "resource" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "condition_change_by_name" add constraint "condition_change_by_name_to_field_id_foreign" foreign key ("pantry_id", "to_field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "condition_change_by_name" add constraint "condition_change_by_name_to_constant_id_foreign" foreign key ("pantry_id", "to_constant_id") references "constant" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial" add constraint "trial_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "trial" add constraint "trial_subject_id_foreign" foreign key ("pantry_id", "subject_id") references "subject" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_trial_id_foreign" foreign key ("pantry_id", "trial_id") references "trial" ("pantry_id", "id") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_be_situation_id_foreign" foreign key ("pantry_id", "does_be_situation_id") references "situation" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_use_item_id_foreign" foreign key ("pantry_id", "does_use_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_use_use_id_foreign" foreign key ("pantry_id", "does_use_use_id") references "item_use" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_use_every_item_id_foreign" foreign key ("pantry_id", "does_use_every_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_use_every_use_id_foreign" foreign key ("pantry_id", "does_use_every_use_id") references "item_use" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_use_whenever_item_id_foreign" foreign key ("pantry_id", "does_use_whenever_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_use_whenever_use_id_foreign" foreign key ("pantry_id", "does_use_whenever_use_id") references "item_use" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_stop_item_id_foreign" foreign key ("pantry_id", "does_stop_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_harm_resource_id_foreign" foreign key ("pantry_id", "does_harm_resource_id") references "resource" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_wear_item_id_foreign" foreign key ("pantry_id", "does_wear_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_take_off_item_id_foreign" foreign key ("pantry_id", "does_take_off_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_get_item_id_foreign" foreign key ("pantry_id", "does_get_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_drop_item_id_foreign" foreign key ("pantry_id", "does_drop_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_make_recipe_id_foreign" foreign key ("pantry_id", "does_make_recipe_id") references "recipe" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_run_source_id_foreign" foreign key ("pantry_id", "does_run_source_id") references "source" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_expect_item_item_id_foreign" foreign key ("pantry_id", "does_expect_item_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_expect_condition_condition_id_foreign" foreign key ("pantry_id", "does_expect_condition_condition_id") references "condition" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step_holds_name" add constraint "trial_step_holds_name_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "trial_step_holds_name" add constraint "trial_step_holds_name_step_position_foreign" foreign key ("pantry_id", "trial_id", "step_position") references "trial_step" ("pantry_id", "trial_id", "position") on update cascade on delete cascade deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step_holds_name" add constraint "trial_step_holds_name_to_stat_id_foreign" foreign key ("pantry_id", "to_stat_id") references "stat" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step_holds_name" add constraint "trial_step_holds_name_to_resource_id_foreign" foreign key ("pantry_id", "to_resource_id") references "resource" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step_holds_name" add constraint "trial_step_holds_name_to_field_id_foreign" foreign key ("pantry_id", "to_field_id") references "field" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step_holds_name" add constraint "trial_step_holds_name_to_constant_id_foreign" foreign key ("pantry_id", "to_constant_id") references "constant" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "pantry" add column "overflow" varchar(10) not null default 'stored', add column "uptime_ceiling" double precision not null default 1, add column "crate_floor" double precision not null default 1, add column "crate_ceiling" double precision not null default 1`,
    );
    this.addSql(`alter table "pantry" alter column "overflow" drop default`);
    this.addSql(`alter table "pantry" alter column "uptime_ceiling" drop default`);
    this.addSql(`alter table "pantry" alter column "crate_floor" drop default`);
    this.addSql(`alter table "pantry" alter column "crate_ceiling" drop default`);
    this.addSql(`alter table "item_type" add column "room" int null, add column "carries" double precision null`);
    this.addSql(`alter table "item" add column "room" int null, add column "carries" double precision null`);
  }
}
