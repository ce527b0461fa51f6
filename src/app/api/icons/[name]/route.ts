import { icon } from "@/server/icons";

/** One item icon as SVG: /api/icons/eel.svg */
export async function GET(_: Request, context: { params: Promise<{ name: string }> }): Promise<Response> {
  const body = await icon((await context.params).name.replace(/\.svg$/, ""));
  if (!body) return new Response("No such icon", { status: 404 });
  return new Response(body, { headers: { "content-type": "image/svg+xml", "cache-control": "public, max-age=31536000, immutable" } });
}
