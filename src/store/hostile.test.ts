/**
 * What the database itself refuses, whatever the program does; what an older database becomes; and that no statement is
 * made of what is written.
 */
import { readdirSync, readFileSync, statSync } from "node:fs";
import { join } from "node:path";
import type { EntityManager } from "@mikro-orm/postgresql";
import ts from "typescript";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Catalogue, emptyCatalogue } from "../core/catalogue/catalogue";
import type { Edit } from "../core/catalogue/edit";
import { newId, type Id } from "../core/schema/id";
import { withDefaults, type Pantry } from "../core/kinds/index";
import { line } from "../core/notation/line";
import { newItem, pantry as testPantry } from "../core/testing/kitchen";
import { commit, createPantry, deletePantry, keepMoved, takeOut, PantryGone } from "./commit";
import { changesAfter, changesOf, listPantries, loadCatalogue, pantryByKey } from "./load";
import { connect, migrate, type Orm } from "./orm";
import { pictureOf, putPicture } from "./pictures";
import { batchOf } from "./testing/batch";
import { query } from "./sql";
import { freshDatabase } from "./testing/database";

let orm: Orm;
let database: Awaited<ReturnType<typeof freshDatabase>>;
const em = () => orm.em.fork() as EntityManager;
beforeAll(async () => {
  database = await freshDatabase();
  orm = await connect(database.url);
  await migrate(orm);
});
afterAll(async () => {
  await orm.close(true);
  await database.drop();
});

const settings = (): Pantry => ({ ...testPantry(), key: `p_${newId()}` });
async function pantry(): Promise<Id> {
  const made = settings();
  expect(await createPantry(em(), made)).toBe(true);
  return made.id;
}
const load = async (id: Id): Promise<Catalogue> =>
  (await loadCatalogue(em(), id)) ?? emptyCatalogue({ ...settings(), id });
const write = (id: Id, edits: readonly Edit[], make?: Pantry) =>
  commit(
    orm,
    id,
    { author: "Ida", note: "" },
    async () => {
      return batchOf(await load(id), edits);
    },
    make,
  );

describe("a pantry that the database has not counted yet", () => {
  it("is deleted at a few looks for each row, not at one for each pair of rows", async () => {
    const many = (n: number, from = 0): Edit[] =>
      Array.from({ length: n }, (_, k) => ({
        op: "add",
        kind: "item",
        record: { ...newItem(`Shell ${from + k}`), tags: [] },
      }));
    const ROWS = 3_000;
    // The first is counted as soon as it is there; the second is written little by little.
    const [counted, other] = [await pantry(), await pantry()];
    await write(counted, many(4_000));
    for (let from = 0; from < ROWS; from += 1_000) await write(other, many(1_000, from));
    const looked = (await em().transactional(async (tx) => {
      const within = tx as EntityManager;
      const looks = async () =>
        Number(
          (
            await query(
              within,
              "select sum(pg_stat_get_xact_tuples_returned(indexrelid)) as n from pg_stat_user_indexes",
            )
          )[0].n,
        );
      const before = await looks();
      await takeOut(within, other);
      await query(within, "set constraints all immediate");
      return (await looks()) - before;
    })) as number;

    expect(looked).toBeGreaterThan(ROWS);
    expect(looked).toBeLessThan(100 * ROWS);
  });
});

