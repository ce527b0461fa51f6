/**
 * Refusals over HTTP: RFC 9457 problem details with where, why and what would work. Never SQL, stacks or paths: those
 * are for the program's own log.
 */

export interface ProblemBody {
  readonly title: string;
  readonly status: number;
  readonly detail: string;
  readonly [more: string]: unknown;
}

export const problem = (
  status: number,
  title: string,
  detail: string,
  more: object = {},
  headers: Readonly<Record<string, string>> = {},
): Response =>
  new Response(JSON.stringify({ type: "about:blank", title, status, detail, ...more } satisfies ProblemBody), {
    status,
    headers: { ...headers, "content-type": "application/problem+json", "cache-control": "no-store" },
  });

export const jsonText = (text: string | Uint8Array | ReadableStream<Uint8Array>, status = 200): Response =>
  new Response(text as BodyInit, {
    status,
    headers: { "content-type": "application/json", "cache-control": "no-store" },
  });
export const json = (body: unknown, status = 200): Response => jsonText(JSON.stringify(body), status);
