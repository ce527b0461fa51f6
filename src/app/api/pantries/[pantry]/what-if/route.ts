import { whatIf } from "@/server/pantry";
import { ChangeBody } from "@/server/requests";
import { bodyOf, pantryRoute } from "@/server/route";

/** What edits would move: the same body as a change, nothing is stored. */
export const POST = pantryRoute(async ({ request, engine }) => {
  const read = await bodyOf(request, ChangeBody);
  return "refusal" in read ? read.refusal : whatIf(engine, read.body.asEdits());
});
