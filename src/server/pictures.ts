/** Own pictures over HTTP: taken in as JSON like everything else, given out with a fixed type. */
import { createHash } from "node:crypto";
import { MOST_PICTURE_BYTES, readPicture } from "../core/pictures/picture";
import { MOST_PICTURES, pictureOf, putPicture } from "../store/pictures";
import type { Engine } from "./engine";
import { json, problem } from "./problem";
import { type Call, pictureBodyOf } from "./route";

const REFUSED = "The picture can't be taken";

export async function takePicture(call: Call & { engine: Engine }): Promise<Response> {
  const read = await pictureBodyOf(call);
  if ("refusal" in read) return read.refusal;
  const bytes = Buffer.from(read.body.base64, "base64");
  if (bytes.length > MOST_PICTURE_BYTES * 2) return problem(413, REFUSED, "The file is too large.");
  const picture = readPicture(bytes);
  if ("says" in picture) return problem(422, REFUSED, picture.says);
  const hash = createHash("sha256").update(picture.bytes).digest("hex").slice(0, 24);
  const put = await putPicture(call.host.em, call.engine.pantry, hash, picture.type, picture.bytes);
  if (!put) return problem(409, REFUSED, `The pantry has ${MOST_PICTURES} pictures, which is as many as it may have.`);
  return json({ icon: `own-${hash}`, leftOut: picture.leftOut });
}

export async function givePicture({ host, engine, params }: Call & { engine: Engine }): Promise<Response> {
  const hash = /^[0-9a-f]{24}$/.test(params.id) ? params.id : null;
  const picture = hash && (await pictureOf(host.em, engine.pantry, hash));
  if (!picture) return problem(404, "No such picture", "There is no picture of this name in the pantry.");
  // What was taken by earlier rules is held to those of today.
  const today = picture.type === "image/svg+xml" ? readPicture(new Uint8Array(picture.bytes)) : picture;
  if ("says" in today) return problem(404, "No such picture", today.says);
  return new Response(new Uint8Array(today.bytes), {
    headers: { "content-type": picture.type, "cache-control": "private, max-age=31536000, immutable" },
  });
}
