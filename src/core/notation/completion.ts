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

/** The whole name, normalised, between a form feed and a tab; then its further words, a line break before each. */
function textOf(name: string): string {
  const [, ...words] = name.split(/\s+/).map(normalise);
  return `\f${normalise(name)}\t${words.map((word) => `\n${word}`).join("")}`;
}
/** Shorter names first. */
const byLength = (a: string, b: string): number => a.indexOf("\t") - b.indexOf("\t") || (a < b ? -1 : a > b ? 1 : 0);

interface Name {
  readonly name: string;
  readonly text: string;
}

/** Names that continue what is typed; they come and go one by one. */
export class Completions {
  private readonly names = new Map<Id, Name>();
  private readonly texts: Haystack;
  /** How many names there are of each normalised one. */
  private readonly whole = new Map<string, number>();

  constructor(names: Iterable<readonly [Id, string]> = []) {
    for (const [id, name] of names) this.keep(id, { name, text: textOf(name) });
    this.texts = new Haystack(
      [...this.names].map(([id, { text }]) => [id, text] as const),
      byLength,
    );
  }

  put(id: Id, name: string): void {
    if (this.names.get(id)?.name === name) return;
    const text = textOf(name);
    this.drop(id);
    this.keep(id, { name, text });
    this.texts.put(id, text);
  }
  take(id: Id): void {
    if (this.drop(id)) this.texts.take(id);
  }
  private keep(id: Id, name: Name): void {
    this.names.set(id, name);
    const normalised = normalise(name.name);
    this.whole.set(normalised, (this.whole.get(normalised) ?? 0) + 1);
  }
  private drop(id: Id): boolean {
    const name = this.names.get(id);
    if (!name) return false;
    const normalised = normalise(name.name);
    const left = (this.whole.get(normalised) ?? 1) - 1;
    if (left) this.whole.set(normalised, left);
    else this.whole.delete(normalised);
    return this.names.delete(id);
  }

  /**
   * What fits at the cursor: the span of the name being typed, and the names that begin with it, have a word that does,
   * or contain it, shorter ones first. null where nothing does, or where a name stands there whole.
   */
  at(text: string, cursor: number, most = 8): { from: number; to: number; names: string[] } | null {
    const at = typedAt(text, cursor);
    if (!at) return null;
    const wanted = normalise(at.typed);
    if (!wanted || this.whole.has(wanted)) return null;
    const found = new Map<Id, string>();
    for (const part of [`\f${wanted}`, `\n${wanted}`, wanted]) {
      const some = [...this.texts.find(part, most + found.size)].flatMap((id) =>
        found.has(id) ? [] : [[id, this.names.get(id) as Name] as const],
      );
      for (const [id, { name }] of some.sort(([, a], [, b]) => byLength(a.text, b.text))) found.set(id, name);
      if (found.size >= most) break;
    }
    return found.size ? { from: at.from, to: cursor, names: [...found.values()].slice(0, most) } : null;
  }
}
