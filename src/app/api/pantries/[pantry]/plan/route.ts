import { planReply } from "@/server/replies";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

export const GET = pantryRoute(async ({ engine, request }) => planReply(engine, new URL(request.url).searchParams));
