import { icon } from "@/server/use-cases/icons";
import { problem } from "@/server/problem";
import { route } from "@/server/route";

/** One item icon as SVG: /api/icons/eel.svg */
export const GET = route(async ({ params }) => {
  const body = await icon(params.name.replace(/\.svg$/, ""));
  if (body === null) return problem(404, "No such icon", "GET /api/icons?q=WORD lists the icons.");
  return new Response(body, {
    headers: { "content-type": "image/svg+xml", "cache-control": "public, max-age=31536000, immutable" },
  });
});
