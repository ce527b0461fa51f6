/**
 * Answers the addresses that carry a studio at work before the framework sees them: its own way to a handler takes some
 * milliseconds of the one thread that everybody's requests share. The handlers are the same; the framework's routes stay
 * for whoever serves without scripts/serve.mjs.
 */
import type { IncomingMessage, ServerResponse } from "node:http";
import { Readable } from "node:stream";
import { getEvents, postChange } from "./live";

const DIRECT = [
  { method: "POST", path: /^\/api\/pantries\/([a-z0-9_]{1,90})\/changes$/, handler: postChange },
  { method: "GET", path: /^\/api\/pantries\/([a-z0-9_]{1,90})\/events$/, handler: getEvents },
];

/** Answers a request, or says that it is not one of these. @returns false where nothing was done */
export function answerDirectly(incoming: IncomingMessage, response: ServerResponse): boolean {
  for (const { method, path, handler } of DIRECT) {
    const match = incoming.method === method ? path.exec(incoming.url ?? "") : null;
    if (!match) continue;
    const left = new AbortController();
    response.once("close", () => left.abort());
    handler(requestOf(incoming, left.signal), { params: Promise.resolve({ pantry: match[1] }) })
      .then((answer) => send(answer, response))
      .catch((error: Error) => {
        console.error(error);
        response.destroy();
      });
    return true;
  }
  return false;
}

function requestOf(incoming: IncomingMessage, signal: AbortSignal): Request {
  const headers = new Headers();
  for (const [name, value] of Object.entries(incoming.headersDistinct)) {
    // Several values of what may be given once only are none that is known.
    if (value) headers.set(name, value.join(", "));
  }
  const { method } = incoming;
  const url = `http://${LOOPBACK}${incoming.url}`;
  return method === "GET"
    ? new Request(url, { method, headers, signal })
    : // Streams as bodies need `duplex`, which the types do not know.
      new Request(url, { method, headers, signal, body: Readable.toWeb(incoming), duplex: "half" } as RequestInit);
}
const LOOPBACK = "127.0.0.1";

async function send(answer: Response, response: ServerResponse): Promise<void> {
  response.writeHead(answer.status, Object.fromEntries(answer.headers));
  if (!answer.body) {
    response.end();
    return;
  }
  const reader = answer.body.getReader();
  response.once("close", () => void reader.cancel().catch(() => undefined));
  for (;;) {
    const { done, value } = await reader.read();
    if (done || response.destroyed) break;
    // Whoever does not read is waited for; what piles up meanwhile is bounded by the stream.
    if (!response.write(value)) await new Promise((go) => response.once("drain", go).once("close", go));
  }
  response.end();
}
