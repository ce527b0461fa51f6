/** A kind with every field type in tables of its own: what follows from its definition alone. */
import { MikroORM } from "@mikro-orm/postgresql";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { DEFINITIONS } from "../core/kinds/index";
import { seeded } from "../core/numbers/seeded";
import type { Id } from "../core/schema/id";
import type { Kind } from "../core/schema/kind";
import { randomVessel, type Vessel, vessel, type World } from "../core/testing/vessel";
import { withDefaults } from "./difference";
import { entitiesOf, LOG, PantryRow } from "./entities";
import { deleteRows, insertRows, query, selectRows, upsertRows } from "./sql";
import { type RecordRows, recordsFrom, rowsOf, tableOf } from "./tables";
import { freshDatabase } from "./testing/database";

const PANTRY = "pantry000001";
const kind = vessel as unknown as Kind;
const table = tableOf(kind);
const id = (of: string, n: number) => `${of}${String(n).padStart(12 - of.length, "0")}` as Id;
const world: World = Object.fromEntries(
  ["item", "stat", "currency", "vessel"].map((of) => [of, [1, 2, 3].map((n) => id(of, n))]),
);

let database: Awaited<ReturnType<typeof freshDatabase>>;
let orm: MikroORM;
const em = () => orm.em.fork() as never;

beforeAll(async () => {
  database = await freshDatabase();
  const kinds = [...Object.values(DEFINITIONS), vessel] as unknown as Kind[];
  orm = (await MikroORM.init({
    entities: [PantryRow, ...entitiesOf(kinds), ...LOG] as never,
    clientUrl: database.url,
    debug: false,
  })) as never;
  await orm.schema.createSchema();
  await query(
    em(),
    "insert into pantry (id, key, name, ticks_per_second, labour_per_hour, price_floor, salvage_ceiling, overflow, uptime_ceiling, crate_floor, crate_ceiling, ware_times, combination_order) values (?, 'p', 'P', 20, 0, 1, 1, 'stored', 1, 1, 1, 5, 'does not matter')",
    [PANTRY],
  );
  await query(
    em(),
    "insert into item (pantry_id, id, key, name, description, status, note) select ?, 'item0000000' || n, 'i' || n, 'I', '', 'ready', '' from generate_series(1, 3) n",
    [PANTRY],
  );
  await query(
    em(),
    "insert into stat (pantry_id, id, key, name, unit, form, better, combine, maker, weight) select ?, 'stat0000000' || n, 's' || n, 'S', '', 'whole', 'higher', 'sum', 0, 1 from generate_series(1, 3) n",
    [PANTRY],
  );
  await query(
    em(),
    "insert into currency (pantry_id, id, key, name, symbol, worth) select ?, 'currency000' || n, 'c' || n, 'C', '', 1 from generate_series(1, 3) n",
    [PANTRY],
  );
  await put(world.vessel.map((of, n) => ({ ...randomVessel(seeded(n), world, of), key: `fixed_${n}` })));
});
afterAll(async () => {
  await orm?.close(true);
  await database?.drop();
});

/** Writes records and all their parts in one transaction. */
async function put(records: readonly Vessel[]): Promise<void> {
  const rows: RecordRows[] = records.map((r) => rowsOf(kind, r));
  await orm.em.fork().transactional(async (tx) => {
    await query(tx as never, upsertRows(table), [PANTRY, JSON.stringify(rows.map((r) => r.own))]);
    const ids = JSON.stringify(records.map((r) => r.id));
    for (const [k, part] of table.parts.entries()) {
      if (part.above === table.name) await query(tx as never, deleteRows(part.name, part.owner), [PANTRY, ids]);
      await query(tx as never, insertRows(part), [PANTRY, JSON.stringify(rows.flatMap((r) => r.parts[k]))]);
    }
  });
}

async function stored(): Promise<Map<Id, Vessel>> {
  const text = async (of: Parameters<typeof selectRows>[0]) =>
    JSON.parse((await query(em(), selectRows(of), [PANTRY]))[0].rows as string);
  const parts = [];
  for (const part of table.parts) parts.push(await text(part));
  const records = recordsFrom(kind, await text(table), parts) as unknown as Vessel[];
  return new Map(records.map((r) => [r.id, r]));
}

describe("the tables of a kind", () => {
  it("hold records with everything in them, lists within lists too, and give them back as they were", async () => {
    expect(table.parts.map((p) => p.name)).toEqual(
      expect.arrayContaining(["vessel_deck", "vessel_deck_hold", "vessel_deck_hold_mark", "vessel_duty_fish_net"]),
    );
    const random = seeded(11);
    const records = Array.from({ length: 60 }, (_, n) => randomVessel(random, world, id("boat", n)));
    await put(records);
    const first = await stored();
    for (const record of records) expect(first.get(record.id)).toEqual(record);
    const changed = records.slice(0, 20).map((r) => ({ ...randomVessel(random, world, r.id), key: r.key }));
    await put(changed);
    const second = await stored();
    for (const record of [...changed, ...records.slice(20)]) expect(second.get(record.id)).toEqual(record);
  });

  it.each([
    ["a field of its own", { tollCurrency: "nobody000000" as Id }],
    ["a set", { wares: ["nobody000000" as Id] }],
    ["a map", { traits: { nobody000000: 1 } }],
    [
      "a list within a list",
      {
        decks: [
          {
            called: "",
            holds: [{ item: "nobody000000" as Id, amount: 1, locked: false, marks: [] }],
            use: { is: "none" },
          },
        ],
      },
    ],
    ["a union", { duty: { is: "fish", catch: ["nobody000000" as Id], nets: [] } }],
    [
      "a union within a list",
      { decks: [{ called: "", holds: [], use: { is: "cook", heat: 1, pots: ["nobody000000" as Id] } }] },
    ],
  ])("refuse a reference to nothing in %s by themselves", async (_, part) => {
    const record = { ...randomVessel(seeded(3), world, id("ghost", 1)), ...part } as Vessel;
    await expect(put([record])).rejects.toThrow(/foreign key/);
    expect((await stored()).has(record.id)).toBe(false);
  });

  it("let no record go that another refers to, and take all parts of one along", async () => {
    const boat = {
      ...randomVessel(seeded(5), world, id("last", 1)),
      key: "last",
      wares: [id("item", 2)],
      flagship: null,
    };
    await put([boat]);
    await expect(query(em(), "delete from item where id = 'item00000002'")).rejects.toThrow(/foreign key/);
    await query(em(), deleteRows("vessel", "id"), [PANTRY, JSON.stringify([boat.id])]);
    for (const part of table.parts)
      expect(await query(em(), `select 1 from "${part.name}" where "${part.owner}" = ?`, [boat.id])).toEqual([]);
  });
});

describe("a new column", () => {
  const tables = [{ ...table, name: "vessel" }];
  it("that may not be empty gets the field's initial value in the rows that are there", () => {
    expect(
      withDefaults(
        'alter table "vessel" add column "rig" varchar(10) not null, add column "crew" int not null',
        tables,
      ),
    ).toEqual({
      statements: [
        `alter table "vessel" add column "rig" varchar(10) not null default 'punt', add column "crew" int not null default 0`,
        'alter table "vessel" alter column "rig" drop default',
        'alter table "vessel" alter column "crew" drop default',
      ],
      warnings: [],
    });
  });
  it("for which there is none is told of", () => {
    const made = withDefaults('alter table "vessel" add column "sail" int not null', tables);
    expect(made.warnings[0]).toContain("fails where there are rows");
    expect(withDefaults('create index "x" on "vessel" ("rig")', tables).statements).toHaveLength(1);
  });
});
