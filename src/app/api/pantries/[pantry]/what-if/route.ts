import { whatIf } from "@/server/replies";
import { changeOf, pantryRoute } from "@/server/route";

/** What edits would move: the same body as a change, nothing is stored. */
export const POST = pantryRoute(async (call) => {
  const read = await changeOf(call);
  return "refusal" in read ? read.refusal : whatIf(call.engine, read.body.edits, call.request.signal);
});
