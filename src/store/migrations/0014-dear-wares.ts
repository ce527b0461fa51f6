/** dear wares. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class DearWares extends Migration {
  override async up(): Promise<void> {
    this.addSql(`alter table "pantry" add column "ware_times" double precision not null default 5`);
    this.addSql(`alter table "pantry" alter column "ware_times" drop default`);
  }
}