describe("two pantries", () => {
  it("may have records of the same id, and neither reaches the other's", async () => {
    const [here, there] = [await pantry(), await pantry()];
    const item = newItem("Cork");
    await write(here, [{ op: "add", kind: "item", record: item }]);
    await write(there, [{ op: "add", kind: "item", record: { ...item, name: "Tar", key: "tar" } }]);
    expect((await load(here)).records.item.get(item.id)?.name).toBe("Cork");
    expect((await load(there)).records.item.get(item.id)?.name).toBe("Tar");
    await write(there, [{ op: "remove", kind: "item", record: { ...item, name: "Tar", key: "tar" } }]);
    expect((await load(here)).records.item.size).toBe(1);
  });

  it("can't refer to each other's records: the database refuses it", async () => {
    const [here, there] = [await pantry(), await pantry()];
    const [item, recipe] = [newItem("Cork"), withDefaults("recipe", { id: newId(), key: "r", name: "R" })];
    await write(here, [{ op: "add", kind: "item", record: item }]);
    await write(there, [{ op: "add", kind: "recipe", record: recipe }]);
    const into =
      "insert into recipe_line (pantry_id, recipe_id, position, role, item_id, min, max, chance) values (?, ?, 0, 'output', ?, 1, 1, 1)";
    for (const owner of [here, there])
      await expect(query(em(), into, [owner, recipe.id, item.id])).rejects.toThrow(/foreign key/);
    await expect(query(em(), "update recipe set taught_by_id = ? where id = ?", [item.id, recipe.id])).rejects.toThrow(
      /foreign key/,
    );
  });

  it("are deleted one at a time, whole and with their log", async () => {
    const [here, there] = [await pantry(), await pantry()];
    const item = newItem("Cork");
    for (const id of [here, there])
      await write(id, [
        { op: "add", kind: "item", record: item },
        {
          op: "add",
          kind: "recipe",
          record: withDefaults("recipe", {
            id: newId(),
            key: "r",
            name: "R",
            taughtBy: item.id,
            lines: [line("output", item.id)],
          }),
        },
      ]);
    expect(await deletePantry(orm, here)).toBe(true);
    expect(await deletePantry(orm, here)).toBe(false);
    expect(await loadCatalogue(em(), here)).toBeNull();
    const tables = await query(
      em(),
      "select table_name as name from information_schema.columns where column_name = 'pantry_id' and table_schema = 'public'",
    );
    expect(tables.length).toBe(106);
    for (const { name } of tables)
      expect(await query(em(), `select 1 from "${name}" where pantry_id = ?`, [here])).toEqual([]);
    expect((await load(there)).records.recipe.size).toBe(1);
    await expect(write(here, [{ op: "add", kind: "item", record: item }])).rejects.toThrow(PantryGone);
  });

  it("can't have one key, and an import that fails leaves no empty one behind", async () => {
    const first = settings();
    expect(await createPantry(em(), first)).toBe(true);
    expect(await createPantry(em(), { ...first, id: newId() })).toBe(false);
    const other = await pantry();
    const before = (await load(other)).pantry.key;
    expect(
      await write(other, [{ op: "set", kind: "pantry", id: other, field: "key", from: before, to: first.key }]),
    ).toMatchObject({ ok: false, issues: [{ path: "key" }] });
    const fresh = settings();
    expect(
      await write(fresh.id, [{ op: "add", kind: "item", record: { ...newItem("Cork"), level: -1 } }], fresh),
    ).toMatchObject({ ok: false });
    await expect(
      commit(orm, fresh.id, { author: "Ida", note: "" }, () => Promise.reject(new Error("it broke")), fresh),
    ).rejects.toThrow("it broke");
    expect((await listPantries(em())).some((p) => p.id === fresh.id)).toBe(false);
    expect(await write(fresh.id, [{ op: "add", kind: "item", record: newItem("Cork") }], fresh)).toMatchObject({
      ok: true,
      revision: 1,
    });
  });
});

describe("every value that the rules take", () => {
  it("comes back as it was written", async () => {
    const id = await pantry();
    const [a, b] = [
      newItem("O'Hare; drop table item; --", {
        description: '? ?? $1 :x \\ "q"\n\tline 😀',
        mass: 1e-9,
        buy: 999_999_999.123,
        sell: 0.30000000000000004,
        note: "{}[]%",
      }),
      newItem("海盐 👩‍🍳"),
    ];
    await write(id, [
      { op: "add", kind: "item", record: a },
      { op: "add", kind: "item", record: b },
    ]);
    const loaded = await load(id);
    expect([loaded.records.item.get(a.id), loaded.records.item.get(b.id)]).toEqual([a, b]);
    expect(JSON.parse((await changesAfter(em(), id, 0))[0].edits)).toEqual([
      { op: "add", kind: "item", record: a },
      { op: "add", kind: "item", record: b },
    ]);
  });
});

