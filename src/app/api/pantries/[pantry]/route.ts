import { pantryRoute } from "@/server/route";
import { snapshot } from "@/server/snapshot";

export const dynamic = "force-dynamic";

export const GET = pantryRoute(({ engine, request }) => snapshot(engine, request.headers.get("accept") ?? ""));
