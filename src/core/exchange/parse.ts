/** The text of a bundle as JSON, or where it stops being JSON. */
import { type ParseError, parse as parseTolerantly, printParseErrorCode } from "jsonc-parser";
import { cut, shown } from "../schema/characters";
import { isPlain, type JsonObject } from "../schema/json";
import { BUNDLE_FORMAT, BUNDLE_VERSION } from "./bundle";
import type { Problem } from "./report";

export const isRow = (value: unknown): value is JsonObject => isPlain(value);

/** Larger texts are not gone through a second time to find the place where they stop being JSON. */
const SEARCHED = 2_000_000;

/** The JSON of a bundle, or where it stops being JSON. */
export function parseBundle(text: string): { bundle: JsonObject } | { problems: Problem[] } {
  let value: unknown;
  try {
    value = JSON.parse(text.replace(/^\uFEFF/, ""));
  } catch (error) {
    return { problems: [notJson(text, error as Error)] };
  }
  if (!isRow(value))
    return { problems: [{ place: "file", says: `A bundle is one JSON object with "format": "${BUNDLE_FORMAT}".` }] };
  if (value.format !== BUNDLE_FORMAT)
    return { problems: [{ place: "format", says: `Expected "${BUNDLE_FORMAT}", found ${shown(value.format)}.` }] };
  if (value.version !== BUNDLE_VERSION)
    return {
      problems: [
        { place: "version", says: `This program reads version ${BUNDLE_VERSION}, found ${shown(value.version)}.` },
      ],
    };
  return { bundle: value };
}

/** The engine's own message has no position for short texts: a tolerant parser finds the place. */
function notJson(text: string, { message }: Error): Problem {
  const errors: ParseError[] = [];
  try {
    if (text.length < SEARCHED) parseTolerantly(text, errors, { disallowComments: true });
  } catch {
    // Nested so deep that the tolerant parser gives up: the place stays unknown.
  }
  const said = Number(/at position (\d+)/.exec(message)?.[1] ?? Number.NaN);
  const offset = errors[0]?.offset ?? (Number.isFinite(said) ? said : text.length);
  const before = text.slice(0, offset);
  const lines = before.split("\n").length;
  const place = `line ${lines}, column ${offset - before.lastIndexOf("\n")}`;
  const reason = errors[0]
    ? printParseErrorCode(errors[0].error)
        .replace(/([a-z])([A-Z])/g, "$1 $2")
        .toLowerCase()
    : cut(message, 200);
  return { place, says: `This is not JSON (${reason}).` };
}
