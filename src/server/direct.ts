/**
 * Answers the addresses that carry a studio at work before the framework sees them: its own way to a handler takes some
 * milliseconds of the one thread that everyone's requests share. The handlers are the same; the framework's routes stay
 * for whoever serves without scripts/serve.mjs.
 */
import type { IncomingMessage, ServerResponse } from "node:http";
import { getEvents, postChange } from "./live";
import { STREAM_HEADERS } from "./stream";

const DIRECT = [
  { method: "POST", path: /^\/api\/pantries\/([a-z0-9_]{1,90})\/changes$/, handler: postChange },
  { method: "GET", path: /^\/api\/pantries\/([a-z0-9_]{1,90})\/events$/, handler: getEvents },
];

/** Answers a request, or says that it is not one of these. @returns false where nothing was done */
export function answerDirectly(incoming: IncomingMessage, response: ServerResponse): boolean {
  for (const { method, path, handler } of DIRECT) {
    const match = incoming.method === method ? path.exec(incoming.url ?? "") : null;
    if (!match) continue;
    handler(requestOf(incoming, response), { params: Promise.resolve({ pantry: match[1] }) })
      .then((answer) => send(answer, response))
      .catch((error: Error) => {
        console.error(error);
        response.destroy();
      });
    return true;
  }
  return false;
}

/** A request as far as handlers look at one; what few of them need is made when it is asked for. */
function requestOf(incoming: IncomingMessage, response: ServerResponse): Request {
  const headers = new Headers();
  // What is given several times although it may be given once only becomes a value that no one knows.
  for (const [name, values] of Object.entries(incoming.headersDistinct)) headers.set(name, (values ?? []).join(", "));
  let signal: AbortSignal | null = null;
  return {
    method: incoming.method,
    url: `http://${headers.get("host")}${incoming.url}`,
    headers,
    // Reading no further must not end the connection: the refusal goes out over it.
    body: incoming.method === "GET" ? null : incoming.iterator({ destroyOnReturn: false }),
    get signal() {
      signal ??= leaving(response);
      return signal;
    },
  } as unknown as Request;
}

/** Aborted when whoever asked goes away. */
function leaving(response: ServerResponse): AbortSignal {
  const left = new AbortController();
  response.once("close", () => left.abort());
  return left.signal;
}

async function send(answer: Response, response: ServerResponse): Promise<void> {
  const headers = Object.fromEntries(answer.headers);
  if (headers["content-type"] !== STREAM_HEADERS["content-type"]) {
    const body = Buffer.from(await answer.arrayBuffer());
    response.writeHead(answer.status, { ...headers, "content-length": String(body.length) });
    response.end(body);
    return;
  }
  response.writeHead(answer.status, headers);
  const reader = (answer.body as ReadableStream<Uint8Array>).getReader();
  response.once("close", () => void reader.cancel().catch(() => undefined));
  for (;;) {
    const { done, value } = await reader.read();
    if (done || response.destroyed) break;
    // Whoever does not read is waited for; what piles up meanwhile is bounded by the stream.
    if (!response.write(value)) await writable(response);
  }
  response.end();
}

/** Resolves once what was written is on its way, or the connection is gone. */
const writable = (response: ServerResponse): Promise<void> =>
  new Promise((done) => {
    const go = () => {
      response.off("drain", go).off("close", go);
      done();
    };
    response.on("drain", go).on("close", go);
  });
