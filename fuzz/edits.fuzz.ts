/**
 * Edits in several pantries at once, over the handlers: nothing fails, engine and database agree, every pantry opens,
 * other pantries stay as they are.
 */
import { afterAll, beforeAll, describe, expect } from "vitest";
import * as bundles from "../src/app/api/pantries/[pantry]/bundle/route";
import * as undos from "../src/app/api/pantries/[pantry]/changes/[revision]/undo/route";
import * as changes from "../src/app/api/pantries/[pantry]/changes/route";
import * as snapshots from "../src/app/api/pantries/[pantry]/route";
import * as whatIf from "../src/app/api/pantries/[pantry]/what-if/route";
import * as pantries from "../src/app/api/pantries/route";
import { type Catalogue, packed, unpacked, type Packed } from "../src/core/catalogue/catalogue";
import { newId, type Id } from "../src/core/schema/id";
import { type AnyRecord, definition, KINDS } from "../src/core/kinds/index";
import { exportBundle } from "../src/core/exchange/bundle";
import { kitchen } from "../src/core/testing/kitchen";
import { randomEdits, randomPantry } from "../src/core/testing/random";
import { type Host, host } from "../src/server/host";
import { loadCatalogue } from "../src/store/load";
import { freshDatabase } from "../src/store/testing/database";
import { hostile, type Json, mutated } from "./hostile";
import { below, fuzz, pick, type Random } from "./rounds";

let database: Awaited<ReturnType<typeof freshDatabase>>;
let one: Host;
const keys: string[] = [];

type Handler = (r: Request, c: { params: Promise<object> }) => Promise<Response>;
async function call(
  handler: Handler,
  pantry: string,
  body: unknown,
  { query = "", params = {} as object, method = "POST" } = {},
): Promise<{ status: number; text: string }> {
  const request = new Request(`http://localhost/${query}`, {
    method,
    ...(method === "GET"
      ? {}
      : {
          body: typeof body === "string" ? body : JSON.stringify(body),
          headers: { "content-type": "application/json" },
        }),
  });
  const response = await handler(request, { params: Promise.resolve({ pantry, ...params }) });
  return { status: response.status, text: await response.text() };
}

beforeAll(async () => {
  database = await freshDatabase();
  process.env.DATABASE_URL = database.url;
  one = await host();
  for (const name of ["Smokehouse", "Ropewalk", "Galley"]) {
    const key = (JSON.parse((await call(pantries.POST, "", { name })).text) as { key: string }).key;
    const stock = kitchen(
      "gather 1..3 Kelp + 1 Shell 20% in 30s\nbuy Crock for 5\nsalvage Crock -> 1 Clay 50% using Hammer lasting 9 at Bench in 7t fee 0.1 shells\nBreak: 1 Crate -> 2 draws { 3: 1 Rope | 1: nothing }\nTwist: 1 Clay -> 1..3 Rope\nPress: 1 Rope -> 1 Clay",
    );
    const text = exportBundle(stock).replace(/ "pantry": \{[^}]*\},/, "");
    expect((await call(bundles.POST, key, text)).status).toBe(200);
    keys.push(key);
  }
});
afterAll(async () => {
  await one.close();
  await database.drop();
});

async function stored(key: string): Promise<Catalogue> {
  const head = (await one.pantries()).find((p) => p.key === key);
  const catalogue = head && (await loadCatalogue(one.em, head.id));
  if (!catalogue) throw new Error(`Pantry ${key} is gone.`);
  return catalogue;
}
/** Whatever the order of records and members. */
const sorted = (value: unknown): unknown =>
  Array.isArray(value)
    ? value.map(sorted)
    : typeof value === "object" && value
      ? Object.fromEntries(
          Object.entries(value)
            .sort(([a], [b]) => (a < b ? -1 : 1))
            .map(([k, v]) => [k, sorted(v)]),
        )
      : value;
const texts = (c: Catalogue): string =>
  JSON.stringify(
    [
      c.revision,
      c.pantry,
      ...KINDS.map((kind) => sorted(Object.fromEntries(c.records[kind] as ReadonlyMap<Id, AnyRecord>))),
    ].map(sorted),
  );

