import { takePicture } from "@/server/pictures";
import { pantryRoute } from "@/server/route";

/** An own picture: {"base64": "…"} of a PNG, a WebP or an SVG. Answers with the name that an icon has then. */
export const POST = pantryRoute(takePicture);
