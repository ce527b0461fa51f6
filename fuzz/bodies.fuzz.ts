/**
 * Bodies, queries and headers of every route: refused or answered, never failed at, and no refusal tells what is
 * inside.
 */
import { afterAll, beforeAll, describe, expect } from "vitest";
import * as health from "../src/app/api/health/route";
import * as icon from "../src/app/api/icons/[name]/route";
import * as icons from "../src/app/api/icons/route";
import * as bundles from "../src/app/api/pantries/[pantry]/bundle/route";
import * as undos from "../src/app/api/pantries/[pantry]/changes/[revision]/undo/route";
import * as changes from "../src/app/api/pantries/[pantry]/changes/route";
import * as events from "../src/app/api/pantries/[pantry]/events/route";
import * as chains from "../src/app/api/pantries/[pantry]/items/[item]/chain/route";
import * as glances from "../src/app/api/pantries/[pantry]/glance/route";
import * as plans from "../src/app/api/pantries/[pantry]/plan/route";
import * as costs from "../src/app/api/pantries/[pantry]/items/[item]/costs/route";
import * as snapshots from "../src/app/api/pantries/[pantry]/route";
import * as whatIf from "../src/app/api/pantries/[pantry]/what-if/route";
import * as pantries from "../src/app/api/pantries/route";
import { exportBundle } from "../src/core/exchange/bundle";
import { kitchen } from "../src/core/testing/kitchen";
import { freshHost } from "../src/server/testing/host";
import { hostile, type Json, mutated } from "./hostile";
import { below, fuzz, pick, type Random } from "./rounds";

type Handler = (r: Request, c: { params: Promise<object> }) => Promise<Response>;
let one: Awaited<ReturnType<typeof freshHost>>;
beforeAll(async () => {
  one = await freshHost();
  await pantries.POST(
    new Request("http://localhost/", {
      method: "POST",
      body: '{"name":"Galley"}',
      headers: { "content-type": "application/json" },
    }),
    { params: Promise.resolve({}) },
  );
});
afterAll(() => one?.end());

const stock = kitchen("gather Eel\nbuy Salt for 1\nSmoke: 2 Eel + 1 Salt -> 1 Smoked eel");
const [eel] = [...stock.records.item.values()];
const BODIES: readonly Json[] = [
  { edits: [{ op: "set", kind: "item", id: eel.id, field: "level", from: null, to: 3 }], note: "tuned" },
  { edits: [{ op: "add", kind: "item", record: eel as never }] },
  { name: "Ropewalk" },
  JSON.parse(exportBundle(stock)) as Json,
];
const ROUTES: readonly (readonly [method: string, handler: Handler])[] = [
  ["GET", health.GET],
  ["GET", icons.GET],
  ["GET", icon.GET],
  ["GET", pantries.GET],
  ["POST", pantries.POST],
  ["GET", snapshots.GET],
  ["DELETE", snapshots.DELETE],
  ["GET", bundles.GET],
  ["POST", bundles.POST],
  ["GET", changes.GET],
  ["POST", changes.POST],
  ["POST", undos.POST],
  ["GET", costs.GET],
  ["GET", chains.GET],
  ["GET", plans.GET],
  ["GET", glances.GET],
  ["POST", whatIf.POST],
  ["HEAD", events.HEAD],
];
const QUERIES = [
  "dry",
  "replace",
  "name",
  "of",
  "before",
  "most",
  "revision",
  "q",
  "by",
  "way",
  "onward",
  "constructor",
  "__proto__",
];

const word = (random: Random): string => {
  const value = hostile(random, 0);
  return typeof value === "string" ? value.slice(0, 300) : String(value);
};

function bytes(random: Random): string {
  const body = JSON.stringify(random() < 0.2 ? hostile(random, 5) : mutated(random, pick(random, BODIES)));
  switch (below(random, 8)) {
    case 0:
      return body.slice(0, below(random, body.length));
    case 1:
      return "[".repeat(below(random, 5000)) + body;
    case 2:
      return body.replaceAll('"', "\\u0000");
    default:
      return body;
  }
}

describe("every route", () => {
  fuzz("answers whatever it is sent", async (random) => {
    const [method, handler] = pick(random, ROUTES);
    const query = new URLSearchParams(
      Array.from(
        { length: below(random, 3) },
        () => [pick(random, QUERIES), random() < 0.5 ? String(below(random, 9)) : word(random)] as [string, string],
      ),
    );
    const headers: Record<string, string> =
      random() < 0.9
        ? { "content-type": "application/json" }
        : { "content-type": pick(random, ["text/plain", "application/json; charset=utf-16", "multipart/form-data"]) };
    if (random() < 0.2)
      headers["x-salty-author"] = encodeURIComponent(word(random).replace(/\p{Surrogate}/gu, "")).slice(0, 900);
    if (random() < 0.1)
      headers.origin = pick(random, ["http://localhost", "null", "http://evil.example", "http://localhost:1", "x"]);
    const request = new Request(`http://localhost/?${query}`, {
      method,
      headers,
      ...(method === "GET" || method === "HEAD" ? {} : { body: bytes(random) }),
    });
    const params = {
      pantry: random() < 0.8 ? "galley" : word(random),
      name: word(random),
      item: pick(random, [eel.id, word(random)]),
      revision: pick(random, ["1", "0", "-1", "1e9", word(random)]),
    };
    const response = await handler(request, { params: Promise.resolve(params) });
    const text = await response.text();
    expect(response.status, `${method} ${text.slice(0, 300)}`).toBeLessThan(500);
    expect(text.length).toBeLessThan(2_000_000);
    if (response.status >= 400) {
      expect(response.headers.get("content-type")).toBe("application/problem+json");
      expect(text).not.toMatch(/insert into|select .* from "|node_modules|\.ts:\d|at \w+ \(|\/src\//i);
    }
    expect(response.headers.get("x-content-type-options")).toBe("nosniff");
    if ((await one.host.pantries()).length === 0)
      await pantries.POST(
        new Request("http://localhost/", {
          method: "POST",
          body: '{"name":"Galley"}',
          headers: { "content-type": "application/json" },
        }),
        { params: Promise.resolve({}) },
      );
  });
});
