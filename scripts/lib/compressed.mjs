/**
 * Static files of the build, compressed once with Brotli and kept in memory. Their names contain a hash of their content,
 * so browsers may cache them permanently.
 */
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { promisify } from "node:util";
import { brotliCompress, constants } from "node:zlib";

const compress = promisify(brotliCompress);
/** A worker inherits its policy from the response that delivered it. */
const SAFE = {
  "content-security-policy": "default-src 'self'; object-src 'none'; base-uri 'none'; frame-ancestors 'none'",
  "cross-origin-resource-policy": "same-origin",
  "x-content-type-options": "nosniff",
  "x-frame-options": "DENY",
};
const TYPES = { js: "application/javascript; charset=UTF-8", css: "text/css; charset=UTF-8" };

/**
 * @param {string} folder  of the build's static files
 * @returns {(request, response) => boolean} answers a request for one of them; false if it asks for something else or does
 *   not accept Brotli
 */
export function compressedFiles(folder) {
  /** By URL path: only files that existed at startup are ever read. */
  const files = new Map(
    readdirSync(folder, { recursive: true, withFileTypes: true })
      .filter((entry) => entry.isFile() && Object.hasOwn(TYPES, entry.name.split(".").pop()))
      .map((entry) => {
        const path = join(entry.parentPath ?? entry.path, entry.name);
        const address = `/_next/static/${path.slice(folder.length + 1).replaceAll("\\", "/")}`;
        return [address, { path, type: TYPES[entry.name.split(".").pop()], body: null }];
      }),
  );
  return (request, response) => {
    if (request.method !== "GET" || !/\bbr\b/.test(String(request.headers["accept-encoding"] ?? ""))) return false;
    const file = files.get(request.url.split("?")[0]);
    if (!file) return false;
    file.body ??= compress(readFileSync(file.path), { params: { [constants.BROTLI_PARAM_QUALITY]: 10 } });
    file.body.then(
      (body) => {
        response.writeHead(200, {
          "content-type": file.type,
          "content-encoding": "br",
          "content-length": body.length,
          "cache-control": "public, max-age=31536000, immutable",
          vary: "Accept-Encoding",
          ...SAFE,
        });
        response.end(body);
      },
      () => response.destroy(),
    );
    return true;
  };
}
