import { undo } from "@/server/replies";
import { pantryRoute } from "@/server/route";

export const POST = pantryRoute(undo);
