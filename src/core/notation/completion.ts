/** What continues a recipe line at the cursor. */
import type { Id } from "../schema/id";
import { fold } from "../schema/names";
import { ROLE_WORDS } from "./keywords";

/** What stands before a name: signs, words of roles and of what teaches, and the weight of a draw. */
const WORDS = [...ROLE_WORDS, "salvage", "craft", "taught\\s+by"].join("|");
const BEFORE_NAMES = new RegExp(`->|→|\\+\\s|:\\s|(?:^|\\s)(?:${WORDS})\\s|[{|]\\s*[\\d.]+:\\s`, "gi");

/** The span of the name that is being typed at the cursor; null where none is. */
function typedAt(text: string, cursor: number): { readonly from: number; readonly typed: string } | null {
  const before = text.slice(0, cursor);
  let typed = before;
  for (const sign of before.matchAll(BEFORE_NAMES)) typed = before.slice(sign.index + sign[0].length);
  typed = typed.trimStart().replace(/^\d+(?:\.\d+)?(?:\.\.\d+(?:\.\d+)?)?\s+/, "");
  if (!typed.trim() || typed.includes('"') || /\d%\s*$/.test(typed)) return null;
  return { from: cursor - typed.length, typed };
}

/** A name with its folded form, and a text in which a line break stands before the beginning of each of its words. */
interface Folded {
  readonly name: string;
  readonly folded: string;
  readonly words: string;
}
const folded = (name: string): Folded => ({
  name,
  folded: fold(name),
  words: `\n${[name, ...name.split(/\s+/).slice(1)].map(fold).join("\n")}`,
});

/** Names that continue what is typed, folded once each; they come and go one by one. */
export class Completions {
  private readonly names = new Map<Id, Folded>();

  put(id: Id, name: string): void {
    if (this.names.get(id)?.name !== name) this.names.set(id, folded(name));
  }
  take(id: Id): void {
    this.names.delete(id);
  }

  /**
   * What fits at the cursor: the span of the name being typed, and the names that begin with it, have a word that does,
   * or contain it, shorter ones first. null where nothing does, or where a name stands there whole.
   */
  at(text: string, cursor: number, most = 8): { from: number; to: number; names: string[] } | null {
    const at = typedAt(text, cursor);
    if (!at) return null;
    const wanted = fold(at.typed);
    const begins = `\n${wanted}`;
    const best: { readonly name: string; readonly rank: number }[] = [];
    for (const { name, folded, words } of this.names.values()) {
      if (!folded.includes(wanted)) {
        if (!words.includes(begins)) continue;
      } else if (folded === wanted) return null;
      const rank = folded.startsWith(wanted) ? 0 : words.includes(begins) ? 1 : 2;
      keepBest(best, { name, rank }, most);
    }
    return best.length ? { from: at.from, to: cursor, names: best.map((f) => f.name) } : null;
  }
}

interface Fit {
  readonly name: string;
  readonly rank: number;
}
const before = (a: Fit, b: Fit): boolean =>
  (a.rank - b.rank || a.name.length - b.name.length || a.name.localeCompare(b.name)) < 0;

/** Puts one in where it belongs, as long as it is among the best. */
function keepBest(best: Fit[], one: Fit, most: number): void {
  let at = best.length;
  while (at > 0 && before(one, best[at - 1])) at--;
  if (at >= most) return;
  best.splice(at, 0, one);
  if (best.length > most) best.pop();
}
