/** The shape of edits that may be made to a pantry. */
import { definition, KINDS } from "../kinds/index";
import type { Issue } from "../schema/issue";
import { MOST_EDITS } from "../schema/limits";
import { type EditShape, shapedEdits as shaped } from "../schema/shaped-edits";
import type { Edit } from "./edit";

const SHAPE: EditShape = {
  kinds: KINDS,
  deep: Math.max(...([...KINDS, "pantry"] as const).map((kind) => definition(kind).members.depth - 1)),
  most: MOST_EDITS,
  tooMany: (n) => `${n} edits; the maximum for one change is ${MOST_EDITS}. For more, import a bundle.`,
};

/** @param value  anything; no more of it is read than the shape of edits allows */
export function shapedEdits(
  value: unknown,
): { readonly edits: readonly Edit[] } | { readonly issues: readonly Issue[] } {
  const read = shaped(value, SHAPE);
  return "edits" in read ? { edits: read.edits as readonly Edit[] } : read;
}
