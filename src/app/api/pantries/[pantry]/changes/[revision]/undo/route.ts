import { undo } from "@/server/replies";
import { pantryRoute } from "@/server/route";

export const POST = pantryRoute((call) => undo(call, Number(call.params.revision)));
