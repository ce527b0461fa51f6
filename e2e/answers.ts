/** What the API answers, asked through whatever door a test has: its handlers here, or the production build. */
import { beforeEach, describe, expect, it, vi } from "vitest";
import type { LiveEvent, PackedReadModel, Ripple } from "../src/core/engine/read-model";
import { follow } from "../src/core/testing/read-model";
import type { Edit } from "../src/core/catalogue/edit";
import { newId } from "../src/core/schema/id";
import { type Item, type Recipe, withDefaults } from "../src/core/kinds/index";
import { bundleOf, SMOKEHOUSE } from "../src/core/testing/kitchen";
import { type Asked, type Door, ROUTES, type Route } from "./door";

const {
  health,
  bodies,
  icons,
  list,
  bundles,
  undos,
  changes,
  events,
  glance,
  plan,
  chain,
  costs,
  runs,
  recipes,
  picture,
  pictures,
} = ROUTES;
const { snapshots, pantries, whatIf, trend, origins, since } = ROUTES;

type Answer = { status: number; body: Record<string, unknown> & { detail?: string } };

export function answersThrough(door: () => Door): void {
  let pantry = "";
  const ask = (route: Route, asked: Asked = {}) => door()(route, { ...asked, params: { pantry, ...asked.params } });
  /** Asks again where it is told to come back in a moment, as the window does. */
  const call = async (
    route: Route,
    { author = "Ida", ...asked }: Asked & { author?: string } = {},
  ): Promise<Answer> => {
    const headers = { "x-salty-author": encodeURIComponent(author), ...asked.headers };
    for (let left = 60; ; left--) {
      const response = await ask(route, { ...asked, headers });
      const text = await response.text();
      if (response.status === 503 && response.headers.has("retry-after") && left > 0) {
        await new Promise((done) => setTimeout(done, 500));
        continue;
      }
      return { status: response.status, body: text ? JSON.parse(text) : {} };
    }
  };
  const add = (item: Item) => call(changes.POST, { body: { edits: [{ op: "add", kind: "item", record: item }] } });
  const fresh = (name: string): Item =>
    withDefaults("item", { id: newId(), key: `k_${newId()}`, name, status: "ready" });
  /** The pantry once all readings are of its newest revision. */
  const snapshot = async () => {
    const read = async () =>
      (await call(snapshots.GET)).body as unknown as {
        revision: number;
        analysis: { state: string };
        model: PackedReadModel;
        records: { item: Item[]; recipe: Recipe[] };
      };
    await vi.waitUntil(async () => (await read()).analysis.state === "done", { timeout: 120_000, interval: 50 });
    return read();
  };

  beforeEach(async () => {
    const made = await call(pantries.POST, { body: { name: `Pantry ${newId()}` } });
    expect(made.status).toBe(201);
    pantry = made.body.key as string;
    const filled = await call(bundles.POST, { body: bundleOf(SMOKEHOUSE) });
    expect(filled).toMatchObject({ status: 200, body: { added: 7 } });
  });

  describe("the API", () => {
    it("is healthy once the database answers", async () => {
      const { status, body } = await call(health.GET);
      expect(status).toBe(200);
      expect(body).toMatchObject({ state: "ready", database: "up" });
    });

    it("says what is wrong with a request's shape, with the place", async () => {
      expect(await call(changes.POST, { body: "nonsense" })).toMatchObject({
        status: 400,
        body: { title: "Not JSON" },
      });
      expect(await call(changes.POST, { body: '{"edits": [],\n "edits": []}' })).toMatchObject({
        status: 400,
        body: { title: "Duplicate name", detail: expect.stringContaining("line 2, column 2: “edits”") },
      });
      expect(await call(changes.POST, { body: { edits: [] } })).toMatchObject({ status: 422 });
      const answer = await call(changes.POST, { body: { edits: [{ op: "explode", kind: "item" }], extra: 1 } });
      expect(answer.status).toBe(422);
      const places = (answer.body.issues as { path: string }[]).map((c) => c.path);
      expect(places).toContain("edits[0].op");
      expect(places).toContain("extra");
      expect(await call(changes.POST, { body: { edits: [] }, params: { pantry: "nowhere" } })).toMatchObject({
        status: 404,
        body: { title: "No such pantry" },
      });
    });

    it("commits a change and has followed it when it answers", async () => {
      const before = await snapshot();
      const item = fresh("Cork");
      expect(await add(item)).toMatchObject({ status: 200, body: { revision: before.revision + 1 } });
      const after = await snapshot();
      expect(after.revision).toBe(before.revision + 1);
      expect(after.model.revision).toBe(after.revision);
      expect(after.model.figures[item.id].value).toBeNull();
    });

    it("answers 409 with both values when someone was quicker, 422 when the rules refuse", async () => {
      const item = fresh("Cork");
      await add(item);
      const set = (from: unknown, to: unknown) =>
        call(changes.POST, { body: { edits: [{ op: "set", kind: "item", id: item.id, field: "level", from, to }] } });
      expect((await set(null, 3)).status).toBe(200);
      expect(await set(null, 4)).toMatchObject({
        status: 409,
        body: { conflicts: [{ yours: 4, theirs: 3, field: "level" }] },
      });
      expect(await set(3, 99_999)).toMatchObject({ status: 422, body: { issues: [{ path: "level" }] } });
    });

    it("undoes any change of the log, also an undo, and refuses where later edits stand in the way", async () => {
      type Logged = { undoes: number | null; moved: object | null; author: string };
      const logged = async () => (await call(changes.GET, { query: "most=3" })).body as unknown as Logged[];
      // What a change moved is written once its consequences are known, in a transaction of its own. Changes that are
      // followed together have none, so that each waits for the one before.
      const followed = () => vi.waitUntil(async () => (await logged())[0]?.moved, { timeout: 60_000 });
      const item = fresh("Cork");
      const added = (await add(item)).body.revision as number;
      await followed();
      const undone = await call(undos.POST, { params: { revision: String(added) } });
      expect(undone.status).toBe(200);
      expect((await snapshot()).records.item.some((i) => i.id === item.id)).toBe(false);
      await followed();
      const again = await call(undos.POST, { params: { revision: String(undone.body.revision) } });
      expect(again.status).toBe(200);
      expect((await snapshot()).records.item.some((i) => i.id === item.id)).toBe(true);
      await followed();
      await call(changes.POST, {
        body: { edits: [{ op: "set", kind: "item", id: item.id, field: "level", from: null, to: 3 }] },
      });
      await followed();
      expect(await call(undos.POST, { params: { revision: String(added) } })).toMatchObject({
        status: 409,
      });
      expect(await call(undos.POST, { params: { revision: "9999" } })).toMatchObject({ status: 404 });
      const log = await logged();
      expect(log.every((c) => c.moved)).toBe(true);
      expect(log[1]).toMatchObject({ undoes: undone.body.revision, author: "Ida" });
    });

    it("takes an item's cost apart in both measures", async () => {
      const eel = (await snapshot()).records.item.find((i) => i.name === "Smoked eel");
      const { body } = await call(costs.GET, { params: { item: eel?.id ?? "" } });
      expect(body).toMatchObject({ value: { cost: 1, by: { kind: "recipe" } }, time: { cost: 70 } });
      expect((await call(costs.GET, { params: { item: "nosuchitem00" } })).status).toBe(404);
      const { recipe: book } = (await snapshot()).records;
      const smoke = book.find((r) => r.name === "Smoke eel") ?? book[0];
      const { body: one } = await call(runs.GET, { params: { recipe: smoke.id } });
      expect(one).toMatchObject({ runs: [{ name: smoke.name, value: expect.any(Number) }] });
      expect((await call(runs.GET, { params: { recipe: "nosuchitem00" } })).status).toBe(404);
      const { body: all } = await call(recipes.GET, { query: `of=${smoke.id}&of=000000000000` });
      expect(all.costs).toEqual([
        [smoke.id, expect.any(Number)],
        ["000000000000", null],
      ]);
      expect((await call(recipes.GET, { query: "of=__proto__" })).status).toBe(400);
      const asked = (query: string, item = eel?.id ?? "") => call(chain.GET, { params: { item }, query });
      const drawn = await asked("by=time&onward=2&most=5&way=recipe.nosuchthing0.0");
      expect(drawn.body).toMatchObject({ item: eel?.id, measure: "time", refused: [] });
      expect((drawn.body as { things: unknown[] }).things.length).toBeLessThanOrEqual(5);
      expect((await asked("", "nosuchitem00")).status).toBe(404);
      for (const [query, message] of [
        ["by=weight", "by must be value or time"],
        ["colour=red", "“colour” isn't a known parameter"],
        [Array.from({ length: 101 }, () => "way=x").join("&"), "The maximum is 100 alternatives"],
      ])
        expect(await asked(query)).toMatchObject({ status: 400, body: { detail: expect.stringContaining(message) } });
    });

    it("plans a basket, and shows the pantry at a glance", async () => {
      const eel = (await snapshot()).records.item.find((i) => i.name === "Smoked eel")?.id ?? "";
      const asked = (query: string) => call(plan.GET, { query });
      expect(await asked(`make=${eel}:3&stock=${eel}:1`)).toMatchObject({
        status: 200,
        body: { taken: [[eel, 1]], steps: expect.arrayContaining([expect.objectContaining({ kind: "recipe" })]) },
      });
      expect((await asked("make=nosuchitem00:1")).status).toBe(404);
      for (const [query, message] of [
        ["by=weight", "by must be value or time"],
        ["colour=red", "“colour” isn't a known parameter"],
        [`make=${eel}:-1`, "make must be the id of an item"],
        [`make=${eel}:9999999`, "at most 100 times and 1000000 of one"],
        [`make=${eel}:1&confidence=1`, "a number between 0 and 1"],
        [Array.from({ length: 101 }, () => `make=${eel}:1`).join("&"), "at most 100"],
      ])
        expect(await asked(query)).toMatchObject({ status: 400, body: { detail: expect.stringContaining(message) } });
      expect((await call(glance.GET, {})).body).toMatchObject({
        tiers: expect.arrayContaining([expect.objectContaining({ steps: 0 })]),
        loops: { gaining: 0 },
      });
    });

    it("compares findings with a revision, tells how a cost came about and where costs come from", async () => {
      const { revision, records } = await snapshot();
      const eel = records.item.find((i) => i.name === "Smoked eel");
      const lens = fresh("Lens");
      expect((await add(lens)).status).toBe(200);
      const asked = (query: string) => call(since.GET, { query });
      expect(await asked(`revision=${revision}`)).toMatchObject({
        status: 200,
        body: { from: revision, added: expect.arrayContaining([`unobtainable:${lens.id}`]), gone: [], moreGone: 0 },
      });
      expect((await asked(`revision=${revision + 1}`)).body).toMatchObject({ added: [], gone: [] });
      for (const [query, message] of [
        ["", "revision must be a whole number"],
        ["revision=-1", "revision must be a whole number"],
        ["revision=1&revision=2", "revision"],
        ["since=1", "“since” isn't a known parameter"],
      ])
        expect(await asked(query), query).toMatchObject({
          status: 400,
          body: { detail: expect.stringContaining(message) },
        });
      const { body: told } = await call(trend.GET, { params: { item: eel?.id ?? "" }, query: "history=1" });
      expect(told).toMatchObject({ levels: [{ level: 0, value: 1 }], moreLevels: false });
      expect((told.history as { value: number }[])[0].value).toBe(1);
      expect((await call(trend.GET, { params: { item: "nosuchitem00" } })).status).toBe(404);
      const from = (await call(origins.GET)).body.origins as [string, string | null, number][];
      expect(from.find(([id]) => id === eel?.id)).toBeDefined();
      for (const [, , share] of from) expect(share > 0 && share <= 1 + 1e-9).toBe(true);
      // The readings are where they were.
      expect((await snapshot()).revision).toBe(revision + 1);
    });

    it("shows what an import would change, writes it whole, and refuses one with faults whole", async () => {
      const before = await snapshot();
      const text = JSON.stringify({
        format: "salty-pantry-bundle",
        version: 1,
        items: [{ key: "cork" }],
        recipes: ["2 Cork -> 1 Net float"],
      });
      expect(await call(bundles.POST, { body: text, query: "dry=1" })).toMatchObject({
        status: 200,
        body: { dry: true, added: 3, notes: [{ path: "recipes[0].line, column 13" }] },
      });
      expect((await snapshot()).revision).toBe(before.revision);
      expect(await call(bundles.POST, { body: text })).toMatchObject({
        status: 200,
        body: { dry: false, revision: before.revision + 1 },
      });
      const bad = await call(bundles.POST, { body: text.replace('"cork"', '"Not a key"') });
      expect(bad).toMatchObject({ status: 422, body: { issues: [{ path: "items[0].key" }] } });
      const twice = await call(bundles.POST, { body: text.replace(/}$/, ',"items":[]}') });
      expect(twice).toMatchObject({
        status: 422,
        body: { issues: [{ path: "line 1, column 106", message: expect.stringContaining("“items” appears twice") }] },
      });
      expect((await snapshot()).revision).toBe(before.revision + 1);
    });

    it("keeps own pictures by what their bytes are, and gives them out to their pantry alone, never to be run", async () => {
      const base64 = (text: string) => Buffer.from(text).toString("base64");
      const bring = (body: unknown) => call(pictures.POST, { body });
      const svg = '<svg xmlns="http://www.w3.org/2000/svg"><script>x()</script><path d="M0 0h9"></path></svg>';
      const kept = await bring({ base64: base64(svg) });
      expect(kept).toMatchObject({ status: 200, body: { leftOut: ["<script>"] } });
      const id = String(kept.body.icon).replace("own-", "");
      expect((await bring({ base64: base64(svg) })).body.icon).toBe(kept.body.icon);
      const give = (of: string, which: string) => ask(picture.GET, { params: { pantry: of, id: which } });
      const given = await give(pantry, id);
      expect(given.headers.get("content-type")).toBe("image/svg+xml");
      expect(given.headers.get("content-security-policy")).toMatch(/default-src 'none'.*sandbox/);
      expect(given.headers.get("x-content-type-options")).toBe("nosniff");
      expect(await given.text()).toBe('<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0h9"></path></svg>');
      for (const which of ["0".repeat(24), "__proto__"]) expect((await give(pantry, which)).status).toBe(404);
      // The build sends a path that climbs to where it leads, before any route is asked.
      expect([404, 308]).toContain((await give(pantry, "..")).status);
      const other = (await call(pantries.POST, { body: { name: "No pictures" } })).body.key as string;
      expect((await give(other, id)).status).toBe(404);
      for (const [body, status] of [
        [{ base64: base64("<html><script>x()</script></html>") }, 422],
        [{ base64: "not base64!" }, 422],
        [{ base64: 4 }, 422],
        [{ base64: base64(svg), type: "text/html" }, 422],
        [{ base64: "A".repeat(900 * 1024) }, 413],
      ] as const)
        expect((await bring(body)).status).toBe(status);
    });

    it("sends own pictures along with a bundle, and tells those that are nowhere", async () => {
      const svg = '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0h8"></path></svg>';
      const { icon } = (await call(pictures.POST, { body: { base64: Buffer.from(svg).toString("base64") } })).body;
      const gone = `own-${"0".repeat(24)}`;
      for (const of of [icon, gone, "no-such-icon"]) await add({ ...fresh(`Jar ${of}`), icon: String(of) });
      const out = await (await ask(bundles.GET, {})).json();
      expect(out.pictures).toEqual([{ name: icon, base64: Buffer.from(svg).toString("base64") }]);
      const other = (await call(pantries.POST, { body: { name: `Pantry ${newId()}` } })).body.key as string;
      const into = (body: object, query = "") => call(bundles.POST, { body, query, params: { pantry: other } });
      const wrong = { ...out, pictures: [{ ...out.pictures[0], name: gone }] };
      expect(await into(wrong)).toMatchObject({
        status: 422,
        body: { issues: [{ path: "pictures[0].name", message: expect.stringContaining(`its name is ${icon}`) }] },
      });
      const give = () => ask(picture.GET, { params: { pantry: other, id: String(icon).replace("own-", "") } });
      const notes = expect.arrayContaining([
        expect.objectContaining({ message: expect.stringContaining(`no picture called “${gone}”`) }),
        expect.objectContaining({ message: expect.stringContaining("no icon called “no-such-icon”") }),
      ]);
      expect(await into(out, "dry=1")).toMatchObject({ status: 200, body: { pictures: 1, dry: true, notes } });
      expect((await give()).status).toBe(404);
      const { pictures: _, ...without } = out;
      const bare = await into(without);
      expect(bare).toMatchObject({
        status: 200,
        body: {
          pictures: 0,
          notes: expect.arrayContaining([expect.objectContaining({ message: expect.stringContaining(`“${icon}”`) })]),
        },
      });
      // The records are there already: the picture is brought all the same.
      expect(await into(out)).toMatchObject({
        status: 200,
        body: { revision: bare.body.revision, pictures: 1, added: 0, dry: false },
      });
      expect(await (await give()).text()).toBe(svg);
      const strange = await ask(pictures.GET, {
        params: { pantry: other },
        query: `name=${icon}&name=${gone}&name=eel&name=__proto__`,
      });
      expect(await strange.json()).toEqual(["__proto__", gone]);
      expect((await ask(pictures.GET, { query: `name=${"a".repeat(81)}` })).status).toBe(400);
    });

    it("refuses a second pantry of the same name, and serves icons it knows", async () => {
      await call(pantries.POST, { body: { name: "Twice" } });
      expect((await call(pantries.POST, { body: { name: "Twice" } })).status).toBe(409);
      expect((await ask(icons.GET, { params: { name: "eel.svg" } })).headers.get("content-type")).toBe("image/svg+xml");
      for (const none of ["no-such.svg", "constructor", "toString", "__proto__"])
        expect((await ask(icons.GET, { params: { name: none } })).status).toBe(404);
      expect(await (await ask(list.GET, { query: "q=rope%20coil" })).json()).toContain("rope-coil");
      const drawn = await (await ask(bodies.GET, { query: "name=eel&name=constructor&name=no-such" })).json();
      expect([Object.keys(drawn), drawn.eel]).toEqual([["eel"], expect.stringContaining("<path")]);
      const many = Array.from({ length: 101 }, (_, k) => `name=i${k}`).join("&");
      expect((await ask(bodies.GET, { query: many })).status).toBe(400);
    });

    it("refuses what it does not know behind the question mark, everywhere, and writes nothing", async () => {
      const before = (await snapshot()).revision;
      const text = JSON.stringify({ format: "salty-pantry", version: 1, tags: [] });
      for (const odd of ["dry=true", "dry=maybe", "Dry=1", "dry=1&dry=0", "dry=", "replace=yes", "colour=red"])
        expect(await call(bundles.POST, { body: text, query: odd }), odd).toMatchObject({
          status: 400,
          body: { title: "Invalid query" },
        });
      for (const [handler, params] of [
        [snapshots.GET, {}],
        [changes.GET, {}],
        [changes.POST, {}],
        [undos.POST, { revision: "1" }],
        [bundles.GET, {}],
        [costs.GET, { item: "000000000000" }],
      ] as const)
        expect(await call(handler, { query: "colour=red", params })).toMatchObject({
          status: 400,
          body: { detail: expect.stringContaining("“colour” isn't a known parameter") },
        });
      expect((await ask(icons.GET, { params: { name: "eel.svg" }, query: "size=2" })).status).toBe(400);
      expect((await ask(list.GET, { query: "q=a&q=b" })).status).toBe(400);
      expect((await snapshot()).revision).toBe(before);
    });

    it("keeps the log within bounds, whatever is asked", async () => {
      for (const name of ["Cork", "Tar", "Peat"]) await add(fresh(name));
      const log = async (query: string) =>
        (await call(changes.GET, { query })).body as unknown as { revision: number }[];
      const newest = (await snapshot()).revision;
      expect((await log("most=2")).map((c) => c.revision)).toEqual([newest, newest - 1]);
      expect((await log(`before=${newest - 1}&most=1`)).map((c) => c.revision)).toEqual([newest - 2]);
      for (const odd of ["most=0", "most=-3", "most=many", "most=1e9", "most=201", "before=-1", "before=never"])
        expect(await call(changes.GET, { query: odd })).toMatchObject({
          status: 400,
          body: { title: "Invalid query", detail: expect.stringContaining("must be a whole number from 1 to") },
        });
      expect((await call(changes.GET, { query: `revision=${newest}` })).body).toMatchObject({
        revision: newest,
        size: 1,
      });
      expect(await call(changes.GET, { query: "revision=9999" })).toMatchObject({
        status: 404,
        body: { title: "No such change" },
      });
      for (const odd of ["revision=0", "revision=0x1", "revision=1.5", "revision=x", "revision=99999999999", "of=x"])
        expect((await call(changes.GET, { query: odd })).status).toBe(400);
      for (const odd of ["x", "-1", "1.5", "0x1", "01", "99999999999"])
        expect((await call(undos.POST, { params: { revision: odd } })).status).toBe(404);
    });

    it("tells one record's history, newest first", async () => {
      const item = fresh("Cork");
      await add(item);
      await call(changes.POST, {
        body: { edits: [{ op: "set", kind: "item", id: item.id, field: "level", from: null, to: 3 }] },
        author: "Tom",
      });
      await add(fresh("Tar"));
      const history = (await call(changes.GET, { query: `of=${item.id}` })).body as unknown as {
        author: string;
        edits: Edit[];
      }[];
      expect(history.map((c) => [c.author, c.edits[0].op])).toEqual([
        ["Tom", "set"],
        ["Ida", "add"],
      ]);
    });

    it("takes an author's name as it comes, encoded or not, and says Anonymous for none", async () => {
      const by = async (name: string) => {
        const body = { edits: [{ op: "add", kind: "item", record: fresh("Cork") }] };
        expect((await call(changes.POST, { body, headers: { "x-salty-author": name } })).status).toBe(200);
        return ((await call(changes.GET, { query: "most=1" })).body as unknown as { author: string }[])[0].author;
      };
      expect(await by(encodeURIComponent("Ida Märsch"))).toBe("Ida Märsch");
      expect(await by("100% Ida")).toBe("100% Ida");
      expect(await by(" ")).toBe("Anonymous");
    });

    it("packs a snapshot that says the same", async () => {
      const { gunzipSync } = await import("node:zlib");
      const plain = await snapshot();
      for (let again = 0; again < 2; again++) {
        const response = await ask(snapshots.GET, { headers: { accept: "application/gzip" } });
        expect(response.headers.get("content-type")).toBe("application/gzip");
        expect(JSON.parse(gunzipSync(Buffer.from(await response.arrayBuffer())).toString())).toEqual(plain);
      }
    });

    it("exports a file under the pantry's name that imports again without a change", async () => {
      const response = await ask(bundles.GET, {});
      expect(response.headers.get("content-disposition")).toBe(`attachment; filename="${pantry}.json"`);
      expect(await call(bundles.POST, { body: await response.text() })).toMatchObject({
        status: 200,
        body: { added: 0, changed: 0, dry: true },
      });
    });

    it("tells what edits would move without storing anything", async () => {
      const before = await snapshot();
      const [recipe] = before.records.recipe;
      const edits: Edit[] = [{ op: "set", kind: "recipe", id: recipe.id, field: "fee", from: 0, to: 7 }];
      const { status, body } = await call(whatIf.POST, { body: { edits } });
      expect(status).toBe(200);
      expect(body).toMatchObject({
        revision: before.revision,
        edits: 1,
        ripple: { moved: { costs: 1, largest: { from: 1, to: 8 } } },
      });
      expect(await snapshot()).toEqual(before);
      const asked = body as unknown as { ripple: LiveEvent["ripple"] };
      expect((await call(changes.POST, { body: { edits } })).status).toBe(200);
      expect(follow(before.model, asked.ripple as Ripple)).toEqual((await snapshot()).model);
      expect((await call(whatIf.POST, { body: { edits: [{ ...edits[0], from: 3, to: 4 }] } })).status).toBe(409);
      expect((await call(whatIf.POST, { body: { edits: [{ ...edits[0], from: 7, to: -4 }] } })).status).toBe(422);
      expect((await call(whatIf.POST, { body: { edits: [] } })).status).toBe(422);
    });

    it("deletes a pantry once its name is typed, tells whoever has it open, and is done with it", async () => {
      const controller = new AbortController();
      const response = await ask(events.GET, { signal: controller.signal });
      const { name } = ((await snapshot()) as unknown as { pantry: { name: string } }).pantry;
      const end = (typed: unknown) => call(snapshots.DELETE, { body: { name: typed } });
      expect(await end("another")).toMatchObject({ status: 422, body: { title: "Nothing was deleted" } });
      expect((await end(7)).status).toBe(422);
      expect((await snapshot()).revision).toBe(1);
      expect(await end(name)).toMatchObject({ status: 200, body: { deleted: pantry } });
      expect(await new Response(response.body).text()).toContain("event: gone");
      expect((await call(snapshots.GET)).status).toBe(404);
      expect((await add(fresh("Cork"))).status).toBe(404);
      expect((await end(name)).status).toBe(404);
      expect((await call(pantries.POST, { body: { name } })).status).toBe(201);
    });

    it("makes keys of pantries from names in any script, and one pantry of several asked for at once", async () => {
      const make = (name: unknown) => call(pantries.POST, { body: { name } });
      expect(await make("Бухта")).toMatchObject({ status: 201, body: { key: "bukhta" } });
      for (const key of ["pantry", "pantry_2", "pantry_3"])
        expect(await make("…")).toMatchObject({ status: 201, body: { key } });
      for (const odd of ["   ", "\u0000", "\u200b", "", 5, null, { toString: 1 }, "x".repeat(121)])
        expect((await make(odd)).status).toBe(422);
      const twins = await Promise.all([1, 2, 3].map(() => make("Twins of the tide")));
      expect(twins.map((t) => t.status).sort()).toEqual([201, 409, 409]);
    });

    it("refuses what comes from other pages or under other names, on every kind of route", async () => {
      const from = async (headers: Record<string, string>) =>
        (await call(changes.POST, { body: { edits: [] }, headers })).status;
      expect([
        await from({ origin: "http://evil.example" }),
        await from({ "sec-fetch-site": "same-site" }),
        await from({ host: "evil.example" }),
        await from({ "content-type": "text/plain" }),
        await from({}),
      ]).toEqual([403, 403, 421, 415, 422]);
      const read = async (headers: Record<string, string>) => (await call(snapshots.GET, { headers })).status;
      expect([
        await read({ host: "evil.example" }),
        await read({ "sec-fetch-site": "cross-site" }),
        await read({ "x-salty-author": "%00" }),
      ]).toEqual([421, 403, 400]);
    });
  });
}
