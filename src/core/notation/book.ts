/** The names a recipe line may use: items and currencies, found without regard to case and spacing. */
import type { Names } from "../schema/field";
import { fold, foldedName, NearNames, nearestOf } from "../schema/names";
import type { Id } from "../schema/id";
import { KEYWORDS } from "./keywords";
import { lex } from "./lexer";

export interface NamedRecord {
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

function shapeOf(entry: NamedRecord): { chunks: number; plain: boolean } {
  let shape = shapes.get(entry);
  if (!shape) {
    shape = { chunks: entry.name.trim().split(/\s+/).length, plain: isPlain(entry.name) };
    shapes.set(entry, shape);
  }
  return shape;
}

/** Names of one kind of record; those that change are put in and taken out one by one. */
export class NameBook implements Names {
  private readonly byFold = new Map<string, NamedRecord[]>();
  private readonly byKey = new Map<string, NamedRecord>();
  private readonly byId = new Map<Id, NamedRecord>();
  /** Folded names that only quotes can hold together, and how many have each; see `written`. */
  private readonly awkward = new Map<string, number>();
  private readonly folded = new NearNames();
  /** Chunks of the longest name there was. */
  longest = 1;

  constructor(records: Iterable<NamedRecord>) {
    for (const entry of records) this.put(entry);
  }

  put(entry: NamedRecord): void {
    this.byId.set(entry.id, entry);
    this.byKey.set(entry.key, entry);
    const folded = foldedName(entry);
    const same = this.byFold.get(folded);
    if (same) same.push(entry);
    else {
      this.byFold.set(folded, [entry]);
      this.folded.put(folded);
    }
    const { chunks, plain } = shapeOf(entry);
    if (chunks > this.longest) this.longest = chunks;
    if (!plain) this.awkward.set(folded, (this.awkward.get(folded) ?? 0) + 1);
  }

  take(id: Id): void {
    const entry = this.byId.get(id);
    if (!entry) return;
    this.byId.delete(id);
    if (this.byKey.get(entry.key) === entry) this.byKey.delete(entry.key);
    const folded = foldedName(entry);
    const rest = (this.byFold.get(folded) ?? []).filter((each) => each !== entry);
    if (rest.length) this.byFold.set(folded, rest);
    else {
      this.byFold.delete(folded);
      this.folded.take(folded);
    }
    if (shapeOf(entry).plain) return;
    const left = (this.awkward.get(folded) ?? 1) - 1;
    if (left) this.awkward.set(folded, left);
    else this.awkward.delete(folded);
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

  near(typed: string): string[] {
    const ranked = [...this.folded.near(typed)].flatMap(([folded, d]) =>
      (this.byFold.get(folded) ?? []).map(({ name }) => ({ name, d })),
    );
    return nearestOf(ranked);
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
    const text = this.text(id);
    const folded = fold(text);
    return isPlain(text) && !this.continues(folded) ? text : quote(text);
  }

  /** Whether an awkward name begins so. */
  private continues(folded: string): boolean {
    for (const name of this.awkward.keys()) if (name.startsWith(folded)) return true;
    return false;
  }

  /** Its name, or its key where another record has the name too. */
  text(id: Id): string {
    const entry = this.byId.get(id);
    if (!entry) return String(id);
    const back = this.find(entry.name);
    return back.found === "one" && back.id === id ? entry.name : entry.key;
  }

  keyOf(id: Id): string {
    return this.byId.get(id)?.key ?? String(id);
  }
}

const one = (entry: NamedRecord): Found => ({ found: "one", id: entry.id, name: entry.name });
export const quote = (text: string): string => `"${text.replace(/["\\]/g, "\\$&")}"`;

/** A name that needs no quotes: plain words, none of them a keyword, not beginning like a number. */
export function isPlain(name: string): boolean {
  const { tokens, open } = lex(name);
  if (open || tokens.length === 0 || name !== name.trim() || /\s\s|[\t\n]/.test(name)) return false;
  if (/^[-+.]?\d/.test(name) || /^[#%]|[{}|]/.test(name) || LEADING.has(tokens[0].text.toLowerCase())) return false;
  return tokens.every((t) => (t.kind === "word" && !KEYWORDS.has(t.text.toLowerCase())) || t.kind === "number");
}
export const LEADING: ReadonlySet<string> = new Set(["salvage", "craft", "nothing", "any"]);
