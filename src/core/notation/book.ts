/** The names a recipe line may use: items and currencies, found without regard to case and spacing. */
import type { Names } from "../schema/field";
import { normalise, normalisedName, NearNames, nearestOf } from "../schema/names";
import type { Id } from "../schema/id";
import { KEYWORDS } from "./keywords";
import { lex } from "./lexer";
import { RECIPE_KINDS } from "./line";
import { mayBeDoubted } from "../schema/meant";

export interface NamedRecord {
  readonly id: Id;
  readonly key: string;
  readonly name: string;
}

export type NameMatch =
  | { readonly found: "one"; readonly id: Id; readonly name: string }
  | { readonly found: "none" }
  | { readonly found: "several"; readonly keys: string[] };

/** How a record's name is built; computed once for each. */
const shapes = new WeakMap<object, { chunks: number; plain: boolean }>();

function shapeOf(entry: NamedRecord): { chunks: number; plain: boolean } {
  let shape = shapes.get(entry);
  if (!shape) {
    shape = { chunks: lex(entry.name).tokens.length, plain: isPlain(entry.name) };
    shapes.set(entry, shape);
  }
  return shape;
}

/** Names of one kind of record; those that change are put in and taken out one by one. */
export class NameBook implements Names {
  private readonly byNormalised = new Map<string, NamedRecord[]>();
  private readonly byKey = new Map<string, NamedRecord>();
  private readonly byId = new Map<Id, NamedRecord>();
  /** Folded names that only quotes can hold together, and how many have each; see `written`. */
  private readonly awkward = new Map<string, number>();
  private readonly normalised = new NearNames();
  /** Chunks of the longest name there was. */
  longest = 1;

  constructor(records: Iterable<NamedRecord>) {
    for (const entry of records) this.put(entry);
  }

  put(entry: NamedRecord): void {
    this.byId.set(entry.id, entry);
    this.byKey.set(entry.key, entry);
    const normalised = normalisedName(entry);
    const same = this.byNormalised.get(normalised);
    if (same) same.push(entry);
    else {
      this.byNormalised.set(normalised, [entry]);
      this.normalised.put(normalised);
    }
    const { chunks, plain } = shapeOf(entry);
    if (chunks > this.longest) this.longest = chunks;
    if (!plain) this.awkward.set(normalised, (this.awkward.get(normalised) ?? 0) + 1);
  }

  take(id: Id): void {
    const entry = this.byId.get(id);
    if (!entry) return;
    this.byId.delete(id);
    if (this.byKey.get(entry.key) === entry) this.byKey.delete(entry.key);
    const normalised = normalisedName(entry);
    const rest = (this.byNormalised.get(normalised) ?? []).filter((each) => each !== entry);
    if (rest.length) this.byNormalised.set(normalised, rest);
    else {
      this.byNormalised.delete(normalised);
      this.normalised.take(normalised);
    }
    if (shapeOf(entry).plain) return;
    const left = (this.awkward.get(normalised) ?? 1) - 1;
    if (left) this.awkward.set(normalised, left);
    else this.awkward.delete(normalised);
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
    const ranked = [...this.normalised.near(typed)].flatMap(([normalised, d]) =>
      (this.byNormalised.get(normalised) ?? []).map(({ name }) => ({ name, d })),
    );
    return nearestOf(ranked);
  }

  /** Exact key, then exact name, then the same letters, then the same but for case and spacing. */
  find(typed: string): NameMatch {
    const key = this.byKey.get(typed);
    const written = this.byNormalised.get(normalise(typed)) ?? [];
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
    const normalised = normalise(text);
    return isPlain(text) && !this.continues(normalised) ? text : quote(text);
  }

  /** Whether an awkward name begins so. */
  private continues(normalised: string): boolean {
    for (const name of this.awkward.keys()) if (name.startsWith(normalised)) return true;
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

const one = (entry: NamedRecord): NameMatch => ({ found: "one", id: entry.id, name: entry.name });
export const quote = (text: string): string => `"${text.replace(/["\\]/g, "\\$&")}"`;

/** A name that needs no quotes: plain words, none of them a keyword, not beginning like a number. */
export function isPlain(name: string): boolean {
  const { tokens, open } = lex(name);
  if (open || tokens.length === 0 || name !== name.trim() || /\s\s|[\t\n]/.test(name)) return false;
  if (
    /^[-+.]?\d/.test(name) ||
    /^#|[{}|[\]]/.test(name) ||
    SIGNS.test(name) ||
    LEADING.has(tokens[0].text.toLowerCase())
  )
    return false;
  if (tokens.length > 1 && OF_QUANTITY.has(tokens[0].text.toLowerCase())) return false;
  return tokens.every((t) => (t.kind === "word" && !KEYWORDS.has(t.text.toLowerCase())) || t.kind === "number");
}
/** Signs that stand in names, but more often between them. */
export const SIGNS = /[+=<>*%;,/]|(^|\s)[^\p{L}\p{N}\s]+(\s|$)/u;
/** A name that no one knows yet and that needs no quotes. */
export const isPlainAnew = (name: string): boolean => isPlain(name) && !mayBeDoubted(name);
/** Behind a quantity, and before more words, they are part of it. */
const OF_QUANTITY: ReadonlySet<string> = new Set(["x", "×", "to", "and"]);
export const LEADING: ReadonlySet<string> = new Set([...RECIPE_KINDS, "table", "nothing", "any", "percent"]);