describe("a database of before", () => {
  it("is migrated without loss, also where a line pointed into another pantry", async () => {
    const old = await freshDatabase();
    const then = await connect(old.url);
    const on = () => then.em.fork() as EntityManager;
    const run = (sql: string, params: (string | number)[] = []) => query(on(), sql, params);
    await then.getMigrator().up({ to: "0002-draws-and-unlocks" });
    for (const [id, key] of [
      ["pantry000001", "reach"],
      ["pantry000002", "../../etc"],
    ])
      await run(
        "insert into pantry (id, key, name, ticks_per_second, labour_per_hour, price_floor, salvage_ceiling, revision) values (?, ?, 'Reach', 20, 0, 1, 1, 3)",
        [id, key],
      );
    for (const [pantryId, id, key] of [
      ["pantry000001", "item00000001", "eel"],
      ["pantry000002", "item00000002", "salt"],
    ])
      await run(
        "insert into item (id, pantry_id, key, name, description, status, note) values (?, ?, ?, 'Named', '', 'ready', '')",
        [id, pantryId, key],
      );
    await run("insert into tag (id, pantry_id, key, name) values ('tag000000001', 'pantry000001', 'fish', 'fish')");
    await run("insert into item_tag (item_id, tag_id, position) values ('item00000001', 'tag000000001', 0)");
    await run(
      "insert into recipe (id, pantry_id, key, name, kind, ticks, fee, status, note) values ('recipe000001', 'pantry000001', 'r', 'R', 'craft', 90, 0, 'ready', '')",
    );
    for (const [position, item] of [
      [0, "item00000001"],
      [1, "item00000002"],
    ] as const)
      await run(
        "insert into recipe_line (recipe_id, position, role, item_id, min, max, chance) values ('recipe000001', ?, 'output', ?, 1, 2, 0.5)",
        [position, item],
      );
    await run(
      `insert into change (pantry_id, revision, author, at, note, edits, size) values ('pantry000001', 3, 'Ida', now(), '', '[]', 0)`,
    );
    await migrate(then);
    expect((await then.schema.getUpdateSchemaSQL({ wrap: false })).trim()).toBe("");
    const one = (await loadCatalogue(on(), "pantry000001" as Id)) as Catalogue;
    expect(one.revision).toBe(3);
    expect(one.records.item.get("item00000001" as Id)).toMatchObject({ key: "eel", tags: ["tag000000001"] });
    expect(one.records.item.get("item00000002" as Id)).toMatchObject({
      name: "Named",
      status: "stub",
      key: "salt_item00000002",
    });
    expect([...one.records.recipe.values()][0].lines.map((l) => [l.item, l.max, l.chance])).toEqual([
      ["item00000001", 2, 0.5],
      ["item00000002", 2, 0.5],
    ]);
    const two = (await loadCatalogue(on(), "pantry000002" as Id)) as Catalogue;
    expect([...two.records.item.values()].map((i) => i.key)).toEqual(["salt"]);
    expect(two.pantry.key).toBe("pantry_pantry000002");
    await then.close(true);
    await old.drop();
  });
});

