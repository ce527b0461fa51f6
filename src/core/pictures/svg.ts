/**
 * SVG as far as it is a picture: shapes, gradients and text of titles. Whatever could run, load or link is left out: the
 * text is read as XML and written anew of the elements and attributes that are known to be harmless.
 */
import { SaxesParser } from "saxes";

const ELEMENTS: ReadonlySet<string> = new Set(
  "svg g path rect circle ellipse line polyline polygon defs linearGradient radialGradient stop clipPath title desc".split(
    " ",
  ),
);
const ATTRIBUTES: ReadonlySet<string> = new Set(
  (
    "id d x y x1 y1 x2 y2 cx cy r rx ry fx fy width height viewBox points transform offset gradientUnits gradientTransform " +
    "spreadMethod clipPathUnits preserveAspectRatio fill fill-opacity fill-rule stroke stroke-width stroke-linecap " +
    "stroke-linejoin stroke-miterlimit stroke-dasharray stroke-dashoffset stroke-opacity opacity clip-path clip-rule " +
    "stop-color stop-opacity color"
  ).split(" "),
);
/** A value may point to a part of the same picture, and to nothing else. */
const LOCAL = /^url\(\s*#[\w-]+\s*\)$/;
/** Most elements, and how deep they may stand in each other. */
const MOST_ELEMENTS = 5000;
const DEEPEST = 40;

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[c] as string);

/** @returns the picture and what was left out of it, or why it is none */
export function sanitisedSvg(
  text: string,
): { readonly svg: string; readonly leftOut: readonly string[] } | { readonly says: string } {
  if (/<!(?:DOCTYPE|ENTITY)/i.test(text))
    return { says: "An SVG with a DOCTYPE or entities is not taken. Save it as plain SVG." };
  const parser = new SaxesParser();
  const leftOut = new Set<string>();
  const out: string[] = [];
  let says: string | null = null;
  let elements = 0;
  let depth = 0;
  /** Depth of the element that is left out with everything in it; 0: none. */
  let within = 0;
  let root = false;
  parser.on("error", (error) => {
    says ??= `This is not well-formed SVG: ${error.message}`;
  });
  parser.on("opentag", ({ name, attributes }) => {
    depth++;
    if (++elements > MOST_ELEMENTS || depth > DEEPEST)
      says ??= `The SVG has more than ${MOST_ELEMENTS} elements, or they stand in each other more than ${DEEPEST} deep.`;
    if (says !== null || within) return;
    if (depth === 1 && name !== "svg") says = "The outermost element of an SVG is svg.";
    if (!ELEMENTS.has(name)) {
      leftOut.add(`<${name}>`);
      within = depth;
      return;
    }
    const kept = Object.entries(attributes as Record<string, string>).filter(([attribute, value]) => {
      const fits =
        ATTRIBUTES.has(attribute) && (!/url|javascript:|data:|expression/i.test(value) || LOCAL.test(value.trim()));
      if (!fits && !/^xmlns(:\w+)?$/.test(attribute)) leftOut.add(attribute);
      return fits;
    });
    root ||= depth === 1;
    const space = depth === 1 ? ' xmlns="http://www.w3.org/2000/svg"' : "";
    out.push(`<${name}${space}${kept.map(([a, v]) => ` ${a}="${escaped(v)}"`).join("")}>`);
  });
  parser.on("closetag", ({ name }) => {
    if (!within && says === null) out.push(`</${name}>`);
    if (within === depth) within = 0;
    depth--;
  });
  parser.on("text", (piece) => {
    if (!within && says === null && root) out.push(escaped(piece));
  });
  try {
    parser.write(text).close();
  } catch (error) {
    says ??= `This is not well-formed SVG: ${(error as Error).message}`;
  }
  if (says !== null) return { says };
  return root ? { svg: out.join(""), leftOut: [...leftOut] } : { says: "There is no picture in it." };
}
