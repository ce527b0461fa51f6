import { postChange } from "@/server/live";
import { log } from "@/server/replies";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

/**
 * The log, newest first: ?before=REVISION&most=N, ?of=RECORD for one record's history, ?revision=N for one change with
 * all its edits.
 */
export const GET = pantryRoute(({ request, host, engine }) => {
  const query = new URL(request.url).searchParams;
  const number = (name: string) => (query.has(name) ? Number(query.get(name)) : undefined);
  return log(engine, host, {
    revision: number("revision"),
    of: query.get("of") ?? undefined,
    before: number("before"),
    most: number("most"),
  });
});

export { postChange as POST };
