import { json } from "@/server/problem";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

/** The whole pantry at a glance; see Glance. */
export const GET = pantryRoute(async ({ engine }) => json(await engine.ask("glance", {}, { limit: 30_000 })));
