/**
 * In front of every page and file: answers to our own names only, and says what a page may load and do. The API has its
 * own door (server/route.ts).
 */
import { type NextRequest, NextResponse } from "next/server";
import { refuseForeign, SECURITY_HEADERS, withSecurityHeaders } from "./server/origin";

/**
 * Scripts and styles run only with the nonce of this one answer or from our own files; nothing is loaded from
 * elsewhere.
 */
function policy(nonce: string): string {
  const dev = process.env.NODE_ENV === "development";
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${dev ? " 'unsafe-eval'" : ""}`,
    `style-src 'self' 'nonce-${nonce}'`,
    // Positions and colours stand in style attributes; they can neither run nor load anything.
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' data:",
    "font-src 'self'",
    `connect-src 'self'${dev ? " ws:" : ""}`,
    "worker-src 'self'",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
}

export function proxy(request: NextRequest): Response {
  // People follow links to pages from anywhere; what a page may fetch is the API's business.
  const refused = refuseForeign(
    new Request(request.nextUrl, { headers: { host: request.headers.get("host") ?? "" } }),
    { writes: false },
  );
  if (refused) return withSecurityHeaders(refused);
  const nonce = btoa(crypto.randomUUID());
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("content-security-policy", policy(nonce));
  const response = NextResponse.next({ request: { headers } });
  for (const [name, value] of Object.entries(SECURITY_HEADERS)) response.headers.set(name, value);
  response.headers.set("content-security-policy", policy(nonce));
  return response;
}

export const config = { matcher: ["/((?!api/|api$).*)"] };
