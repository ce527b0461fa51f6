import { costTrend } from "@/server/replies";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

/** What an item cost after each of the last changes, and what it costs at each level. */
export const GET = pantryRoute(({ engine, host, params, request }) =>
  costTrend(engine, host, params.item, request.signal),
);
