/** slots cooldowns situations. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class SlotsCooldownsSituations extends Migration {
  override async up(): Promise<void> {
    this.addSql(
      `create table "cooldown" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "ticks" bigint not null, "note" text not null, constraint "cooldown_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(
      `alter table "cooldown" add constraint "cooldown_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "situation" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "note" text not null, constraint "situation_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(
      `alter table "situation" add constraint "situation_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `create table "slot" ("pantry_id" varchar(12) not null, "id" varchar(12) not null, "key" varchar(90) not null, "name" varchar(120) not null, "places" int not null, "order" int not null, "note" text not null, constraint "slot_pkey" primary key ("pantry_id", "id"))`,
    );
    this.addSql(
      `alter table "slot" add constraint "slot_key_unique" unique ("pantry_id", "key") deferrable initially deferred`,
    );
    this.addSql(
      `alter table "cooldown" add constraint "cooldown_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "situation" add constraint "situation_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "slot" add constraint "slot_pantry_id_foreign" foreign key ("pantry_id") references "pantry" ("id") on update cascade on delete cascade`,
    );
    this.addSql(
      `alter table "rarity" add column "power" double precision not null default 1, add column "price" double precision not null default 1`,
    );
    this.addSql(`alter table "rarity" alter column "power" drop default`);
    this.addSql(`alter table "rarity" alter column "price" drop default`);
    this.addSql(
      `alter table "item_type" add column "limit" int null, add column "sellable" boolean null, add column "droppable" boolean null, add column "storable" boolean null, add column "slot_id" varchar(12) null, add column "cooldown_id" varchar(12) null`,
    );
    this.addSql(
      `alter table "item_type" add constraint "item_type_slot_id_foreign" foreign key ("pantry_id", "slot_id") references "slot" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item_type" add constraint "item_type_cooldown_id_foreign" foreign key ("pantry_id", "cooldown_id") references "cooldown" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(`create index "item_type_slot_id_index" on "item_type" ("pantry_id", "slot_id")`);
    this.addSql(`create index "item_type_cooldown_id_index" on "item_type" ("pantry_id", "cooldown_id")`);
    this.addSql(
      `alter table "item" add column "limit" int null, add column "sellable" boolean null, add column "droppable" boolean null, add column "storable" boolean null, add column "slot_id" varchar(12) null, add column "cooldown_id" varchar(12) null`,
    );
    this.addSql(
      `alter table "item" add constraint "item_slot_id_foreign" foreign key ("pantry_id", "slot_id") references "slot" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "item" add constraint "item_cooldown_id_foreign" foreign key ("pantry_id", "cooldown_id") references "cooldown" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(`create index "item_slot_id_index" on "item" ("pantry_id", "slot_id")`);
    this.addSql(`create index "item_cooldown_id_index" on "item" ("pantry_id", "cooldown_id")`);
    this.addSql(
      `alter table "stat" add column "combine" varchar(10) not null default 'sum', add column "weight" double precision not null default 1`,
    );
    this.addSql(`alter table "stat" alter column "combine" drop default`);
    this.addSql(`alter table "stat" alter column "weight" drop default`);
  }
}
