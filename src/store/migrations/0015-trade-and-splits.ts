/** trade and splits. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class TradeAndSplits extends Migration {
  override async up(): Promise<void> {
    this.addSql(
      `alter table "trial_step" add column "does_make_item_item_id" varchar(12) null, add column "does_make_item_amount" double precision null, add column "does_buy_item_id" varchar(12) null, add column "does_buy_amount" double precision null, add column "does_buy_source_id" varchar(12) null, add column "does_sell_item_id" varchar(12) null, add column "does_sell_amount" double precision null, add column "does_sell_source_id" varchar(12) null, add column "does_split_item_id" varchar(12) null, add column "does_split_amount" double precision null, add column "does_merge_item_id" varchar(12) null`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_make_item_item_id_foreign" foreign key ("pantry_id", "does_make_item_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_buy_item_id_foreign" foreign key ("pantry_id", "does_buy_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_buy_source_id_foreign" foreign key ("pantry_id", "does_buy_source_id") references "source" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_sell_item_id_foreign" foreign key ("pantry_id", "does_sell_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_sell_source_id_foreign" foreign key ("pantry_id", "does_sell_source_id") references "source" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_split_item_id_foreign" foreign key ("pantry_id", "does_split_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `alter table "trial_step" add constraint "trial_step_does_merge_item_id_foreign" foreign key ("pantry_id", "does_merge_item_id") references "item" ("pantry_id", "id") on update cascade on delete no action deferrable initially deferred`,
    );
    this.addSql(
      `create index "trial_step_does_make_item_item_id_index" on "trial_step" ("pantry_id", "does_make_item_item_id")`,
    );
    this.addSql(`create index "trial_step_does_buy_item_id_index" on "trial_step" ("pantry_id", "does_buy_item_id")`);
    this.addSql(
      `create index "trial_step_does_buy_source_id_index" on "trial_step" ("pantry_id", "does_buy_source_id")`,
    );
    this.addSql(`create index "trial_step_does_sell_item_id_index" on "trial_step" ("pantry_id", "does_sell_item_id")`);
    this.addSql(
      `create index "trial_step_does_sell_source_id_index" on "trial_step" ("pantry_id", "does_sell_source_id")`,
    );
    this.addSql(
      `create index "trial_step_does_split_item_id_index" on "trial_step" ("pantry_id", "does_split_item_id")`,
    );
    this.addSql(
      `create index "trial_step_does_merge_item_id_index" on "trial_step" ("pantry_id", "does_merge_item_id")`,
    );
  }
}
