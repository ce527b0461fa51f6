/** Refusals over HTTP: RFC 9457 problem details with where, why and what would work. */

export interface ProblemBody {
  readonly title: string;
  readonly status: number;
  readonly detail: string;
  readonly [more: string]: unknown;
}

export const problem = (status: number, title: string, detail: string, more: object = {}): Response =>
  new Response(JSON.stringify({ type: "about:blank", title, status, detail, ...more } satisfies ProblemBody), { status, headers: { "content-type": "application/problem+json" } });

export const json = (body: unknown, status = 200): Response => new Response(JSON.stringify(body), { status, headers: { "content-type": "application/json", "cache-control": "no-store" } });
