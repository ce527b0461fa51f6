/** Records as a table that is read back without loss: a column for each path, headed so that it is known again. */
import type { Catalogue } from "../../catalogue/catalogue";
import { keyedPath, pathByKey } from "../../catalogue/filters";
import { heldAt } from "../../catalogue/inheritance";
import { around } from "../../catalogue/surroundings";
import { type AnyRecord, definition, type Kind } from "../../kinds/index";
import { fieldAt, pathOf } from "../../schema/record";
import type { Cells } from "./read-table";
import { guessTargets, targetsOf } from "./targets";

/** A column that is computed: it is written, and read into nothing. */
export interface WorkedColumn {
  readonly title: string;
  text(record: AnyRecord): string;
}
export interface WriteOptions {
  /** Values that a record inherits are written too; read back, they are its own. */
  readonly inherited: boolean;
}

/** Every path of a kind that has a column of its own, the key first. */
export const pathsOf = (catalogue: Catalogue, kind: Kind): string[] =>
  targetsOf(catalogue, kind).map(({ target }) => target);

/**
 * @param columns  paths, with ids or with keys, and what is computed
 * @returns the head and a row for each record; the key is always among them
 */
export function writeTable(
  catalogue: Catalogue,
  kind: Kind,
  records: Iterable<AnyRecord>,
  columns: readonly (string | WorkedColumn)[],
  { inherited }: WriteOptions,
): Cells[] {
  const all = columns.includes("key") ? columns : ["key", ...columns];
  const here = around(catalogue);
  const labels = new Map(targetsOf(catalogue, kind).map(({ target, label }) => [target, label]));
  const headOf = (path: string): string => {
    const keyed = keyedPath(catalogue, kind, path);
    const label = labels.get(keyed) ?? keyed;
    // A label that would be taken for something else gives way to the path.
    const [known] = guessTargets(catalogue, kind, { head: [label], rows: [], first: 2 });
    return known === keyed ? label : keyed;
  };
  const cells = all.map((column): { head: string; text(record: AnyRecord): string } => {
    if (typeof column !== "string") return { head: column.title, text: column.text };
    const path = pathByKey(catalogue, kind, column);
    const at = pathOf(definition(kind), path);
    if (!at) return { head: column, text: () => "" };
    const field = fieldAt(at, here);
    return {
      head: headOf(path),
      text(record) {
        const { here: held } = heldAt(catalogue, kind, record, path);
        return held.from === "none" || (held.from === "inherited" && !inherited) ? "" : field.format(held.value, here);
      },
    };
  });
  return [cells.map((c) => c.head), ...[...records].map((record) => cells.map((c) => c.text(record)))];
}
