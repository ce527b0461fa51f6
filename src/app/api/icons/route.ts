import { findIcons } from "@/server/icons";
import { json } from "@/server/problem";

/** Icon names that contain all words of ?q=. */
export async function GET(request: Request): Promise<Response> {
  return json(await findIcons(new URL(request.url).searchParams.get("q") ?? ""));
}
