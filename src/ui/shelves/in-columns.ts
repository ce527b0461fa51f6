/** What stands in the columns of the shelves: the words to filter by, and which stats are worth a column. */
import type { Catalogue } from "@/core/catalogue/catalogue";
import type { Item } from "@/core/kinds/index";
import type { Id } from "@/core/schema/id";
import type { Column } from "../grid/columns";

/** The different words that stand in a column, if they are few. */
export function wordsIn(rows: readonly Item[], column: Column<Item>): readonly string[] {
  const found = new Set<string>();
  for (const item of rows.slice(0, LOOKED_AT)) {
    for (const word of column.text(item).split(",")) if (word.trim()) found.add(word.trim());
    if (found.size > WORDS) return [];
  }
  return [...found].sort((a, b) => a.localeCompare(b, undefined, { numeric: true }));
}
const LOOKED_AT = 5000;
const WORDS = 40;

/** Stats by how many items say them, so that the first columns are the ones with something in them. */
export function mostUsedStats(catalogue: Catalogue): Id[] {
  const uses = new Map([...catalogue.records.stat.keys()].map((id) => [id, 0]));
  for (const item of catalogue.records.item.values())
    for (const id of Object.keys(item.stats) as Id[]) uses.set(id, (uses.get(id) ?? 0) + 1);
  return [...uses].sort((a, b) => b[1] - a[1]).map(([id]) => id);
}
