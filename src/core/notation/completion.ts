/** What continues a recipe line at the cursor. */
import { NameSearch } from "../schema/name-search";
import { normalise } from "../schema/names";
import { ROLE_WORDS } from "./keywords";

/** What stands before a name: signs, words of roles and of what teaches, and the weight of a draw. */
const WORDS = [...ROLE_WORDS, "salvage", "craft", "combine", "pattern", "taught\\s+by"].join("|");
const BEFORE_NAMES = new RegExp(
  `->|=>|→|[+&]\\s|\\[\\s*|[,;]\\s+|:\\s|(?:^|\\s)(?:${WORDS})\\s|[{|]\\s*[\\d.]+:\\s`,
  "gi",
);

/** The span of the name that is being typed at the cursor; null where none is. */
function typedAt(text: string, cursor: number): { readonly from: number; readonly typed: string } | null {
  const before = text.slice(0, cursor);
  let typed = before;
  for (const sign of before.matchAll(BEFORE_NAMES)) typed = before.slice(sign.index + sign[0].length);
  typed = typed.trimStart().replace(/^[\d.,–-]*\d(?:\s*[x×])?\s+/i, "");
  if (!typed.trim() || typed.includes('"') || /\d%\s*$/.test(typed)) return null;
  return { from: cursor - typed.length, typed };
}

/** Those of some names that begin with what is typed; null where none does, or where one stands there whole. */
function beginning(typed: string, names: Iterable<string>, cursor: number, most: number) {
  const begin = normalise(typed);
  const fits = [...names].filter((name) => normalise(name).startsWith(begin));
  if (!fits.length || fits.some((name) => normalise(name) === begin)) return null;
  return { from: cursor - typed.length, to: cursor, names: fits.sort().slice(0, most) };
}

/** Names that continue what is typed. */
export class Completions extends NameSearch {
  /**
   * What fits at the cursor: the span of the name being typed, and the names that begin with it, have a word that does,
   * or contain it, shorter ones first. null where nothing does, or where a name stands there whole.
   */
  at(
    text: string,
    cursor: number,
    { tags = [], stats = [] }: { readonly tags?: Iterable<string>; readonly stats?: Iterable<string> } = {},
    most = 8,
  ): { from: number; to: number; names: string[] } | null {
    const stat = /%\s+per\s+([^+%|]+)$/i.exec(text.slice(0, cursor))?.[1];
    if (stat !== undefined) return beginning(stat, stats, cursor, most);
    const at = typedAt(text, cursor);
    if (!at || this.has(at.typed)) return null;
    const tag = /^any\s+(.+)$/i.exec(at.typed)?.[1];
    if (tag !== undefined) {
      const found = beginning(tag, tags, cursor, most);
      if (found || [...tags].some((name) => normalise(name) === normalise(tag))) return found;
    }
    const names = [...this.find(at.typed, most).keys()].slice(0, most).flatMap((id) => this.nameOf(id) ?? []);
    return names.length ? { from: at.from, to: cursor, names } : null;
  }
}
