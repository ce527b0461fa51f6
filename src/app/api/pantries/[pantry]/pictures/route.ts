import { strangeNames, takePicture } from "@/server/pictures";
import { StrangeAsked } from "@/server/queries";
import { pantryRoute } from "@/server/route";

export const dynamic = "force-dynamic";

/** Of every ?name= of an icon, those that no icon, and no picture of the pantry, has. */
export const GET = pantryRoute(strangeNames, { asks: StrangeAsked });

/** An own picture: {"base64": "…"} of a PNG, a WebP or an SVG. Answers with the name that an icon has then. */
export const POST = pantryRoute(takePicture);