describe("statements", () => {
  const sources = (dir: string): string[] =>
    readdirSync(dir).flatMap((name) => {
      const path = join(dir, name);
      return statSync(path).isDirectory()
        ? sources(path)
        : /\.tsx?$/.test(name) && !/\.test\./.test(name) && !path.includes("/testing/")
          ? [path]
          : [];
    });
  /** Names that templates of SQL may put in: the program's own, none of which holds what someone wrote. */
  const OWN =
    /^(HEAD|LISTED|CHANNEL|CREATED|names|values|others\.join\(", "\)|name|table|id|c\.name|c\.type|k|quoted\(.*\)|insertRows\(table\)|SETTINGS\.map\(.*\)\.join\(", "\)|column|rest|of|astray)$/;
  const SQL = /\b(select\s|insert into|update "|delete from|alter table|create (table|index)|listen )/i;

  it("are literal, or made of the program's own names: everything else travels beside them", () => {
    const odd: string[] = [];
    let seen = 0;
    for (const file of [...sources("src/store"), ...sources("src/server"), ...sources("src/cli")]) {
      const tree = ts.createSourceFile(file, readFileSync(file, "utf8"), ts.ScriptTarget.Latest, true);
      const visit = (node: ts.Node): void => {
        if (ts.isTemplateExpression(node) && SQL.test(node.getText())) {
          seen++;
          for (const { expression } of node.templateSpans)
            if (!OWN.test(expression.getText())) odd.push(`${file}: ${expression.getText()}`);
        }
        if (
          ts.isBinaryExpression(node) &&
          node.operatorToken.kind === ts.SyntaxKind.PlusToken &&
          [node.left, node.right].some((side) => ts.isStringLiteral(side) && SQL.test(side.text))
        )
          odd.push(`${file}: ${node.getText()}`);
        ts.forEachChild(node, visit);
      };
      visit(tree);
    }
    expect(odd).toEqual([]);
    expect(seen).toBeGreaterThan(10);
  });

  it("that the ORM makes carry no value in their text either", async () => {
    const marker = "mark'\"\\?$1 ?? :x --";
    const seen: { readonly sql: string; readonly bindings?: readonly unknown[] }[] = [];
    const listen = (q: (typeof seen)[number]) => void seen.push(q);
    const asked = em();
    asked.getKnex().on("query", listen);
    try {
      const made = { ...settings(), key: "marked", name: marker };
      expect(await createPantry(asked, made)).toBe(true);
      expect(await createPantry(asked, { ...made, id: newId() })).toBe(false);
      expect(await pantryByKey(asked, marker)).toBeNull();
      expect(await pantryByKey(asked, "marked")).toMatchObject({ id: made.id, name: marker });
      const name = marker.slice(0, 24);
      expect(await putPicture(orm, made.id, { name, type: "image/png", bytes: Buffer.from(marker) })).toBeNull();
      expect(Buffer.from((await pictureOf(asked, made.id, name))?.bytes ?? []).toString()).toBe(marker);
      await keepMoved(asked, made.id, [[1, JSON.stringify(marker)]]);
      expect(await changesOf(asked, made.id, marker.slice(0, 12) as never, 5)).toEqual([]);
      expect(await deletePantry(orm, made.id)).toBe(true);
    } finally {
      asked.getKnex().off("query", listen);
    }
    expect(seen.filter(({ sql }) => sql.includes("mark'"))).toEqual([]);
    expect(seen.filter(({ bindings }) => JSON.stringify(bindings ?? []).includes("mark'")).length).toBeGreaterThan(5);
  });
});

describe("the program's role", () => {
  it("owns its database and nothing else", async () => {
    const [role] = await query(
      em(),
      "select rolsuper, rolcreatedb, rolcreaterole, rolreplication, rolbypassrls, pg_has_role(current_user, 'pg_read_server_files', 'member') as files, pg_has_role(current_user, 'pg_execute_server_program', 'member') as programs from pg_roles where rolname = current_user",
    );
    expect(role).toEqual({
      rolsuper: false,
      rolcreatedb: false,
      rolcreaterole: false,
      rolreplication: false,
      rolbypassrls: false,
      files: false,
      programs: false,
    });
    await expect(query(em(), "copy pantry to program 'cat'")).rejects.toThrow(/permission denied|must be/);
    await expect(query(em(), "select pg_read_file('/etc/passwd')")).rejects.toThrow(/permission denied/);
    await expect(query(em(), "create role other")).rejects.toThrow(/permission denied/);
  });
});
