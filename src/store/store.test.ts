import type { EntityManager } from "@mikro-orm/postgresql";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { type Catalogue, emptyCatalogue } from "../core/catalogue/catalogue";
import { apply } from "../core/catalogue/apply";
import { type Edit, invert, setField } from "../core/catalogue/edit";
import { newId, type Id } from "../core/schema/id";
import { withDefaults, KINDS, type Pantry } from "../core/kinds/index";
import { line } from "../core/notation/line";
import { exportBundle } from "../core/exchange/bundle";
import { planImport } from "../core/exchange/read";
import demo from "../demo/brackwater-reach.json";
import { kitchen, newItem, pantry as testPantry } from "../core/testing/kitchen";
import { commit, createPantry } from "./commit";
import { listen } from "./listen";
import { changeAt, changesAfter, changesBefore, changesOf, editsAt, listPantries, loadCatalogue } from "./load";
import { connect, migrate, type Orm } from "./orm";
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

async function stock(source: Catalogue): Promise<Id> {
  const settings: Pantry = { ...testPantry(), key: `p_${newId()}` };
  await createPantry(em(), settings);
  const plan = planImport(emptyCatalogue(settings), exportBundle(source));
  const done = await write(settings.id, plan.edits);
  expect(done.ok).toBe(true);
  return settings.id;
}
const load = async (id: Id): Promise<Catalogue> => {
  const catalogue = await loadCatalogue(em(), id);
  if (!catalogue) throw new Error("gone");
  return catalogue;
};
const write = (id: Id, edits: readonly Edit[], author = "Ida") =>
  commit(orm, id, { author, note: "" }, async () => {
    return batchOf(await load(id), edits);
  });
const records = (c: Catalogue) =>
  Object.fromEntries(KINDS.map((k) => [k, Object.fromEntries(c.records[k] as ReadonlyMap<Id, object>)]));

describe("the tables", () => {
  it("are exactly what the entities say after migrating", async () => {
    expect((await orm.schema.getUpdateSchemaSQL({ wrap: false })).trim()).toBe("");
  });

  it("refuse a dangling reference by themselves", async () => {
    const id = await stock(kitchen("gather Eel"));
    const [source] = await query(em(), "select id from source where pantry_id = ?", [id]);
    await expect(
      query(
        em(),
        "insert into source_line (pantry_id, source_id, position, role, item_id, min, max, chance) values (?, ?, 9, 'output', 'nosuchitem00', 1, 1, 1)",
        [id, source.id as string],
      ),
    ).rejects.toThrow(/foreign key/);
  });
});

