import { createServer, type Server } from "node:http";
import { connect } from "node:net";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { withDefaults } from "../core/kinds/index";
import { newId } from "../core/schema/id";
import { freshDatabase } from "../store/testing/database";
import { answerDirectly } from "./direct";
import { type Host, host } from "./host";
import { newPantry } from "./use-cases/pantries";

let database: Awaited<ReturnType<typeof freshDatabase>>;
let one: Host;
let server: Server;
let [port, base] = [0, ""];

beforeAll(async () => {
  database = await freshDatabase();
  process.env.DATABASE_URL = database.url;
  one = await host();
  await newPantry(one, "Cellar");
  server = createServer((request, response) => {
    if (!answerDirectly(request, response)) response.writeHead(299).end("not here");
  });
  await new Promise<void>((done) => server.listen(0, "127.0.0.1", done));
  port = (server.address() as { port: number }).port;
  base = `http://127.0.0.1:${port}/api/pantries/cellar`;
});
afterAll(async () => {
  server.closeAllConnections();
  server.close();
  await one.close();
  await database.drop();
});

const post = (body: BodyInit, { headers = {}, to = base }: { headers?: Record<string, string>; to?: string } = {}) =>
  fetch(`${to}/changes`, {
    method: "POST",
    headers: { "content-type": "application/json", ...headers },
    body,
    duplex: "half",
  } as RequestInit);
const adding = (name: string) => ({
  edits: [{ op: "add", kind: "tag", record: withDefaults("tag", { id: newId(), key: `k_${newId()}`, name }) }],
});

describe("what is answered before the framework", () => {
  it("is a change, with its author, its refusal and what the door refuses", async () => {
    const answer = await post(JSON.stringify(adding("Tarred")), { headers: { "x-salty-author": "Ida" } });
    expect([answer.status, answer.headers.get("x-content-type-options")]).toEqual([200, "nosniff"]);
    expect(await answer.json()).toEqual({ revision: 1, edits: 1 });
    expect((await post("{")).status).toBe(400);
    expect((await post(JSON.stringify({ edits: [] }))).status).toBe(422);
    expect((await post("{}", { headers: { "content-type": "text/plain" } })).status).toBe(415);
    expect((await post("{}", { headers: { origin: "http://evil.example" } })).status).toBe(403);
    expect((await post("{}", { to: base.replace("cellar", "attic") })).status).toBe(404);
  });

  it("is no other address, and none that is written otherwise", async () => {
    for (const path of ["", "/changes", "/bundle", "/changes/1/undo"])
      expect((await fetch(base + path)).status).toBe(299);
    for (const key of ["Cellar", "a%2Fb", "%63ellar", "cellar%00"])
      expect((await post("{}", { to: base.replace("cellar", key) })).status).toBe(299);
  });

  it("hears why a body is refused that never says how large it is", async () => {
    // Lists in lists, far deeper than any change; sent piece by piece, and the answer comes over the same connection.
    const answer = await new Promise<string>((done, fail) => {
      const socket = connect(port, "127.0.0.1");
      let heard = "";
      socket
        .on("data", (data) => (heard += data))
        .on("end", () => done(heard))
        .on("error", fail);
      socket.write(
        "POST /api/pantries/cellar/changes HTTP/1.1\r\nhost: localhost\r\ncontent-type: application/json\r\ntransfer-encoding: chunked\r\n\r\n",
      );
      for (let k = 0; k < 20; k++) socket.write("2\r\n[[\r\n");
      socket.write("0\r\n\r\n");
    });
    expect(answer).toContain("400");
    expect(answer).toContain("Nested too deep");
  });

  it("is the stream, from its greeting to the next change, and it ends when no one reads it any more", async () => {
    const ending = new AbortController();
    const stream = await fetch(`${base}/events`, { signal: ending.signal });
    const reader = (stream.body as ReadableStream<Uint8Array>).getReader();
    let heard = "";
    const until = async (text: string) => {
      while (!heard.includes(text)) heard += new TextDecoder().decode((await reader.read()).value);
    };
    await until("event: hello");
    expect(one.streams).toBe(1);
    await post(JSON.stringify(adding("Corked")));
    await until("event: change");
    expect(heard).toContain("Corked");
    ending.abort();
    for (let k = 0; one.streams && k < 200; k++) await new Promise((done) => setTimeout(done, 10));
    expect(one.streams).toBe(0);
  });
});
