import { RecipesAsked } from "@/server/queries";
import { madeForReply } from "@/server/replies";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

/** Of every ?of= what the first thing that it makes costs by it. */
export const GET = pantryRoute(async ({ engine, query }) => madeForReply(engine, query), { asks: RecipesAsked });
