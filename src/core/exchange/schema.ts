/** The JSON Schema of the bundle (draft 2020-12), made of the kinds. */
import { definition, type Subject } from "../kinds/index";
import type { Definitions, JsonSchema } from "../schema/json";
import { bundleProperties } from "../schema/record";
import { OWN_PICTURE } from "../pictures/own-picture";
import { BUNDLE_FORMAT, BUNDLE_VERSION, SECTIONS } from "./bundle";
import { PICTURES } from "./pictures";

export function bundleSchema(): JsonSchema {
  const made = new Map<string, JsonSchema>();
  const defs: Definitions = {
    define(name, make) {
      if (!made.has(name)) made.set(name, make());
      return { $ref: `#/$defs/${name}` };
    },
  };
  const record = (kind: Subject): JsonSchema => ({
    type: "object",
    additionalProperties: false,
    properties: {
      ...bundleProperties(definition(kind), defs),
      ...(definition(kind).notation ? { line: { type: "string", minLength: 1, description: "A recipe line." } } : {}),
    },
  });
  const named = (kind: Subject): JsonSchema => ({
    ...record(kind),
    anyOf: ["key", "name", ...(definition(kind).notation ? ["line"] : [])].map((name) => ({ required: [name] })),
  });
  const lists = SECTIONS.map(({ section, kind }) => {
    const one = defs.define(kind, () => named(kind));
    const line = { type: "string", minLength: 1, description: "A recipe line." };
    return [section, { type: "array", items: definition(kind).notation ? { oneOf: [line, one] } : one }];
  });
  return {
    $schema: "https://json-schema.org/draft/2020-12/schema",
    $id: "https://salty-pantry.invalid/bundle.schema.json",
    title: "Salty Pantry bundle",
    type: "object",
    required: ["format", "version"],
    additionalProperties: false,
    properties: {
      $schema: { type: "string" },
      format: { const: BUNDLE_FORMAT },
      version: { const: BUNDLE_VERSION },
      pantry: record("pantry"),
      ...Object.fromEntries(lists),
      [PICTURES]: {
        type: "array",
        description: "The pantry's own pictures, used as icons.",
        items: {
          type: "object",
          required: ["name", "base64"],
          additionalProperties: false,
          properties: {
            name: { type: "string", pattern: OWN_PICTURE.source },
            base64: { type: "string", contentEncoding: "base64", description: "A PNG, a WebP or an SVG." },
          },
        },
      },
    },
    $defs: Object.fromEntries([...made].sort(([a], [b]) => (a < b ? -1 : 1))),
  };
}
