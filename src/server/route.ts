/** What every handler does: find the pantry, read the body, turn failures into problem details. */
import { type Actor, actingFrom } from "./acting";
import { type Engine, type Host, host } from "./host";
import { problem } from "./problem";
import { checked } from "./requests";

export interface Call {
  readonly request: Request;
  readonly params: Record<string, string>;
  readonly host: Host;
  readonly actor: Actor;
}
type Context = { params: Promise<Record<string, string>> };

export const route =
  (handle: (call: Call) => Promise<Response>) =>
  async (request: Request, context: Context): Promise<Response> => {
    try {
      return await handle({ request, params: await context.params, host: await host(), actor: actingFrom(request.headers) });
    } catch (error) {
      const says = (error as Error).message;
      const away = /ECONNREFUSED|terminating connection|Connection terminated|does not answer|server closed|57P0/.test(`${says} ${(error as { code?: string }).code ?? ""}`);
      console.error(error);
      return away
        ? problem(503, "The database is away", "Nothing was written. It is tried again as soon as the database answers; try once more in a moment.")
        : problem(500, "The program failed", `Nothing was written. ${says}`);
    }
  };

export const pantryRoute = (handle: (call: Call & { engine: Engine }) => Promise<Response>) =>
  route(async (call) => {
    const engine = await call.host.engine(call.params.pantry);
    return engine ? handle({ ...call, engine }) : problem(404, "No such pantry", `There is no pantry “${call.params.pantry}”. GET /api/pantries lists those there are.`);
  });

/** Reads a JSON body of the given shape, or answers with everything that is wrong with it. */
export async function bodyOf<T extends object>(request: Request, shape: new () => T): Promise<{ body: T } | { refusal: Response }> {
  let value: unknown;
  try {
    value = await request.json();
  } catch (error) {
    return { refusal: problem(400, "Not JSON", `The body could not be read as JSON: ${(error as Error).message}`) };
  }
  const result = checked(shape, value);
  if (result.ok) return { body: result.body };
  return { refusal: problem(422, "The request does not have the expected shape", result.complaints.slice(0, 3).map((c) => `${c.place}: ${c.says}`).join("; "), { complaints: result.complaints }) };
}
