/** The API's routes as tests ask them: by their handlers in this process, or over the network from a production build. */
import { request } from "node:http";
import { Readable } from "node:stream";

type Handler = (request: Request, context: { params: Promise<Record<string, string>> }) => Promise<Response>;
type Method = "GET" | "POST" | "DELETE";
export interface Route {
  readonly method: Method;
  /** Its path, with the names of its parameters in brackets. */
  readonly path: string;
  handler(): Promise<Handler>;
}
export interface Asked {
  /** A text goes as it is, everything else as JSON. */
  readonly body?: unknown;
  readonly params?: Readonly<Record<string, string>>;
  readonly query?: string;
  readonly headers?: Readonly<Record<string, string>>;
  readonly signal?: AbortSignal;
}
export type Door = (route: Route, asked: Asked) => Promise<Response>;

/** The handlers of a file, each as a route. */
function routes(path: string, load: () => Promise<object>): { readonly [M in Method]: Route } {
  const route = (method: Method): Route => ({
    method,
    path,
    handler: async () => ((await load()) as { readonly [name: string]: Handler })[method],
  });
  return { GET: route("GET"), POST: route("POST"), DELETE: route("DELETE") };
}
const of = "/api/pantries/[pantry]";
export const ROUTES = {
  health: routes("/api/health", () => import("../src/app/api/health/route")),
  icons: routes("/api/icons/[name]", () => import("../src/app/api/icons/[name]/route")),
  list: routes("/api/icons", () => import("../src/app/api/icons/route")),
  bodies: routes("/api/icon-bodies", () => import("../src/app/api/icon-bodies/route")),
  pantries: routes("/api/pantries", () => import("../src/app/api/pantries/route")),
  snapshots: routes(of, () => import("../src/app/api/pantries/[pantry]/route")),
  bundles: routes(`${of}/bundle`, () => import("../src/app/api/pantries/[pantry]/bundle/route")),
  changes: routes(`${of}/changes`, () => import("../src/app/api/pantries/[pantry]/changes/route")),
  undos: routes(
    `${of}/changes/[revision]/undo`,
    () => import("../src/app/api/pantries/[pantry]/changes/[revision]/undo/route"),
  ),
  events: routes(`${of}/events`, () => import("../src/app/api/pantries/[pantry]/events/route")),
  glance: routes(`${of}/glance`, () => import("../src/app/api/pantries/[pantry]/glance/route")),
  plan: routes(`${of}/plan`, () => import("../src/app/api/pantries/[pantry]/plan/route")),
  chain: routes(`${of}/items/[item]/chain`, () => import("../src/app/api/pantries/[pantry]/items/[item]/chain/route")),
  runs: routes(
    `${of}/recipes/[recipe]/costs`,
    () => import("../src/app/api/pantries/[pantry]/recipes/[recipe]/costs/route"),
  ),
  recipes: routes(`${of}/recipes`, () => import("../src/app/api/pantries/[pantry]/recipes/route")),
  costs: routes(`${of}/items/[item]/costs`, () => import("../src/app/api/pantries/[pantry]/items/[item]/costs/route")),
  trend: routes(`${of}/items/[item]/trend`, () => import("../src/app/api/pantries/[pantry]/items/[item]/trend/route")),
  origins: routes(`${of}/origins`, () => import("../src/app/api/pantries/[pantry]/origins/route")),
  since: routes(`${of}/findings/since`, () => import("../src/app/api/pantries/[pantry]/findings/since/route")),
  picture: routes(`${of}/pictures/[id]`, () => import("../src/app/api/pantries/[pantry]/pictures/[id]/route")),
  pictures: routes(`${of}/pictures`, () => import("../src/app/api/pantries/[pantry]/pictures/route")),
  whatIf: routes(`${of}/what-if`, () => import("../src/app/api/pantries/[pantry]/what-if/route")),
} as const;

const written = (body: unknown): string | undefined =>
  body === undefined || typeof body === "string" ? body : JSON.stringify(body);
const headersOf = ({ body, headers }: Asked) => ({
  ...(body === undefined ? {} : { "content-type": "application/json" }),
  ...headers,
});

/** The handlers of this process. */
export const here: Door = async ({ method, handler }, asked) => {
  const { params = {}, query, signal } = asked;
  const request = new Request(`http://localhost/${query ? `?${query}` : ""}`, {
    method,
    body: written(asked.body),
    headers: headersOf(asked),
    signal,
  });
  return (await handler())(request, { params: Promise.resolve({ ...params }) });
};

/** A program that is served at an address. Headers and paths go as they are given, which `fetch` would not do. */
export const servedAt =
  (base: string): Door =>
  ({ method, path }, asked) => {
    const { params = {}, query, signal } = asked;
    const filled = path.replace(/\[(\w+)\]/g, (_, name: string) => encodeURIComponent(params[name]));
    const { hostname, port } = new URL(base);
    const body = written(asked.body);
    return new Promise((answered, failed) => {
      const sent = request(
        {
          hostname,
          port,
          method,
          path: `${filled}${query ? `?${query}` : ""}`,
          headers: { ...headersOf(asked), ...(body && { "content-length": Buffer.byteLength(body) }) },
          signal,
        },
        (response) => {
          const headers = new Headers();
          for (const [name, value] of Object.entries(response.headers)) headers.set(name, String(value));
          answered(new Response(Readable.toWeb(response) as ReadableStream, { status: response.statusCode, headers }));
        },
      );
      sent.on("error", failed);
      sent.end(body);
    });
  };