/** An edit as someone sends who knows the API well and means no good. */
function evil(random: Random, own: Catalogue, other: Catalogue): Json {
  const kind = pick(random, KINDS);
  const records = [...(own.records[kind] as ReadonlyMap<Id, AnyRecord>).values()];
  const foreign = [...(other.records[kind] as ReadonlyMap<Id, AnyRecord>).values()];
  const record = records.length ? pick(random, records) : ({ id: newId() } as AnyRecord);
  const field = pick(random, [
    ...Object.keys(definition(kind).fields),
    "constructor",
    "__proto__",
    "stats.constructor",
    "id",
    "pantry",
  ]);
  const from = Object.hasOwn(record, field) ? (record as unknown as Record<string, Json>)[field] : null;
  switch (below(random, 7)) {
    case 0:
      return { op: "add", kind, record: mutated(random, { ...record, id: newId(), key: `n_${newId()}` } as never) };
    case 1:
      return {
        op: "add",
        kind,
        record: (foreign.length ? { ...pick(random, foreign), key: `s_${newId()}` } : record) as never,
      };
    case 2:
      return {
        op: "set",
        kind,
        id: foreign.length ? pick(random, foreign).id : record.id,
        field: "name",
        from: hostile(random),
        to: "Stolen",
      };
    case 3:
      return { op: "remove", kind, record: record as never };
    case 4:
      return {
        op: "set",
        kind: "pantry",
        id: pick(random, [own.pantry.id, other.pantry.id]),
        field: pick(random, ["name", "key", "ticksPerSecond", "labourPerHour", "revision", "constructor"]),
        from: own.pantry.name,
        to: hostile(random),
      };
    case 5:
      return { op: "set", kind, id: record.id, field, from, to: mutated(random, from ?? 1) };
    default:
      return { op: "set", kind, id: record.id, field, from, to: hostile(random) };
  }
}

const ANSWERS = [200, 400, 404, 409, 413, 422];

describe("edits in several pantries", () => {
  fuzz("leave engine and database the same, and other pantries alone", async (random, seed) => {
    const key = pick(random, keys);
    const otherKey = pick(
      random,
      keys.filter((k) => k !== key),
    );
    const [own, other] = [await stored(key), await stored(otherKey)];
    const bodies = Array.from({ length: 1 + below(random, 3) }, () => {
      if (random() < 0.25)
        return {
          edits: randomEdits(
            random,
            own.records.recipe.size && own.records.source.size && own.records.item.size ? own : randomPantry(random, 4),
          ),
        };
      return {
        edits: Array.from({ length: 1 + below(random, 3) }, () => evil(random, own, other)),
        note: pick(random, ["tuned", "", "\u0000", 3 as never]),
      };
    });
    const asked = await Promise.all(
      bodies.map((body) => {
        const sort = random();
        if (sort < 0.1) return call(whatIf.POST, key, body);
        if (sort < 0.2)
          return call(undos.POST, key, "{}", { params: { revision: String(below(random, own.revision + 3)) } });
        return call(changes.POST, key, body);
      }),
    );
    for (const { status, text } of asked) {
      expect(ANSWERS, text).toContain(status);
      expect(text).not.toMatch(/insert into|select .* from|update ".*" set|node_modules|\.ts:\d|constraint/i);
    }
    const now = await stored(key);
    const shown = await call(snapshots.GET, now.pantry.key, undefined, { method: "GET" });
    expect(shown.status, shown.text.slice(0, 300)).toBe(200);
    if (now.pantry.key !== key) keys[keys.indexOf(key)] = now.pantry.key;
    expect(texts(unpacked(JSON.parse(shown.text) as Packed)), `seed ${seed}`).toBe(
      texts(unpacked(JSON.parse(JSON.stringify(packed(now, { bytes: false }))) as Packed)),
    );
    expect(texts(await stored(otherKey))).toBe(texts(other));
  });
});
