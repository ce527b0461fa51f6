import { json } from "@/server/problem";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

/** Where the cost of each item comes from; see Origin. */
export const GET = pantryRoute(async ({ engine }) => json(await engine.ask("origins", {}, { limit: 20_000 })));
