/** Who may come in: requests to names that are ours, and from other pages none. */
import { hostname, networkInterfaces } from "node:os";
import { problem } from "./problem";

const LOOPBACK = ["localhost", "127.0.0.1", "[::1]"];
const ANY = ["0.0.0.0", "::", "[::]"];

/**
 * Names under which this program may be asked: loopback, HOST, and those that SALTY_HOSTS lists. A browser led here by
 * a name of someone else's is refused (DNS rebinding).
 */
export function ownNames(env: Partial<Record<string, string>> = process.env): ReadonlySet<string> {
  const host = (env.HOST ?? "").trim().toLowerCase();
  const listed = (env.SALTY_HOSTS ?? "")
    .split(",")
    .map((name) => nameOf(name.trim()))
    .filter((name): name is string => name !== null);
  // Served on every address, it goes by this machine's own addresses and name: those no one else can give to a page.
  const own = ANY.includes(host)
    ? [
        hostname().toLowerCase(),
        ...Object.values(networkInterfaces()).flatMap((list) =>
          (list ?? []).map((i) => (i.family === "IPv6" ? `[${i.address}]` : i.address)),
        ),
      ]
    : host
      ? [host.includes(":") && !host.startsWith("[") ? `[${host}]` : host]
      : [];
  return new Set([...LOOPBACK, ...own, ...listed]);
}

/** The name in a Host header, without its port; null where there is none. */
export function nameOf(host: string): string | null {
  const match = /^(\[[0-9a-f:.]+\]|[a-z0-9.-]+)(?::\d{1,5})?$/i.exec(host);
  return match ? match[1].toLowerCase() : null;
}

/** Why a request is not answered at all, or null. */
export function refuseForeign(request: Request, { writes }: { readonly writes: boolean }): Response | null {
  const { headers } = request;
  const host = headers.get("host") ?? new URL(request.url).host;
  const name = nameOf(host);
  if (!name || !ownNames().has(name))
    return problem(
      421,
      "Unknown host name",
      `The server answers to localhost, HOST and the names in SALTY_HOSTS, such as SALTY_HOSTS=pantry.example.`,
    );
  const origin = headers.get("origin");
  const site = headers.get("sec-fetch-site");
  const foreign =
    (origin !== null && hostOf(origin) !== host.toLowerCase()) ||
    (site !== null && site !== "same-origin" && site !== "none");
  if (!foreign) return null;
  // A person may follow a link to a file from anywhere; a page may not fetch it.
  if (
    !writes &&
    origin === null &&
    headers.get("sec-fetch-mode") === "navigate" &&
    headers.get("sec-fetch-dest") === "document"
  )
    return null;
  return problem(
    403,
    "Request from another site",
    "Only this server's own pages can send this request. Scripts omit the headers Origin and Sec-Fetch-Site.",
  );
}

function hostOf(origin: string): string | null {
  try {
    return new URL(origin).host;
  } catch {
    return null;
  }
}

/** What every answer of the API carries: nothing in it may be run, framed or read by other pages. */
export const SECURITY_HEADERS: Readonly<Record<string, string>> = {
  "content-security-policy": "default-src 'none'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'; sandbox",
  "x-content-type-options": "nosniff",
  "x-frame-options": "DENY",
  "referrer-policy": "same-origin",
  "cross-origin-resource-policy": "same-origin",
  "cross-origin-opener-policy": "same-origin",
  "permissions-policy": "camera=(), geolocation=(), microphone=(), payment=(), usb=(), browsing-topics=()",
};

export function withSecurityHeaders(response: Response): Response {
  for (const [name, value] of Object.entries(SECURITY_HEADERS)) response.headers.set(name, value);
  if (!response.headers.has("cache-control")) response.headers.set("cache-control", "no-store");
  return response;
}
