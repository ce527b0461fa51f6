/** Reads a whole catalogue as plain rows. */
import type { EntityManager } from "@mikro-orm/postgresql";
import type { Catalogue } from "../core/catalogue/catalogue";
import type { LoggedChange, Moved } from "../core/analysis/board";
import type { Edit } from "../core/catalogue/changes";
import type { AnyRecord, Id, Kind, Line, Pantry } from "../core/catalogue/records";
import { Shelf } from "../core/catalogue/shelf";

type Row = Record<string, never> & { [column: string]: unknown };

/** Runs plain SQL, inside the manager's transaction where it has one. */
export const query = (em: EntityManager, sql: string, params: readonly unknown[] = []): Promise<Row[]> => em.getConnection().execute(sql, [...params], "all", em.getTransactionContext());

export interface PantryHead {
  readonly id: Id;
  readonly key: string;
  readonly name: string;
  readonly revision: number;
}

export async function listPantries(em: EntityManager): Promise<PantryHead[]> {
  return (await query(em, "select id, key, name, revision from pantry order by name, key")) as unknown as PantryHead[];
}

/** The catalogue as it stands; null when there is no such pantry. Repeatable read: all tables at one moment. */
export function loadCatalogue(em: EntityManager, pantry: Id): Promise<Catalogue | null> {
  return em.transactional((tx) => readCatalogue(tx as EntityManager, pantry), { isolationLevel: "repeatable read" as never, readOnly: true });
}

async function readCatalogue(em: EntityManager, pantry: Id): Promise<Catalogue | null> {
  const [head] = await query(em, "select * from pantry where id = ?", [pantry]);
  if (!head) return null;
  const all = (table: string) => query(em, `select * from "${table}" where pantry_id = ? order by key`, [pantry]);
  const of = (child: string, parent: string, key: string, order: string) =>
    query(em, `select c.* from "${child}" c join "${parent}" p on p.id = c.${key} where p.pantry_id = ? order by c.${key}, ${order}`, [pantry]);
  const currencies = await all("currency");
  const rarities = await all("rarity");
  const stats = await all("stat");
  const tags = await all("tag");
  const types = await all("item_type");
  const items = await all("item");
  const recipes = await all("recipe");
  const sources = await all("source");
  const typeStats = statsBy(await of("item_type_stat", "item_type", "type_id", "stat_id"), "type_id");
  const itemStats = statsBy(await of("item_stat", "item", "item_id", "stat_id"), "item_id");
  const itemTags = group(await of("item_tag", "item", "item_id", "position"), "item_id", (r) => r.tag_id as Id);
  const recipeLines = group(await of("recipe_line", "recipe", "recipe_id", "position"), "recipe_id", lineOf);
  const sourceLines = group(await of("source_line", "source", "source_id", "position"), "source_id", lineOf);

  const named = (r: Row) => ({ id: r.id as unknown as Id, key: r.key as string, name: r.name as string });
  const open = (r: Row) => ({ level: r.level, icon: r.icon, stack: r.stack, mass: r.mass, buy: r.buy, sell: r.sell });
  const shelf = (kind: Kind, rows: Row[], record: (r: Row) => object) => Shelf.of(kind, rows.map((r) => ({ ...named(r), ...record(r) }) as unknown as AnyRecord));
  const settings: Pantry = {
    ...named(head),
    ticksPerSecond: head.ticks_per_second as number,
    labourPerHour: head.labour_per_hour as number,
    priceFloor: head.price_floor as number,
    salvageCeiling: head.salvage_ceiling as number,
  };
  return {
    revision: head.revision as number,
    pantry: settings,
    currency: shelf("currency", currencies, (r) => ({ symbol: r.symbol, worth: r.worth })),
    rarity: shelf("rarity", rarities, (r) => ({ rank: r.rank, colour: r.colour })),
    stat: shelf("stat", stats, (r) => ({ unit: r.unit, form: r.form, better: r.better, min: r.min, max: r.max })),
    tag: shelf("tag", tags, () => ({})),
    type: shelf("type", types, (r) => ({ parent: r.parent_id, colour: r.colour, ...open(r), stats: typeStats.get(r.id as string) ?? {} })),
    item: shelf("item", items, (r) => ({
      type: r.type_id,
      rarity: r.rarity_id,
      tags: itemTags.get(r.id as string) ?? [],
      ...open(r),
      stats: itemStats.get(r.id as string) ?? {},
      description: r.description,
      status: r.status,
      note: r.note,
    })),
    recipe: shelf("recipe", recipes, (r) => ({ kind: r.kind, lines: recipeLines.get(r.id as string) ?? [], ticks: Number(r.ticks), fee: r.fee, feeCurrency: r.fee_currency_id, level: r.level, taughtBy: r.taught_by_id, status: r.status, note: r.note })),
    source: shelf("source", sources, (r) => ({ kind: r.kind, lines: sourceLines.get(r.id as string) ?? [], ticks: Number(r.ticks), price: r.price, currency: r.currency_id, note: r.note })),
  } as unknown as Catalogue;
}

