/** The bundle as a format: its text as rows, or where it stops being JSON. */
import { type ParseError, parse as parseTolerantly, printParseErrorCode } from "jsonc-parser";
import { cut, shown } from "../schema/characters";
import { isPlain, type JsonObject } from "../schema/json";
import { placeIn, saidTwice } from "../schema/json-text";
import { definition, type Kind } from "../kinds/index";
import { BUNDLE_FORMAT, BUNDLE_VERSION, bundleParts, SECTIONS } from "./bundle";
import type { Format, Row, Rows } from "./format";
import { PICTURES, readPictures } from "./pictures";
import { type Issue, issue } from "../schema/issue";
import type { Report } from "./report";

export const isRow = (value: unknown): value is JsonObject => isPlain(value);

/** Larger texts are not gone through a second time to find the place where they stop being JSON. */
const SEARCHED = 2_000_000;

/** The JSON of a bundle, or where it stops being JSON. */
export function parseBundle(text: string): { bundle: JsonObject } | { issues: Issue[] } {
  let value: unknown;
  const plain = text.replace(/^\uFEFF/, "");
  try {
    value = JSON.parse(plain);
  } catch (error) {
    return { issues: [notJson(text, error as Error)] };
  }
  const twice = saidTwice(plain);
  if (twice) return { issues: [issue(twice.place, twice.message)] };
  if (!isRow(value))
    return { issues: [issue("file", `A bundle is one JSON object with "format": "${BUNDLE_FORMAT}".`)] };
  if (value.format !== BUNDLE_FORMAT)
    return { issues: [issue("format", `Expected "${BUNDLE_FORMAT}", found ${shown(value.format)}.`)] };
  if (value.version !== BUNDLE_VERSION)
    return {
      issues: [issue("version", `This program reads version ${BUNDLE_VERSION}, found ${shown(value.version)}.`)],
    };
  return { bundle: value };
}

/** The engine's own message has no position for short texts: a tolerant parser finds the place. */
function notJson(text: string, { message }: Error): Issue {
  const errors: ParseError[] = [];
  try {
    if (text.length < SEARCHED) parseTolerantly(text, errors, { disallowComments: true });
  } catch {
    // Nested so deep that the tolerant parser gives up: the place stays unknown.
  }
  const said = Number(/at position (\d+)/.exec(message)?.[1] ?? Number.NaN);
  const offset = errors[0]?.offset ?? (Number.isFinite(said) ? said : text.length);
  const reason = errors[0]
    ? printParseErrorCode(errors[0].error)
        .replace(/([a-z])([A-Z])/g, "$1 $2")
        .toLowerCase()
    : cut(message, 200);
  return issue(placeIn(text, offset), `This is not JSON (${reason}).`);
}

/** The rows of a bundle that was read already; what it has beside them is reported. */
export function bundleRows(bundle: JsonObject, report: Report): Rows {
  const known = new Set(["format", "version", "pantry", "$schema", ...SECTIONS.map((s) => s.section), PICTURES]);
  for (const name of Object.keys(bundle)) if (!known.has(name)) report.unknown("", name, [...known]);
  const { pantry } = bundle;
  if (pantry !== undefined && !isRow(pantry))
    report.error("pantry", `Expected an object with the pantry's settings, not ${shown(pantry)}.`);
  return {
    settings: isRow(pantry) ? { row: pantry, place: "pantry" } : null,
    records: new Map(SECTIONS.map(({ section, kind }) => [kind, rowsOf(bundle, section, kind, report)])),
    pictures: readPictures(bundle[PICTURES], report),
  };
}

function rowsOf(bundle: JsonObject, section: string, kind: Kind, report: Report): Row[] {
  const list = bundle[section] ?? [];
  if (!Array.isArray(list)) {
    report.error(section, "Expected a list.");
    return [];
  }
  return list.flatMap((entry, i): Row[] => {
    const place = `${section}[${i}]`;
    if (definition(kind).notation && typeof entry === "string") return [{ row: { line: entry }, place }];
    if (isRow(entry)) return [{ row: entry, place }];
    report.error(place, "Expected an object.");
    return [];
  });
}

export const bundleFormat: Format = {
  name: "bundle",
  mediaType: "application/json",
  extension: "json",
  read(text, report) {
    const parsed = parseBundle(text);
    if (!("issues" in parsed)) return bundleRows(parsed.bundle, report);
    for (const { path, message } of parsed.issues) report.error(path, message);
    return null;
  },
  write: bundleParts,
};
