/** What continues a recipe line at the cursor. */
import { Haystack } from "../schema/haystack";
import type { Id } from "../schema/id";
import { normalise } from "../schema/names";
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

/** The whole name, normalised, and its further words: a line break before each, a tab behind the whole. */
function textOf(name: string): string {
  const [, ...words] = name.split(/\s+/).map(normalise);
  return `\n${normalise(name)}\t${words.map((word) => `\n${word}`).join("")}`;
}

/** Names that continue what is typed; they come and go one by one. */
export class Completions {
  private readonly names = new Map<Id, { readonly name: string; readonly text: string }>();
  private readonly texts: Haystack;

  constructor(names: Iterable<readonly [Id, string]> = []) {
    for (const [id, name] of names) this.names.set(id, { name, text: textOf(name) });
    this.texts = new Haystack([...this.names].map(([id, { text }]) => [id, text] as const));
  }

  put(id: Id, name: string): void {
    if (this.names.get(id)?.name === name) return;
    const text = textOf(name);
    this.names.set(id, { name, text });
    this.texts.put(id, text);
  }
  take(id: Id): void {
    if (this.names.delete(id)) this.texts.take(id);
  }

  /**
   * What fits at the cursor: the span of the name being typed, and the names that begin with it, have a word that does,
   * or contain it, shorter ones first. null where nothing does, or where a name stands there whole.
   */
  at(text: string, cursor: number, most = 8): { from: number; to: number; names: string[] } | null {
    const at = typedAt(text, cursor);
    if (!at) return null;
    const wanted = normalise(at.typed);
    const begins = `\n${wanted}`;
    if (!wanted || this.texts.find(`${begins}\t`).size) return null;
    const best: Fit[] = [];
    const beginning = this.texts.find(begins);
    for (const id of beginning) {
      const { name, text: of } = this.names.get(id) as { name: string; text: string };
      keepBest(best, { name, rank: of.startsWith(begins) ? 0 : 1 }, most);
    }
    if (best.length < most)
      for (const id of this.texts.find(wanted))
        if (!beginning.has(id)) keepBest(best, { name: this.names.get(id)?.name as string, rank: 2 }, most);
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
