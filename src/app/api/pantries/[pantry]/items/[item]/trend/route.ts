import { TrendAsked } from "@/server/queries";
import { costTrend } from "@/server/replies";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

/** What an item costs at each level and, with ?history=1, cost after each of the last changes. */
export const GET = pantryRoute(
  ({ engine, host, params, query, request }) => costTrend(engine, host, params.item, query, request.signal),
  { asks: TrendAsked },
);
