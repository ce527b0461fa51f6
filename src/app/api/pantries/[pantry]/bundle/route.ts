import { bundleOf, importBundle } from "@/server/pantry";
import { problem } from "@/server/problem";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";
const MOST_BYTES = 64 * 1024 * 1024;

export const GET = pantryRoute(async ({ engine }) => bundleOf(engine));

/** The body is the bundle. ?dry=1 only says what would change, ?replace=1 removes what the bundle does not name. */
export const POST = pantryRoute(async ({ request, engine, actor }) => {
  const query = new URL(request.url).searchParams;
  const text = await request.text();
  if (text.length > MOST_BYTES) return problem(413, "Too large", "A bundle of at most 64 MB can be sent here. Use the command line for larger ones.");
  return importBundle(engine, actor, text, { dry: query.get("dry") === "1", replace: query.get("replace") === "1", name: query.get("name") ?? undefined });
});
