import { findIcons, unknownIcons } from "@/server/icons";
import { json } from "@/server/problem";
import { IconsAsked } from "@/server/queries";
import { route } from "@/server/route";

/** Icon names that contain all words of ?q=; or, of every ?name=, those that no icon has. */
export const GET = route(
  async ({ query }) => json(query.name.length ? await unknownIcons(query.name) : await findIcons(query.q ?? "")),
  { asks: IconsAsked },
);
