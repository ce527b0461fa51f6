import { deletePantry } from "@/server/replies";
import { DeleteBody } from "@/server/requests";
import { bodyOf, pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

/**
 * All records and readings of one revision, as JSON, or as the same JSON in a gzip file where the caller accepts
 * application/gzip. (The framework drops content-encoding from handlers' answers and compresses none of them itself.)
 */
export const GET = pantryRoute(async ({ engine, request }) => {
  const zip = (request.headers.get("accept") ?? "").includes("application/gzip");
  return new Response((await engine.snapshot(zip)) as BodyInit, {
    headers: {
      "cache-control": "no-store",
      vary: "accept",
      "content-type": zip ? "application/gzip" : "application/json",
    },
  });
});

/** Deletes the pantry with its log for good; the body says its name once more. */
export const DELETE = pantryRoute(
  async (call) => {
    const read = await bodyOf(call, DeleteBody);
    return "refusal" in read ? read.refusal : deletePantry(call.host, call.engine, read.body.name);
  },
  { writes: true },
);
