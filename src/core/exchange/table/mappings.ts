/** A mapping as it is kept: a line for each column, "head = what it is read into". */
import { normalise } from "../../schema/names";
import { NOTHING, type Target } from "./targets";

export const formatMapping = (head: readonly string[], targets: readonly Target[]): string =>
  head
    .map((name, k) => `${name.replace(/\s+/g, " ").trim()} = ${targets[k] ?? NOTHING}`)
    .filter((line) => !line.startsWith(" = "))
    .join("\n");

/** The targets of a table's columns by a mapping; a head that it does not name is read into nothing. */
export function targetsBy(mapping: string, head: readonly string[]): Target[] {
  const by = new Map(
    mapping.split("\n").flatMap((line): [string, Target][] => {
      const cut = line.lastIndexOf(" = ");
      return cut < 0 ? [] : [[normalise(line.slice(0, cut)), line.slice(cut + 3).trim()]];
    }),
  );
  return head.map((name) => by.get(normalise(name)) ?? NOTHING);
}
