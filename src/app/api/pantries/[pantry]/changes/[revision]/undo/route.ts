import { undo } from "@/server/replies";
import { pantryRoute } from "@/server/route";

export const POST = pantryRoute(({ engine, host, actor, params }) =>
  undo(engine, host, actor, Number(params.revision)),
);
