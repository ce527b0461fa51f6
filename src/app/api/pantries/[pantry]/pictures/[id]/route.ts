import { givePicture } from "@/server/pictures";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

/** One own picture, with the type it was taken as. */
export const GET = pantryRoute(givePicture);
