import { describe, expect, it } from "vitest";
import { BUNDLE, Gauge, readBody, SMALL } from "./body";
import { nameOf, ownNames, refuseForeign, withSecurityHeaders } from "./origin";
import { Pool } from "./pool";
import { Ration } from "./ration";

const asked = (headers: Record<string, string>, writes = true) =>
  refuseForeign(
    { headers: new Headers({ host: "localhost:3000", ...headers }), url: "http://localhost:3000/" } as Request,
    { writes },
  )?.status ?? 200;

describe("the door", () => {
  it.each([
    ["a program without headers", {}, 200, 200],
    ["our own page", { origin: "http://localhost:3000", "sec-fetch-site": "same-origin" }, 200, 200],
    [
      "a page behind a proxy that keeps the name",
      { host: "127.0.0.1:3000", origin: "https://127.0.0.1:3000" },
      200,
      200,
    ],
    ["a foreign page", { origin: "http://evil.example", "sec-fetch-site": "cross-site" }, 403, 403],
    [
      "a page of this machine at another port",
      { origin: "http://localhost:5000", "sec-fetch-site": "same-site" },
      403,
      403,
    ],
    ["a page without an origin", { origin: "null" }, 403, 403],
    [
      "a foreign picture",
      { "sec-fetch-site": "cross-site", "sec-fetch-mode": "no-cors", "sec-fetch-dest": "image" },
      403,
      403,
    ],
    [
      "a link that a person followed",
      { "sec-fetch-site": "cross-site", "sec-fetch-mode": "navigate", "sec-fetch-dest": "document" },
      403,
      200,
    ],
    ["an address of our own", { "sec-fetch-site": "none" }, 200, 200],
    ["a name that leads here", { host: "evil.example" }, 421, 421],
    ["a name that only begins like ours", { host: "localhost.evil.example:3000" }, 421, 421],
    ["a name that is none", { host: "a b" }, 421, 421],
    ["our own address as a number", { host: "[::1]:3000" }, 200, 200],
  ])("to %s", (_, headers, writing, reading) => {
    expect([asked(headers as Record<string, string>), asked(headers as Record<string, string>, false)]).toEqual([
      writing,
      reading,
    ]);
  });

  it("opens to HOST, to SALTY_HOSTS, and to this machine's addresses where it is served to all", () => {
    expect([...ownNames({})]).toEqual(["localhost", "127.0.0.1", "[::1]"]);
    expect(ownNames({ HOST: "10.1.2.3", SALTY_HOSTS: "Pantry.example, other.example:8080,, {x}" })).toEqual(
      new Set(["localhost", "127.0.0.1", "[::1]", "10.1.2.3", "pantry.example", "other.example"]),
    );
    expect(ownNames({ HOST: "::1" })).toContain("[::1]");
    expect(ownNames({ HOST: "0.0.0.0" }).size).toBeGreaterThan(3);
    expect([nameOf("A.b:80"), nameOf("[::1]"), nameOf("a:b"), nameOf(""), nameOf("a/b")]).toEqual([
      "a.b",
      "[::1]",
      null,
      null,
      null,
    ]);
  });

  it("seals every answer", () => {
    const { headers } = withSecurityHeaders(new Response("{}"));
    expect(headers.get("content-security-policy")).toContain("default-src 'none'");
    expect([
      headers.get("x-content-type-options"),
      headers.get("cache-control"),
      headers.get("cross-origin-resource-policy"),
    ]).toEqual(["nosniff", "no-store", "same-origin"]);
  });
});

