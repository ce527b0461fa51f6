/** Pictures that people bring for their items: what they may be, known by their bytes and not by what they are called. */
import { sanitisedSvg } from "./svg";

export const PICTURE_TYPES = ["image/png", "image/webp", "image/svg+xml"] as const;
export type PictureType = (typeof PICTURE_TYPES)[number];
export const MOST_PICTURE_BYTES = 256 * 1024;
const MOST_PIXELS = 1024;

export interface Picture {
  readonly type: PictureType;
  readonly bytes: Uint8Array;
  /** Elements and attributes that an SVG lost. */
  readonly leftOut: readonly string[];
}
type Says = { readonly message: string };

const ascii = (bytes: Uint8Array, from: number, to: number): string => String.fromCharCode(...bytes.subarray(from, to));

function pngSize(bytes: Uint8Array): readonly [number, number] | null {
  if (bytes.length < 33 || ascii(bytes, 1, 4) !== "PNG" || ascii(bytes, 12, 16) !== "IHDR") return null;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return [view.getUint32(16), view.getUint32(20)];
}

function webpSize(bytes: Uint8Array): readonly [number, number] | null {
  if (bytes.length < 30 || ascii(bytes, 0, 4) !== "RIFF" || ascii(bytes, 8, 12) !== "WEBP") return null;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const chunk = ascii(bytes, 12, 16);
  if (chunk === "VP8X") return [1 + (view.getUint32(24, true) & 0xffffff), 1 + (view.getUint32(26, true) >>> 8)];
  if (chunk === "VP8L") {
    const bits = view.getUint32(21, true);
    return [1 + (bits & 0x3fff), 1 + ((bits >>> 14) & 0x3fff)];
  }
  return chunk === "VP8 " ? [view.getUint16(26, true) & 0x3fff, view.getUint16(28, true) & 0x3fff] : null;
}

/** @param bytes  a file, as someone chose it */
export function readPicture(bytes: Uint8Array): Picture | Says {
  if (bytes.length > MOST_PICTURE_BYTES)
    return {
      message: `The file has ${Math.ceil(bytes.length / 1024)} kB; the maximum is ${MOST_PICTURE_BYTES / 1024} kB.`,
    };
  for (const [type, size] of [
    ["image/png", pngSize(bytes)],
    ["image/webp", webpSize(bytes)],
  ] as const) {
    if (!size) continue;
    const [width, height] = size;
    if (width < 1 || height < 1 || width > MOST_PIXELS || height > MOST_PIXELS)
      return { message: `The picture is ${width} by ${height}; the maximum is ${MOST_PIXELS} by ${MOST_PIXELS}.` };
    return { type, bytes, leftOut: [] };
  }
  let text: string;
  try {
    text = new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return { message: "This isn't a PNG, WebP or SVG file." };
  }
  if (!/<svg[\s>]/i.test(text)) return { message: "This isn't a PNG, WebP or SVG file." };
  const made = sanitisedSvg(text);
  if ("message" in made) return made;
  return { type: "image/svg+xml", bytes: new TextEncoder().encode(made.svg), leftOut: made.leftOut };
}
