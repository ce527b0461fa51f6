/** unique fields. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

export class UniqueFields extends Migration {
  override async up(): Promise<void> {
    this.addSql(`alter table "field" add column "unique" boolean not null default false`);
    this.addSql(`alter table "field" alter column "unique" drop default`);
  }
}
