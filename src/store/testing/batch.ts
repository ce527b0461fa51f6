/** One change made ready alone. */
import type { Catalogue } from "../../core/catalogue/catalogue";
import type { Edit } from "../../core/catalogue/edit";
import { type Batch, prepare, writesOf } from "../prepare";

export function batchOf(catalogue: Catalogue, edits: readonly Edit[]): Batch & { readonly next: Catalogue } {
  const result = prepare(catalogue, edits);
  if ("refused" in result) return { answers: [result.refused], writes: [], next: catalogue };
  const { prepared, made } = result;
  return { answers: [prepared], writes: writesOf(catalogue, [made]), next: made.next };
}
