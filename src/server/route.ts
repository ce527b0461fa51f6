/** What every handler does: identify the author, find the pantry, read the body, turn failures into problem details. */
import type { Edit } from "../core/catalogue/edit";
import type { Issue } from "../core/schema/issue";
import { saidTwice } from "../core/schema/json-text";
import { type Actor, actingFrom } from "./acting";
import { type BodyLimits, CHANGE, PICTURE, readBody, SMALL } from "./body";
import { refuseForeign, withSecurityHeaders } from "./origin";
import type { Engine } from "./engine";
import { databaseAway, type FailureKind, failureOf } from "./failures";
import { type Host, host } from "./host";
import { problem } from "./problem";
import { NothingAsked } from "./queries";
import { asked, checked, checkedChange, PictureBody, type Shape } from "./requests";

export interface Call<Q extends object = object> {
  readonly request: Request;
  /** What is asked for behind the question mark of the address. */
  readonly query: Q;
  readonly params: Record<string, string>;
  readonly host: Host;
  readonly actor: Actor;
  /** What is told of a failure that comes once the answer has begun. */
  readonly failed: (error: Error) => Response;
}
type Context = { params: Promise<object> };
type Handler = (request: Request, context: Context) => Promise<Response>;

const READING = ["GET", "HEAD"];

interface Options<Q extends object> {
  /** What may stand behind the question mark; absent: nothing. null: it is not looked at. */
  readonly asks?: Shape<Q> | null;
  /** True for what must not be opened from another page although it only reads. */
  readonly guarded?: boolean;
}

export const route =
  <Q extends object = NothingAsked>(
    handle: (call: Call<Q>) => Promise<Response> | Response,
    { guarded = false, asks = NothingAsked as Shape<Q> }: Options<Q> = {},
  ): Handler =>
  async (request, context) => {
    const writes = !READING.includes(request.method);
    const refused = refuseForeign(request, { writes: writes || guarded });
    if (refused) return withSecurityHeaders(refused);
    try {
      const actor = actingFrom(request.headers);
      if ("message" in actor) return withSecurityHeaders(problem(400, "Invalid author", actor.message));
      const query = asks ? asked(asks, new URL(request.url).searchParams) : null;
      if (query && !query.ok) return withSecurityHeaders(unasked(query.issues));
      return withSecurityHeaders(
        await handle({
          request,
          query: (query?.of ?? {}) as Q,
          params: (await context.params) as Record<string, string>,
          host: await host(),
          actor,
          failed: (error) => failure(error, writes),
        }),
      );
    } catch (error) {
      return withSecurityHeaders(failure(error as Error, writes));
    }
  };

const unasked = (issues: readonly Issue[]): Response =>
  problem(
    400,
    "Invalid query",
    issues
      .slice(0, 3)
      .map((i) => i.message)
      .join(" "),
    { issues },
  );

/** What is told of each failure; where it has no words of its own, what is thrown says it. */
const TOLD: { readonly [K in FailureKind]: readonly [status: number, title: string, detail?: string] } = {
  "given up": [499, "Request cancelled", "Nothing was saved."],
  "too busy": [503, "Too many requests"],
  computing: [503, "Still computing"],
  stopped: [503, "This pantry's analysis stopped"],
  "pictures full": [409, "Too many pictures"],
  "pantry gone": [404, "No such pantry"],
  "too long": [503, "This took too long"],
  lost: [503, "The engine failed", "Nothing was saved. Try again. If it happens again, check the server's log."],
  "engine failed": [
    503,
    "The engine failed",
    "Nothing was saved. Try again. If it happens again, check the server's log.",
  ],
};

/** What is told of a failure. Whether a change was written is only said where it is known. */
function failure(error: Error, writes: boolean): Response {
  const kind = failureOf(error);
  if (kind) {
    const [status, title, detail = error.message] = TOLD[kind];
    if (kind === "lost" || kind === "engine failed") console.error(error);
    return problem(status, title, detail, {}, status === 503 ? { "retry-after": "2" } : {});
  }
  console.error(error);
  if (databaseAway(error))
    return problem(
      503,
      "The database is unavailable",
      `The server reconnects as soon as the database responds.${writes ? " Check the Log before sending this again: it may have been saved." : ""}`,
      {},
      { "retry-after": "2" },
    );
  return problem(
    500,
    "Server error",
    writes ? "Check the Log before sending this again. The server's log has details." : "The server's log has details.",
  );
}

export const pantryRoute = <Q extends object = NothingAsked>(
  handle: (call: Call<Q> & { engine: Engine }) => Promise<Response> | Response,
  options?: Options<Q> & { /** What it does begins by reading what others wrote. */ readonly writes?: boolean },
) =>
  route<Q>(async (call) => {
    const key = call.params.pantry;
    const engine = await call.host.engine(key, { upToDate: !options?.writes });
    return engine
      ? handle({ ...call, engine })
      : problem(404, "No such pantry", "There is no pantry with this key. GET /api/pantries lists those there are.");
  }, options);

type Read<T> = { body: T } | { refusal: Response };

/** Reads a JSON body within limits, or answers why it can't be read. */
async function jsonOf({ request, host }: Call, limits: BodyLimits): Promise<Read<unknown>> {
  const read = await readBody(request, limits, host.bodies);
  if ("refusal" in read) return read;
  try {
    const text = new TextDecoder("utf-8", { fatal: true }).decode(read.bytes);
    const body: unknown = JSON.parse(text);
    const twice = saidTwice(text);
    return twice ? { refusal: problem(400, "Duplicate name", `At ${twice.place}: ${twice.message}`) } : { body };
  } catch (error) {
    return {
      refusal: problem(
        400,
        "Not JSON",
        `The body could not be read as JSON: ${(error as Error).message.slice(0, 200)}`,
      ),
    };
  } finally {
    read.done();
  }
}

const misshapen = (issues: readonly Issue[]): Response =>
  problem(
    422,
    "The request has an invalid format",
    issues
      .slice(0, 3)
      .map((c) => `${c.path}: ${c.message}`)
      .join("; "),
    { issues },
  );

/** Reads a small JSON body of the given shape, or answers with everything that is wrong with it. */
export async function bodyOf<T extends object>(call: Call, shape: Shape<T>): Promise<Read<T>> {
  const read = await jsonOf(call, SMALL);
  if ("refusal" in read) return read;
  const result = checked(shape, read.body);
  return result.ok ? { body: result.of } : { refusal: misshapen(result.issues) };
}

/** Reads a picture's body, or answers with what is wrong with it. */
export async function pictureBodyOf(call: Call): Promise<Read<PictureBody>> {
  const read = await jsonOf(call, PICTURE);
  if ("refusal" in read) return read;
  const result = checked(PictureBody, read.body, { texts: false });
  return result.ok ? { body: result.of } : { refusal: misshapen(result.issues) };
}

/** Reads a change, or answers with what is wrong with it. */
export async function changeOf(call: Call): Promise<Read<{ readonly edits: readonly Edit[]; readonly note: string }>> {
  const read = await jsonOf(call, CHANGE);
  if ("refusal" in read) return read;
  const result = checkedChange(read.body);
  return result.ok ? { body: result } : { refusal: misshapen(result.issues) };
}
