/** Every migration in order, with an explicit name: file and class names do not survive bundling. */
import { FirstTables } from "./0001-first-tables";

export const MIGRATIONS = [{ name: "0001-first-tables", class: FirstTables }];
