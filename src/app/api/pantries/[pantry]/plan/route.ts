import { PlanAsked } from "@/server/queries";
import { planReply } from "@/server/replies";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

export const GET = pantryRoute(({ engine, query }) => planReply(engine, query), { asks: PlanAsked });
