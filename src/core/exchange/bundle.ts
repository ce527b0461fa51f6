/** The bundle: one JSON file that holds a whole pantry, references by key. Format: docs/bundle.md. */
import { type Catalogue, recordAt, recordsOf } from "../catalogue/catalogue";
import { definition, isKind, type Kind, KINDS } from "../kinds/index";
import type { BundleWriting } from "../schema/field";
import type { Id } from "../schema/id";
import type { Json } from "../schema/json";
import { toBundle } from "../schema/record";

export const BUNDLE_FORMAT = "salty-pantry-bundle";
export const BUNDLE_VERSION = 1;
/** How every bundle ends. */
export const BUNDLE_END = "\n}\n";

/** Each kind's list in a bundle, in the order in which the lists stand. */
export const SECTIONS: readonly { readonly section: string; readonly kind: Kind }[] = KINDS.map((kind) => ({
  section: definition(kind).section,
  kind,
}));

/** The bundle of a catalogue, part by part: records sorted by key. Byte for byte the same for the same catalogue. */
export function* bundleParts(catalogue: Catalogue): Generator<string> {
  const to: BundleWriting = {
    ticksPerSecond: catalogue.pantry.ticksPerSecond,
    keyOf: (kind, id) => (isKind(kind) ? recordAt(catalogue, kind, id as Id)?.key : undefined) ?? id,
  };
  const text = (value: Json, deep: number) => JSON.stringify(value, null, 1).replaceAll("\n", `\n${" ".repeat(deep)}`);
  yield `{\n "format": ${JSON.stringify(BUNDLE_FORMAT)},\n "version": ${BUNDLE_VERSION},\n "pantry": ${text(toBundle(definition("pantry"), catalogue.pantry, to), 1)}`;
  for (const { section, kind } of SECTIONS) {
    const records = [...recordsOf(catalogue, kind).values()].sort((a, b) => (a.key < b.key ? -1 : 1));
    yield `,\n "${section}": [`;
    for (const [k, record] of records.entries())
      yield `${k ? "," : ""}\n  ${text(toBundle(definition(kind), record, to), 2)}`;
    yield records.length ? "\n ]" : "]";
  }
  yield BUNDLE_END;
}

export const exportBundle = (catalogue: Catalogue): string => [...bundleParts(catalogue)].join("");
