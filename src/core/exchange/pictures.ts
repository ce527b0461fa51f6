/** Pictures of a pantry's own in its bundle: the last list, each with its name and its bytes. */
import { OWN_PICTURE } from "../pictures/own-picture";
import { MOST_PICTURE_BYTES, type PictureType, readPicture } from "../pictures/picture";
import { shown } from "../schema/characters";
import { isPlain, type Json } from "../schema/json";
import { BUNDLE_END } from "./bundle";
import type { Report } from "./report";

/** The list's name in a bundle. */
export const PICTURES = "pictures";

export interface BundlePicture {
  /** As an icon says it. */
  readonly name: string;
  /** Bytes of the file as base64. */
  readonly base64: string;
}
/** One that was read: it is what it says it is. */
export interface ReadPicture extends BundlePicture {
  readonly type: PictureType;
  /** Where it stands in the file. */
  readonly place: string;
}

const BASE64 = /^(?:[A-Za-z0-9+/]{4})*(?:[A-Za-z0-9+/]{2}==|[A-Za-z0-9+/]{3}=)?$/;
/** Characters that the largest picture has as base64. */
const MOST_CHARACTERS = Math.ceil(MOST_PICTURE_BYTES / 3) * 4;

/** The bundle of a pantry, part by part, with its pictures behind everything else. @param bundle  text without any */
export async function* withPictures(
  bundle: string,
  pictures: Iterable<BundlePicture> | AsyncIterable<BundlePicture>,
): AsyncGenerator<string> {
  yield bundle.slice(0, -BUNDLE_END.length);
  let any = false;
  for await (const { name, base64 } of pictures) {
    const text = `{\n   "name": ${JSON.stringify(name)},\n   "base64": ${JSON.stringify(base64)}\n  }`;
    yield `${any ? "," : `,\n "${PICTURES}": [`}\n  ${text}`;
    any = true;
  }
  yield `${any ? "\n ]" : ""}${BUNDLE_END}`;
}

/** The pictures of a bundle. What is none, or can't be one, is reported. */
export function readPictures(list: Json | undefined, report: Report): ReadPicture[] {
  if (list === undefined) return [];
  if (!Array.isArray(list)) {
    report.error(PICTURES, "Expected a list.");
    return [];
  }
  const seen = new Set<string>();
  return list.flatMap((entry, k): ReadPicture[] => {
    const place = `${PICTURES}[${k}]`;
    const picture = pictureIn(entry, place, report);
    if (!picture) return [];
    if (seen.has(picture.name)) report.error(`${place}.name`, `${shown(picture.name)} appears twice.`);
    seen.add(picture.name);
    return [picture];
  });
}

const MEMBERS = ["name", "base64"];

function pictureIn(entry: Json, place: string, report: Report): ReadPicture | null {
  if (!isPlain(entry)) {
    report.error(place, "Expected an object with the picture's name and its bytes as base64.");
    return null;
  }
  const { name, base64 } = entry;
  for (const each of Object.keys(entry)) if (!MEMBERS.includes(each)) report.unknown(place, each, MEMBERS);
  const refused = (member: string, message: string) => {
    report.error(`${place}.${member}`, message);
    return null;
  };
  if (typeof name !== "string" || !OWN_PICTURE.test(name))
    return refused("name", `Expected the name of a picture, “own-” and 24 of 0-9 and a-f, not ${shown(name)}.`);
  if (typeof base64 === "string" && base64.length > MOST_CHARACTERS)
    return refused("base64", `The picture is too large; the maximum is ${MOST_PICTURE_BYTES / 1024} kB.`);
  if (typeof base64 !== "string" || !BASE64.test(base64))
    return refused("base64", "Expected the bytes of a picture as base64.");
  const picture = readPicture(Uint8Array.from(atob(base64), (c) => c.charCodeAt(0)));
  return "message" in picture ? refused("base64", picture.message) : { name, base64, type: picture.type, place };
}
