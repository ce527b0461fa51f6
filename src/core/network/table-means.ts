/** What the tables of a catalogue give on average, and which of them stand within themselves: found once for all who ask. */
import type { Catalogue } from "../catalogue/catalogue";
import type { Index } from "../catalogue/persistent-map";
import type { ChanceTable } from "../kinds/index";
import type { Id } from "../schema/id";
import { TableMeans, tablesInThemselves } from "./box";

const MEANS: Index<ChanceTable, TableMeans> = { build: (tables) => new TableMeans(tables), follow: () => null };
export const tableMeans = (catalogue: Catalogue): TableMeans => catalogue.records.table.index(MEANS);

const CIRCULAR: Index<ChanceTable, ReadonlySet<Id>> = { build: tablesInThemselves, follow: () => null };
/** Tables that stand within themselves, however far down. */
export const circularTables = (catalogue: Catalogue): ReadonlySet<Id> => catalogue.records.table.index(CIRCULAR);
