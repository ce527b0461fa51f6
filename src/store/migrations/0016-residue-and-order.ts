/** residue and order. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class ResidueAndOrder extends Migration {
  override async up(): Promise<void> {
    this.addSql(`alter table "pantry" add column "combination_order" varchar(15) not null default 'does not matter'`);
    this.addSql(`alter table "pantry" alter column "combination_order" drop default`);
    this.addSql(`alter table "item" add column "ashes" double precision null`);
    this.addSql(`alter table "item_type" add column "ashes" double precision null`);
  }
}
