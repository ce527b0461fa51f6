#!/usr/bin/env node
/** The web server that npm start runs: the framework's handler behind bounds on connections, headers and addresses. */
import { createServer } from "node:http";
import { join } from "node:path";
import next from "next";
import { compressedFiles } from "./lib/compressed.mjs";
import { root } from "./lib/setup.mjs";

const port = Number(process.env.PORT || 3000);
const hostname = process.env.HOST || "127.0.0.1";
const METHODS = new Set(["GET", "HEAD", "POST", "DELETE", "OPTIONS"]);
const LONGEST = 8_192;
/** The largest body that any route takes. */
const LARGEST = 64 * 2 ** 20;

/** Why a request is not handed on, or null. */
function refusal({ method, url, headers }) {
  if (!METHODS.has(method)) return [405, "This method is not known here"];
  if (url.length > LONGEST) return [414, "This address is too long"];
  if (Number(headers["content-length"] ?? 0) > LARGEST) return [413, "Too large"];
  try {
    decodeURIComponent(url.split("?")[0]);
  } catch {
    return [400, "This address is not well-formed"];
  }
  return null;
}

function refuse(response, [status, title]) {
  const body = JSON.stringify({ type: "about:blank", title, status, detail: title });
  response.writeHead(status, {
    "content-type": "application/problem+json",
    "cache-control": "no-store",
    "x-content-type-options": "nosniff",
    "content-security-policy": "default-src 'none'; frame-ancestors 'none'",
    connection: "close",
  });
  response.end(body);
}

const app = next({ dev: false, dir: root, hostname, port });
await app.prepare();
const handle = app.getRequestHandler();
const compressed = compressedFiles(join(root, ".next/static"));
const server = createServer(
  { headersTimeout: 20_000, requestTimeout: 180_000, keepAliveTimeout: 5_000, maxHeaderSize: 16_384 },
  (request, response) => {
    const refused = refusal(request);
    if (refused) refuse(response, refused);
    else if (!compressed(request, response) && !globalThis.saltyDirect?.(request, response))
      handle(request, response).catch((error) => {
        console.error(error);
        if (response.headersSent) response.destroy();
        else refuse(response, [500, "The program failed"]);
      });
  },
);
server.maxConnections = 2_000;
server.on(
  "clientError",
  (_, socket) => socket.writable && socket.end("HTTP/1.1 400 Bad Request\r\nconnection: close\r\n\r\n"),
);
server.listen(port, hostname);
for (const signal of ["SIGTERM", "SIGINT"])
  process.on(signal, () => {
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    setTimeout(() => process.exit(0), 800).unref();
  });