describe("a body", () => {
  const body = (text: string | ReadableStream<Uint8Array>, headers: Record<string, string> = {}) =>
    new Request("http://localhost/", {
      method: "POST",
      body: text,
      headers: { "content-type": "application/json", ...headers },
      duplex: "half",
    } as never);
  const status = async (request: Request, limits = SMALL, ration = new Ration(1e9)) => {
    const read = await readBody(request, limits, ration);
    if ("refusal" in read) return read.refusal.status;
    read.done();
    expect(ration.left).toBe(ration.most);
    return 200;
  };

  it("is JSON, said to be JSON, and there", async () => {
    expect(await status(body("{}"))).toBe(200);
    expect(await status(body("{}", { "content-type": "application/json; charset=UTF-8" }))).toBe(200);
    for (const type of [
      "text/plain",
      "application/x-www-form-urlencoded",
      "application/json; charset=utf-16",
      "multipart/form-data; boundary=x",
      "application/jsonx",
    ])
      expect(await status(body("{}", { "content-type": type }))).toBe(415);
    expect(
      await status(
        new Request("http://localhost/", { method: "POST", headers: { "content-type": "application/json" } }),
      ),
    ).toBe(400);
  });

  it("is bounded in bytes, values and depth while it is read, and an endless one is not waited for", async () => {
    expect(await status(body("x".repeat(SMALL.bytes + 1)))).toBe(413);
    expect(await status(body(`[${"1,".repeat(200)}1]`))).toBe(413);
    expect(await status(body("[".repeat(9)))).toBe(400);
    expect(await status(body(`["${"[{,".repeat(200)}\\"[["]`))).toBe(200);
    expect(await status(body("{}", { "content-length": String(1e9) }))).toBe(413);
    let pulled = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull: (c) => {
        pulled++;
        c.enqueue(new Uint8Array(65_536).fill(44));
      },
    });
    expect(await status(body(endless), BUNDLE)).toBe(413);
    expect(pulled).toBeLessThan(300);
  });

  it("shares a ration with all others, and gives it back", async () => {
    const ration = new Ration(10);
    expect(await status(body('"0123456789"'), SMALL, ration)).toBe(503);
    expect(ration.left).toBe(10);
    expect(await status(body('"01234"'), SMALL, ration)).toBe(200);
  });

  it("that breaks off is refused", async () => {
    const broken = new ReadableStream<Uint8Array>({
      start: (c) => {
        c.enqueue(new Uint8Array([123]));
        c.error(new Error("gone"));
      },
    });
    const ration = new Ration(100);
    expect(await status(body(broken), SMALL, ration)).toBe(400);
    expect(ration.left).toBe(100);
  });

  it("is gauged the same in whatever pieces it comes", () => {
    const bytes = new TextEncoder().encode('{"a\\\\":"[,\\"{",  "b":[1,[2,{"c":[]}]]}');
    const whole = new Gauge();
    whole.add(bytes);
    const pieces = new Gauge();
    for (const byte of bytes) pieces.add(Uint8Array.of(byte));
    expect([pieces.values, pieces.deepest, pieces.depth]).toEqual([whole.values, whole.deepest, whole.depth]);
    expect([whole.values, whole.deepest, whole.depth]).toEqual([9, 5, 0]);
  });
});

describe("a pool of threads", () => {
  const pooled = (used: number) => {
    const l = {
      used,
      running: false,
      working: false,
      park: async () => {
        l.running = false;
      },
    };
    return l;
  };
  const open = (pool: Pool, l: ReturnType<typeof pooled>) =>
    pool.admit(l, async () => {
      l.running = true;
    });

  it("ends the one used least recently to make room, and never one at work", async () => {
    const pool = new Pool(2);
    const [a, b, c, d] = [pooled(1), pooled(2), pooled(3), pooled(4)];
    for (const l of [a, b, c]) await open(pool, l);
    expect([a.running, b.running, c.running, pool.size]).toEqual([false, true, true, 2]);
    b.working = true;
    await open(pool, d);
    expect([b.running, c.running, d.running]).toEqual([true, false, true]);
  });

  it("waits for one to have nothing to do where all are at work", async () => {
    const pool = new Pool(1);
    const [a, b] = [pooled(1), pooled(2)];
    await open(pool, a);
    a.working = true;
    const waiting = open(pool, b);
    await Promise.resolve();
    expect(b.running).toBe(false);
    a.working = false;
    pool.freed();
    await waiting;
    expect([a.running, b.running]).toEqual([false, true]);
    pool.leave(b);
    expect(pool.size).toBe(0);
  });
});
