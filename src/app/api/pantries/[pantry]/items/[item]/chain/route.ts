import { chainReply } from "@/server/replies";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

export const GET = pantryRoute(async ({ engine, params, request }) =>
  chainReply(engine, params.item, new URL(request.url).searchParams),
);
