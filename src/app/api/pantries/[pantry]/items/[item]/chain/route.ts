import { ChainAsked } from "@/server/queries";
import { chainReply } from "@/server/replies";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

export const GET = pantryRoute(({ engine, params, query }) => chainReply(engine, params.item, query), {
  asks: ChainAsked,
});
