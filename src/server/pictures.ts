/** Own pictures over HTTP: taken in as JSON like everything else, given out with a fixed type. */
import { OWN_PICTURE } from "../core/pictures/own-picture";
import { MOST_PICTURE_BYTES, readPicture } from "../core/pictures/picture";
import { pictureName } from "../store/picture-name";
import { pictureOf } from "../store/pictures";
import type { Engine } from "./engine";
import { strangeIcons } from "./use-cases/icons";
import { json, problem } from "./problem";
import type { StrangeAsked } from "./queries";
import { type Call, pictureBodyOf } from "./route";

const REFUSED = "The picture can't be used";

export async function takePicture(call: Call & { engine: Engine }): Promise<Response> {
  const read = await pictureBodyOf(call);
  if ("refusal" in read) return read.refusal;
  const bytes = Buffer.from(read.body.base64, "base64");
  if (bytes.length > MOST_PICTURE_BYTES * 2) return problem(413, REFUSED, "The file is too large.");
  const picture = readPicture(bytes);
  if ("message" in picture) return problem(422, REFUSED, picture.message);
  const name = pictureName(picture.bytes);
  const message = await call.host.keepPicture(call.engine.pantry, { name, type: picture.type, bytes: picture.bytes });
  return message ? problem(409, REFUSED, message) : json({ icon: name, leftOut: picture.leftOut });
}

/** Those of some names that no icon, and no picture of the pantry, has. */
export const strangeNames = async ({ host, engine, query }: Call<StrangeAsked> & { engine: Engine }) =>
  json(await strangeIcons(host.em, engine.pantry, query.name));

export async function givePicture({ host, engine, params }: Call & { engine: Engine }): Promise<Response> {
  const name = `own-${params.id}`;
  const picture = OWN_PICTURE.test(name) ? await pictureOf(host.em, engine.pantry, name) : null;
  if (!picture) return problem(404, "No such picture", "The pantry has no picture with this name.");
  // What was taken by earlier rules is held to those of today.
  const today = picture.type === "image/svg+xml" ? readPicture(new Uint8Array(picture.bytes)) : picture;
  if ("message" in today) return problem(404, "No such picture", today.message);
  return new Response(new Uint8Array(today.bytes), {
    headers: { "content-type": picture.type, "cache-control": "private, max-age=31536000, immutable" },
  });
}
