import { SinceAsked } from "@/server/queries";
import { findingsSince } from "@/server/replies";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

/** What the checks find now and did not find at a revision. */
export const GET = pantryRoute(
  ({ engine, host, query, request }) => findingsSince(engine, host, query, request.signal),
  { asks: SinceAsked },
);
