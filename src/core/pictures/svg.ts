/**
 * SVG as far as it is a picture: shapes, gradients and text of titles. Whatever could run, load or link is left out: the
 * text is read as XML and written again of the elements and attributes that are known to be harmless.
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
/** What values may be: numbers and the letters of paths; lists of transformations; words, colours and numbers. */
const NUMBERS = /^[MLHVCSQTAZ\d\s,.+\-e]*$/i;
const TRANSFORM = /^(\s*(matrix|translate|scale|rotate|skewX|skewY)\s*\([\d\s,.+\-e]*\)[\s,]*)*$/i;
const WORDS = /^[\w\s#%.,()+-]*$/;
const harmless = (attribute: string, value: string): boolean => {
  if (attribute === "d" || attribute === "points") return NUMBERS.test(value);
  if (attribute === "transform" || attribute === "gradientTransform") return TRANSFORM.test(value);
  return LOCAL.test(value.trim()) || (!/url/i.test(value) && WORDS.test(value));
};

/** Most references to clip paths; what is clipped is drawn once more for each of them. */
const MOST_CLIPS = 40;
/** Most dashes that all lines of a picture may have. */
const MOST_DASHES = 10_000;
/** Attributes from which the length of a line can be bounded. */
const LENGTHS: ReadonlySet<string> = new Set("d points x1 y1 x2 y2 r rx ry width height".split(" "));
const numbersIn = (value: string): number[] => (value.match(/-?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/gi) ?? []).map(Number);
/** A bound on how long the lines are that these numbers draw: a curve is no longer than the way past its points. */
const lengthOf = (value: string): number => numbersIn(value).reduce((sum, n) => sum + 8 * Math.abs(n), 0);

/** Most elements, and how deep they may stand in each other. */
const MOST_ELEMENTS = 5000;
const DEEPEST = 40;

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (c) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" })[c] as string);

/** @returns the picture and what was left out of it, or why it is none */
export function sanitisedSvg(
  text: string,
): { readonly svg: string; readonly leftOut: readonly string[] } | { readonly message: string } {
  if (/<!(?:DOCTYPE|ENTITY)/i.test(text))
    return { message: "SVG files with a DOCTYPE or entities aren't accepted. Save it as plain SVG." };
  const parser = new SaxesParser();
  const leftOut = new Set<string>();
  const out: string[] = [];
  let message: string | null = null;
  let elements = 0;
  let depth = 0;
  /** Depth of the element that is left out with everything in it; 0: none. */
  let within = 0;
  let root = false;
  /** Depth of the clip path that is read; 0: none. How many were referred to. */
  let [clipping, clips] = [0, 0];
  /** How long all lines are at most, and the shortest dash or gap. */
  let [length, shortest] = [0, Number.POSITIVE_INFINITY];
  parser.on("error", (error) => {
    message ??= `This is not well-formed SVG: ${error.message}`;
  });
  parser.on("opentag", ({ name, attributes }) => {
    depth++;
    if (++elements > MOST_ELEMENTS || depth > DEEPEST)
      message ??= `The SVG has more than ${MOST_ELEMENTS} elements, or is nested more than ${DEEPEST} deep.`;
    if (message !== null || within) return;
    if (depth === 1 && name !== "svg") message = "The outermost element of an SVG must be svg.";
    if (!ELEMENTS.has(name)) {
      leftOut.add(`<${name}>`);
      within = depth;
      return;
    }
    if (name === "clipPath") clipping = depth;
    const kept = Object.entries(attributes as Record<string, string>).filter(([attribute, value]) => {
      // A clip path within a clip path is drawn once for each way to it: twenty of them are a million.
      const nested = attribute === "clip-path" && (clipping > 0 || ++clips > MOST_CLIPS);
      const fits = ATTRIBUTES.has(attribute) && !nested && harmless(attribute, value);
      if (fits && LENGTHS.has(attribute)) length += lengthOf(value);
      if (fits && attribute === "stroke-dasharray")
        for (const n of numbersIn(value)) shortest = Math.min(shortest, Math.abs(n));
      if (!fits && !/^xmlns(:\w+)?$/.test(attribute)) leftOut.add(attribute);
      return fits;
    });
    root ||= depth === 1;
    const space = depth === 1 ? ' xmlns="http://www.w3.org/2000/svg"' : "";
    out.push(`<${name}${space}${kept.map(([a, v]) => ` ${a}="${escaped(v)}"`).join("")}>`);
  });
  parser.on("closetag", ({ name }) => {
    if (clipping === depth) clipping = 0;
    if (!within && message === null) out.push(`</${name}>`);
    if (within === depth) within = 0;
    depth--;
  });
  parser.on("text", (piece) => {
    if (!within && message === null && root) out.push(escaped(piece));
  });
  try {
    parser.write(text).close();
  } catch (error) {
    message ??= `This is not well-formed SVG: ${(error as Error).message}`;
  }
  if (message !== null) return { message };
  if (shortest < length / MOST_DASHES) {
    // Dashes so short that they can't be told apart would take forever to be drawn.
    const solid = out.join("").replace(/ stroke-dash(?:array|offset)="[^"]*"/g, "");
    return { svg: solid, leftOut: [...leftOut, "stroke-dasharray"] };
  }
  return root ? { svg: out.join(""), leftOut: [...leftOut] } : { message: "The file contains no picture." };
}
