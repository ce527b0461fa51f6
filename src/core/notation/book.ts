/** The names a recipe line may use: items and currencies, found without regard to case and spacing. */
import type { Catalogue } from "../catalogue/catalogue";
import { fold, foldedName } from "../catalogue/names";
import type { Id } from "../catalogue/records";
import { KEYWORDS, lex } from "./lexer";

interface Entry {
  readonly id: Id;
  readonly key: string;
  readonly name: string;
}

export type Found =
  | { readonly found: "one"; readonly id: Id; readonly name: string }
  | { readonly found: "none" }
  | { readonly found: "several"; readonly keys: string[] };

/** How a record's name is built; worked out once for each. */
const shapes = new WeakMap<object, { chunks: number; plain: boolean }>();

/** Names of one kind of record. */
export class NameBook {
  private readonly byFold = new Map<string, Entry[]>();
  private readonly byKey = new Map<string, Entry>();
  private readonly byId = new Map<Id, Entry>();
  /** Folded names that only quotes can hold together; see `written`. */
  private readonly awkward: string[] = [];
  /** Chunks of the longest name. */
  readonly longest: number = 1;

  constructor(records: Iterable<Entry>) {
    for (const entry of records) {
      const { id, key, name } = entry;
      this.byId.set(id, entry);
      this.byKey.set(key, entry);
      const folded = foldedName(entry);
      const same = this.byFold.get(folded);
      if (same) same.push(entry);
      else this.byFold.set(folded, [entry]);
      let shape = shapes.get(entry);
      if (!shape) {
        shape = { chunks: name.trim().split(/\s+/).length, plain: isPlain(name) };
        shapes.set(entry, shape);
      }
      if (shape.chunks > this.longest) this.longest = shape.chunks;
      if (!shape.plain) this.awkward.push(folded);
    }
  }

  get size(): number {
    return this.byId.size;
  }
  keys(): Iterable<string> {
    return this.byKey.keys();
  }
  *names(): Generator<string> {
    for (const entry of this.byId.values()) yield entry.name;
  }

  /** Exact key, then exact name, then the same letters, then the same but for case and spacing. */
  find(typed: string): Found {
    const key = this.byKey.get(typed);
    const written = this.byFold.get(fold(typed)) ?? [];
    if (key && (typed.includes("_") || written.length !== 1)) return one(key);
    const text = typed.trim().replace(/\s+/g, " ");
    for (const test of [(n: string) => n === text, (n: string) => n.toLowerCase() === text.toLowerCase(), () => true]) {
      const fits = written.filter((entry) => test(entry.name));
      if (fits.length === 1) return one(fits[0]);
      if (fits.length > 1) return { found: "several", keys: fits.map((entry) => entry.key) };
    }
    return { found: "none" };
  }

  /**
   * How a record's name is written in a line so that it is read back as the same record: plain, quoted, or as its key.
   */
  written(id: Id): string {
    const entry = this.byId.get(id);
    if (!entry) return quote(String(id));
    const back = this.find(entry.name);
    const text = back.found === "one" && back.id === id ? entry.name : entry.key;
    const folded = fold(text);
    return isPlain(text) && !this.awkward.some((name) => name.startsWith(folded)) ? text : quote(text);
  }
}

const one = (entry: Entry): Found => ({ found: "one", id: entry.id, name: entry.name });
export const quote = (text: string): string => `"${text.replace(/["\\]/g, "\\$&")}"`;

/** A name that needs no quotes: plain words, none of them a keyword, not beginning like a number. */
export function isPlain(name: string): boolean {
  const { tokens, open } = lex(name);
  if (open || tokens.length === 0 || name !== name.trim() || /\s\s|[\t\n]/.test(name)) return false;
  if (/^[-+.]?\d/.test(name) || /^[#%]|[{}|]/.test(name) || LEADING.has(tokens[0].text.toLowerCase())) return false;
  return tokens.every((t) => (t.kind === "word" && !KEYWORDS.has(t.text.toLowerCase())) || t.kind === "number");
}
export const LEADING: ReadonlySet<string> = new Set(["salvage", "craft", "nothing", "any"]);

const books = new WeakMap<object, NameBook>();
export const bookOf = (records: ReadonlyMap<Id, Entry>): NameBook => {
  let book = books.get(records);
  if (!book) {
    book = new NameBook(records.values());
    books.set(records, book);
  }
  return book;
};
/** The names of a catalogue, built once per set of records. */
export const itemBook = (catalogue: Catalogue): NameBook => bookOf(catalogue.item);
export const currencyBook = (catalogue: Catalogue): NameBook => bookOf(catalogue.currency);
