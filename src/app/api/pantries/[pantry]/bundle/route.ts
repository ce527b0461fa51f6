import { bundleOf, importBundle } from "@/server/pantry";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

export const GET = pantryRoute(({ engine }) => bundleOf(engine));

/**
 * The body is the bundle. ?dry=1 only says what would change, ?replace=1 removes what the bundle does not name, ?name=
 * is the file's.
 */
export const POST = pantryRoute(importBundle);
