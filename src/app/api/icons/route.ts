import { findIcons } from "@/server/use-cases/icons";
import { json } from "@/server/problem";
import { IconsAsked } from "@/server/queries";
import { route } from "@/server/route";

/** Icon names that contain all words of ?q=. */
export const GET = route(async ({ query }) => json(await findIcons(query.q ?? "")), { asks: IconsAsked });
