import { findIcons } from "@/server/icons";
import { json } from "@/server/problem";
import { route } from "@/server/route";

/** Icon names that contain all words of ?q=. */
export const GET = route(async ({ request }) =>
  json(await findIcons(new URL(request.url).searchParams.get("q") ?? "")),
);
