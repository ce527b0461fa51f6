/** A colour of its own for each resource: the one it says, unless one before it has it; then the next that is free. */
import type { Catalogue } from "@/core/catalogue/catalogue";
import type { Id } from "@/core/schema/id";

/** Colours of the interface that tell lines apart by day and by night. */
const FREE = ["var(--kelp)", "var(--copper)", "var(--chain)", "var(--beet)", "var(--brass)", "var(--second)"];

export function coloursOf(
  { records }: Pick<Catalogue, "records">,
  of: readonly { readonly resource: Id }[],
): ReadonlyMap<Id, string> {
  const found = new Map<Id, string>();
  const taken = new Set<string>();
  const ids = [...new Set(of.map((r) => r.resource))];
  for (const id of ids) {
    const own = records.resource.get(id)?.colour ?? "";
    const free = own && !taken.has(own) ? own : FREE.find((colour) => !taken.has(colour));
    const colour = free ?? FREE[found.size % FREE.length];
    taken.add(colour);
    // The colour that a resource has before anybody chooses one looks like the first of those that are free.
    if (colour === DEFAULT) taken.add(FREE[0]);
    found.set(id, colour);
  }
  return found;
}
const DEFAULT = "#0a6650";
