import { getEvents } from "@/server/live";
import { pantryRoute } from "@/server/route";
import { STREAM_HEADERS } from "@/server/stream";

export const dynamic = "force-dynamic";

export { getEvents as GET };
/** The same headers, and no stream: no one would end it. */
export const HEAD = pantryRoute(() => new Response(null, { headers: STREAM_HEADERS }), { guarded: true });