describe("a commit", () => {
  it("stores every field of every kind so that loading gives the same records", async () => {
    const settings: Pantry = { ...testPantry(), key: `p_${newId()}` };
    await createPantry(em(), settings);
    const plan = planImport(emptyCatalogue(settings), JSON.stringify(demo));
    const outcome = apply(emptyCatalogue(settings), plan.edits);
    if (!outcome.ok) throw new Error("demo");
    await write(settings.id, plan.edits);
    const loaded = await load(settings.id);
    expect(records(loaded)).toEqual(records(outcome.catalogue));
    expect({ ...loaded.pantry, key: "" }).toEqual({ ...outcome.catalogue.pantry, key: "" });
    expect(loaded.revision).toBe(1);
  });

  it("follows sets, adds and removes of every kind, and their inverse", async () => {
    const id = await stock(
      kitchen(
        "gather 2 Eel in 80s\nbuy Salt for 1\nSmoke: 2 Eel + 1 Salt -> 2 Smoked eel using Knife lasting 9 at Shed in 90s fee 2 shells",
      ),
    );
    const before = await load(id);
    const stat = withDefaults("stat", { id: newId(), key: "vigour", name: "Vigour", min: 0 });
    const tags = [1, 2].map((n) => withDefaults("tag", { id: newId(), key: `tag_${n}`, name: `Tag ${n}` }));
    const type = withDefaults("type", { id: newId(), key: "fare", name: "Fare", stack: 10, stats: { [stat.id]: 2.5 } });
    const item = newItem("Eel pie", {
      type: type.id,
      tags: [tags[1].id, tags[0].id],
      stats: { [stat.id]: 75 },
      mass: 0.9,
    });
    const [recipe] = [...before.records.recipe.values()];
    const edits: Edit[] = [
      { op: "add", kind: "item", record: item },
      { op: "add", kind: "type", record: type },
      ...tags.map((record): Edit => ({ op: "add", kind: "tag", record })),
      { op: "add", kind: "stat", record: stat },
      setField(before, "recipe", recipe.id, "lines", [
        ...recipe.lines,
        line("output", item.id, 0.1, 0.3, 0.05),
        { ...line("output", item.id, 2), draw: { group: 1, times: 3, weight: 0.5, of: 2.25 } },
      ] as never),
      setField(before, "recipe", recipe.id, "level", 7),
      setField(before, "recipe", recipe.id, "taughtBy", item.id),
      setField(before, "pantry", id, "labourPerHour", 60),
    ];
    const done = await write(id, edits);
    expect(done).toMatchObject({ ok: true, revision: 2 });
    const after = await load(id);
    expect(after.records.item.get(item.id)).toEqual(item);
    expect(after.records.recipe.get(recipe.id)?.lines).toEqual([
      ...recipe.lines,
      line("output", item.id, 0.1, 0.3, 0.05),
      { ...line("output", item.id, 2), draw: { group: 1, times: 3, weight: 0.5, of: 2.25 } },
    ]);
    expect(after.records.recipe.get(recipe.id)).toMatchObject({ level: 7, taughtBy: item.id });
    expect(after.pantry.labourPerHour).toBe(60);
    await write(id, invert(edits));
    const back = await load(id);
    expect(records(back)).toEqual(records(before));
    expect(back.revision).toBe(3);
  });

  it("writes nothing at all when one edit is refused", async () => {
    const id = await stock(kitchen("gather Eel\ngather Salt"));
    const before = await load(id);
    const [a, b] = [...before.records.item.values()];
    const done = await write(id, [
      setField(before, "item", a.id, "level", 3),
      setField(before, "item", b.id, "stack", -1),
    ]);
    expect(done).toMatchObject({ ok: false, issues: [{ path: "stack" }] });
    const after = await load(id);
    expect(after.revision).toBe(before.revision);
    expect(records(after)).toEqual(records(before));
    expect(await changesAfter(em(), id, before.revision)).toEqual([]);
  });

  it("lets exactly one of many who set the same field at the same time win, and tells the others both values", async () => {
    const id = await stock(kitchen("gather Eel"));
    const before = await load(id);
    const [eel] = [...before.records.item.values()];
    const outcomes = await Promise.all(
      [1, 2, 3, 4, 5].map((level) => write(id, [setField(before, "item", eel.id, "level", level)], `Hand ${level}`)),
    );
    const won = outcomes.filter((o) => o.ok);
    expect(won).toHaveLength(1);
    const after = await load(id);
    const level = after.records.item.get(eel.id)?.level;
    for (const o of outcomes) if (!o.ok) expect(o.conflicts[0]).toMatchObject({ field: "level", theirs: level });
    expect(after.revision).toBe(before.revision + 1);
  });

  it("lets all of many who set different fields at the same time through, one revision each", async () => {
    const id = await stock(kitchen("gather Eel"));
    const before = await load(id);
    const [eel] = [...before.records.item.values()];
    const fields = { level: 2, stack: 9, mass: 0.7, buy: 3, sell: 2 };
    const outcomes = await Promise.all(
      Object.entries(fields).map(([field, to]) => write(id, [setField(before, "item", eel.id, field, to)])),
    );
    expect(outcomes.map((o) => o.ok && o.revision).sort()).toEqual([2, 3, 4, 5, 6]);
    expect((await load(id)).records.item.get(eel.id)).toMatchObject(fields);
  });

  it("rolls everything back when the database fails half-way", async () => {
    const id = await stock(kitchen("gather Eel"));
    const before = await load(id);
    await query(
      em(),
      `create function refuse() returns trigger as $$ begin raise exception 'disk full'; end $$ language plpgsql`,
    );
    await query(
      em(),
      `create trigger refuse before insert on "change" for each row when (new.author = 'Unlucky') execute function refuse()`,
    );
    await expect(write(id, [{ op: "add", kind: "item", record: newItem("Cork") }], "Unlucky")).rejects.toThrow(
      /disk full/,
    );
    expect(records(await load(id))).toEqual(records(before));
    expect((await load(id)).revision).toBe(before.revision);
  });

  it("takes thousands of records in one change, its log in parts, and takes them back", async () => {
    const settings: Pantry = { ...testPantry(), key: `p_${newId()}` };
    await createPantry(em(), settings);
    // What COPY gives a meaning of its own must come back as it was.
    const nasty = ["\\N", "a\tb", "one\ntwo\rthree", "\\.", "back\\slash\\t", "“quoted” 'as' \"can\" be", ""];
    const edits = Array.from({ length: 2500 }, (_, i): Edit => {
      const [eel, net] = [newItem(`Cork ${i}`), newItem(`Net ${i}`)];
      const record = i % 2 ? { ...eel, description: nasty[i % nasty.length] } : { ...net, sell: i / 4, level: i % 90 };
      return { op: "add", kind: "item", record };
    });
    expect(await write(settings.id, edits)).toMatchObject({ ok: true, revision: 1, change: { size: 2500 } });
    const loaded = await load(settings.id);
    expect(Object.fromEntries(loaded.records.item)).toEqual(
      Object.fromEntries(edits.map((e) => e.op === "add" && [e.record.id, e.record]) as [Id, object][]),
    );
    const pieces = await editsAt(em(), settings.id, 1);
    expect(pieces.map((piece) => JSON.parse(piece).length)).toEqual([1000, 1000, 500]);
    expect(pieces.flatMap((piece) => JSON.parse(piece))).toEqual(edits);
    expect(JSON.parse((await changeAt(em(), settings.id, 1))?.edits ?? "")).toHaveLength(1000);
    for (const at of [0, 1000, 2499]) {
      const edit = edits[at] as Extract<Edit, { op: "add" }>;
      expect((await changesOf(em(), settings.id, edit.record.id, 5)).map((c) => c.revision)).toEqual([1]);
    }
    const back = pieces.flatMap((piece) => JSON.parse(piece) as Edit[]);
    expect(await write(settings.id, invert(back))).toMatchObject({ ok: true, revision: 2 });
    expect((await load(settings.id)).records.item.size).toBe(0);
  });

  it("adds many records beside others that it changes or takes out", async () => {
    const id = await stock(kitchen("gather Eel\ngather Salt"));
    const before = await load(id);
    const [eel, salt] = [...before.records.item.values()];
    const source = [...before.records.source.values()].find((s) => s.lines[0].item === salt.id);
    if (!source) throw new Error("no source");
    const added = Array.from({ length: 300 }, (_, i) => newItem(`Float ${i}`));
    const edits: Edit[] = [
      setField(before, "item", eel.id, "level", 7),
      { op: "remove", kind: "source", record: source },
      { op: "remove", kind: "item", record: salt },
      ...added.map((record): Edit => ({ op: "add", kind: "item", record })),
    ];
    expect((await write(id, edits)).ok).toBe(true);
    const { records } = await load(id);
    expect([...records.item.keys()].sort()).toEqual([eel.id, ...added.map((i) => i.id)].sort());
    expect(records.item.get(eel.id)?.level).toBe(7);
    expect(records.source.size).toBe(1);
  });
});

