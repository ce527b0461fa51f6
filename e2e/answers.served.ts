/** What the API answers, asked of the production build: bundling has turned refusals into failures before. */
import { brotliDecompressSync } from "node:zlib";
import { get, type IncomingMessage } from "node:http";
import { afterAll, beforeAll, expect, it } from "vitest";
import { answersThrough } from "./answers";
import { type Door, servedAt } from "./door";
import { Program } from "./program";

let program: Program;
let door: Door;
beforeAll(async () => {
  program = await Program.on("salty_answers");
  door = servedAt(program.base);
}, 300_000);
afterAll(() => program?.end());

answersThrough(() => door);

/** An answer as it is sent. */
const sent = (path: string, encoding: string) =>
  new Promise<{ readonly answer: IncomingMessage; readonly body: Buffer }>((done, failed) =>
    get(`${program.base}${path}`, { headers: { "accept-encoding": encoding } }, (answer) => {
      const parts: Buffer[] = [];
      answer.on("data", (part) => parts.push(part));
      answer.on("end", () => done({ answer, body: Buffer.concat(parts) }));
    }).on("error", failed),
  );

it("sends scripts and styles compressed to browsers that take it, and the same as they are to others", async () => {
  const page = await (await fetch(`${program.base}/?all`)).text();
  const files = [...new Set(page.match(/\/_next\/static\/[\w./~-]+\.(?:js|css)/g))];
  expect(files.length).toBeGreaterThan(5);
  for (const file of files) {
    const [small, plain] = [await sent(file, "gzip, br"), await sent(file, "identity")];
    expect([small.answer.statusCode, small.answer.headers["content-encoding"]]).toEqual([200, "br"]);
    expect(small.answer.headers["cache-control"]).toContain("immutable");
    expect(small.answer.headers["content-type"]).toBe(plain.answer.headers["content-type"]);
    expect(brotliDecompressSync(small.body).equals(plain.body)).toBe(true);
  }
  // What lies outside, or nowhere, is not found: a folder leads to its name without the slash, which is none either.
  for (const [path, status] of [
    ["/_next/static/../server/pages-manifest.json", 404],
    ["/_next/static/none.js", 404],
    ["/_next/static/", 308],
  ] as const)
    expect([path, (await sent(path, "br")).answer.statusCode]).toEqual([path, status]);
});
