/** A pantry as a view opens it: all records and readings of one revision, packed once per revision. */
import { promisify } from "node:util";
import { gzip } from "node:zlib";
import type { Board } from "../core/analysis/board";
import { type Catalogue, packed } from "../core/catalogue/catalogue";
import type { Engine } from "./host";

const pack = promisify(gzip);
const zipped = new WeakMap<Catalogue, Promise<Buffer>>();

const text = ({ catalogue, board }: { catalogue: Catalogue; board: Board }): string => JSON.stringify({ ...packed(catalogue, { bytes: false }), board });

/**
 * As JSON, or as the same JSON in a gzip file where the caller accepts application/gzip. (The framework drops
 * content-encoding from handlers' answers and compresses none of them itself.)
 */
export async function snapshot(engine: Engine, accepts: string): Promise<Response> {
  const headers = { "cache-control": "no-store", vary: "accept" };
  if (!accepts.includes("application/gzip")) return new Response(text(await engine.state()), { headers: { ...headers, "content-type": "application/json" } });
  let body = zipped.get(engine.catalogue);
  if (!body) {
    const state = await engine.state();
    body = pack(text(state), { level: 3 }) as Promise<Buffer>;
    zipped.set(state.catalogue, body);
  }
  return new Response(new Uint8Array(await body), { headers: { ...headers, "content-type": "application/gzip" } });
}
