import { postChange } from "@/server/live";
import { LogAsked } from "@/server/queries";
import { log } from "@/server/replies";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

/**
 * The log, newest first: ?before=REVISION&most=N, ?of=RECORD for one record's history, ?revision=N for one change with
 * all its edits.
 */
export const GET = pantryRoute(({ host, engine, query }) => log(engine, host, query), { asks: LogAsked });

export { postChange as POST };
