/** slots of a bag. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class SlotsOfABag extends Migration {
  override async up(): Promise<void> {
    this.addSql(`alter table "trial_step" add column "does_move_one" int null, add column "does_move_slot" int null`);
  }
}
