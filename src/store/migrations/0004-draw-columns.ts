/** Columns of draws are called as the members of a draw are. Written once, never edited. */
import { Migration } from "@mikro-orm/migrations";

const RENAMED = [
  ["draw", "group"],
  ["times", "times"],
  ["weight", "weight"],
] as const;

export class DrawColumns extends Migration {
  override async up(): Promise<void> {
    for (const table of ["recipe_line", "source_line"])
      for (const [name, column] of RENAMED)
        this.addSql(`alter table "${table}" rename column "${name}" to "draw_${column}"`);
  }
  override async down(): Promise<void> {
    for (const table of ["recipe_line", "source_line"])
      for (const [name, column] of RENAMED)
        this.addSql(`alter table "${table}" rename column "draw_${column}" to "${name}"`);
  }
}
