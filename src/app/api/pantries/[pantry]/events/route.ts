import { pantryRoute } from "@/server/route";
import { liveStream, STREAM_HEADERS } from "@/server/stream";

export const dynamic = "force-dynamic";

export const GET = pantryRoute(({ engine, host, request }) => liveStream(engine, host, request.signal), {
  guarded: true,
});
/** The same headers, and no stream: nobody would end it. */
export const HEAD = pantryRoute(() => new Response(null, { headers: STREAM_HEADERS }), { guarded: true });
