/** What continues a recipe line at the cursor. */
import { fold } from "../schema/names";
import { ROLE_WORDS } from "./keywords";

/** What stands before a name: signs, words of roles and of what teaches, and the weight of a draw. */
const WORDS = [...ROLE_WORDS, "salvage", "craft", "taught\\s+by"].join("|");
const BEFORE_NAMES = new RegExp(`->|→|\\+\\s|:\\s|(?:^|\\s)(?:${WORDS})\\s|[{|]\\s*[\\d.]+:\\s`, "gi");

/** What fits at the cursor: the span of the name being typed and the names that continue or contain it. */
export function completeAt(
  text: string,
  cursor: number,
  names: Iterable<string>,
  most = 8,
): { from: number; to: number; names: string[] } | null {
  const before = text.slice(0, cursor);
  let typed = before;
  for (const sign of before.matchAll(BEFORE_NAMES)) typed = before.slice(sign.index + sign[0].length);
  typed = typed.trimStart().replace(/^\d+(?:\.\d+)?(?:\.\.\d+(?:\.\d+)?)?\s+/, "");
  if (!typed.trim() || typed.includes('"') || /\d%\s*$/.test(typed)) return null;
  const wanted = fold(typed);
  const fits: { name: string; rank: number }[] = [];
  for (const name of names) {
    const folded = fold(name);
    const rank =
      folded === wanted
        ? -1
        : folded.startsWith(wanted)
          ? 0
          : name
                .toLowerCase()
                .split(/\s+/)
                .some((w) => fold(w).startsWith(wanted))
            ? 1
            : folded.includes(wanted)
              ? 2
              : 3;
    if (rank === -1) return null;
    if (rank < 3) fits.push({ name, rank });
  }
  if (!fits.length) return null;
  fits.sort((a, b) => a.rank - b.rank || a.name.length - b.name.length || a.name.localeCompare(b.name));
  return { from: cursor - typed.length, to: cursor, names: fits.slice(0, most).map((f) => f.name) };
}