const lineOf = (r: Row): Line => ({ role: r.role as Line["role"], item: r.item_id as Id, min: r.min as number, max: r.max as number, chance: r.chance as number, uses: r.uses as number | null, ...(r.draw === null ? {} : { draw: { group: r.draw as number, times: r.times as number, weight: r.weight as number, of: r.draw_of as number } }) });

function group<T>(rows: Row[], key: string, entry: (r: Row) => T): Map<string, T[]> {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const list = groups.get(row[key] as string);
    if (list) list.push(entry(row));
    else groups.set(row[key] as string, [entry(row)]);
  }
  return groups;
}

const statsBy = (rows: Row[], key: string): Map<string, Record<string, number>> =>
  new Map([...group(rows, key, (r) => [r.stat_id as string, r.value as number] as const)].map(([id, list]) => [id, Object.fromEntries(list)]));

const logged = (r: Row): LoggedChange => ({
  revision: r.revision as number,
  author: r.author as string,
  at: new Date(r.at as string).toISOString(),
  note: r.note as string,
  undoes: r.undoes as number | null,
  edits: r.edits as unknown as Edit[],
  size: r.size as number,
  moved: r.moved as unknown as Moved | null,
});

/** Changes after a revision, oldest first. */
export const changesAfter = async (em: EntityManager, pantry: Id, revision: number): Promise<LoggedChange[]> =>
  (await query(em, 'select * from "change" where pantry_id = ? and revision > ? order by revision', [pantry, revision])).map(logged);

/** An import of thousands of records is listed without its edits. */
const SHOWN = 200;
const LISTED = `c.revision, c.author, c.at, c.note, c.undoes, c.size, c.moved, case when c.size <= ${SHOWN} then c.edits else '[]'::jsonb end as edits`;

/** A page of the log, newest first, below a revision. */
export const changesBefore = async (em: EntityManager, pantry: Id, before: number, most: number): Promise<LoggedChange[]> =>
  (await query(em, `select ${LISTED} from "change" c where pantry_id = ? and revision < ? order by revision desc limit ?`, [pantry, before, most])).map(logged);

export async function changeAt(em: EntityManager, pantry: Id, revision: number): Promise<LoggedChange | null> {
  const [row] = await query(em, 'select * from "change" where pantry_id = ? and revision = ?', [pantry, revision]);
  return row ? logged(row) : null;
}

/** Changes that touched a record, newest first. */
export const changesOf = async (em: EntityManager, pantry: Id, record: Id, most: number): Promise<LoggedChange[]> =>
  (
    await query(
      em,
      `select ${LISTED} from "change" c join change_touch t on t.pantry_id = c.pantry_id and t.revision = c.revision
       where t.pantry_id = ? and t.record = ? order by c.revision desc limit ?`,
      [pantry, record, most],
    )
  ).map(logged);
