import type { Id } from "@/core/catalogue/records";
import { itemCosts } from "@/server/pantry";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

export const GET = pantryRoute(async ({ engine, params }) => itemCosts(engine, params.item as Id));
