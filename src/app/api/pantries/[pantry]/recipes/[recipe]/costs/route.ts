import { runsOf } from "@/server/replies";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

export const GET = pantryRoute(async ({ engine, params }) => runsOf(engine, params.recipe));