describe("the log", () => {
  it("keeps author, edits and order, in pages and by record", async () => {
    const id = await stock(kitchen("gather Eel\ngather Salt"));
    const c = await load(id);
    const [a, b] = [...c.records.item.values()];
    await write(id, [setField(c, "item", a.id, "level", 2)], "Ida");
    await write(id, [setField(c, "item", b.id, "level", 3)], "Tom");
    const log = await changesBefore(em(), id, 2 ** 31 - 1, 2);
    expect(log.map((l) => [l.revision, l.author])).toEqual([
      [3, "Tom"],
      [2, "Ida"],
    ]);
    expect((await changesOf(em(), id, a.id, 10)).map((l) => l.revision)).toEqual([2, 1]);
    expect(JSON.parse((await changeAt(em(), id, 2))?.edits ?? "")).toEqual([setField(c, "item", a.id, "level", 2)]);
    expect(await changeAt(em(), id, 99)).toBeNull();
    expect((await listPantries(em())).find((p) => p.id === id)?.revision).toBe(3);
  });
});

describe("listening", () => {
  it("hears a commit, and hears again after its connection was cut", async () => {
    const id = await stock(kitchen("gather Eel"));
    const heard: number[] = [];
    let backs = 0;
    const deaf = listen(
      database.url,
      (n) => n.pantry === id && heard.push(n.revision),
      () => backs++,
    );
    const until = async (test: () => boolean) => {
      for (let i = 0; i < 100 && !test(); i++) await new Promise((r) => setTimeout(r, 50));
      expect(test()).toBe(true);
    };
    await until(() => backs === 1);
    const c = await load(id);
    const [eel] = [...c.records.item.values()];
    await write(id, [setField(c, "item", eel.id, "level", 2)]);
    await until(() => heard.includes(2));
    await query(
      em(),
      "select pg_terminate_backend(pid) from pg_stat_activity where query ilike 'listen%' and datname = current_database()",
    );
    await until(() => backs === 2);
    await write(id, [setField(await load(id), "item", eel.id, "level", 4)]);
    await until(() => heard.includes(3));
    await deaf();
  });
});
