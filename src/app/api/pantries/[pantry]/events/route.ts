import { pantryRoute } from "@/server/route";
import { liveStream } from "@/server/stream";

export const dynamic = "force-dynamic";

export const GET = pantryRoute(async ({ engine, host, request }) => liveStream(engine, host, request.signal));
