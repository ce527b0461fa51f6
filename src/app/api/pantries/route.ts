import { json } from "@/server/problem";
import { postPantry } from "@/server/replies";
import { PantryBody } from "@/server/requests";
import { bodyOf, route } from "@/server/route";

export const dynamic = "force-dynamic";

export const GET = route(async ({ host }) => json(await host.pantries()));

export const POST = route(async (call) => {
  const read = await bodyOf(call, PantryBody);
  return "refusal" in read ? read.refusal : postPantry(call.host, read.body.name);
});
