/** Names of records, searched all at once by what someone typed of them; they come and go one by one. */
import { Haystack } from "./haystack";
import type { Id } from "./id";
import { NearNames, normalise } from "./names";

/** How a name fits what was typed: it is that, begins so, has a word that does, contains it, has all its words, is near it. */
export type Fit = 0 | 1 | 2 | 3 | 4 | 5;

interface Name {
  readonly name: string;
  readonly text: string;
}
/** Words near one that was typed that are looked for at most. */
const NEAR_WORDS = 8;

const wordsOf = (name: string): string[] => name.split(/\s+/).map(normalise).filter(Boolean);
/** The whole name, normalised, between a form feed and a tab; then its further words, a line break before each. */
function textOf(name: string): string {
  const [, ...words] = wordsOf(name);
  return `\f${normalise(name)}\t${words.map((word) => `\n${word}`).join("")}`;
}
/** Shorter names first. */
const byLength = (a: string, b: string): number => a.indexOf("\t") - b.indexOf("\t") || (a < b ? -1 : a > b ? 1 : 0);

/** Texts with how many names have each. */
class Counted {
  private readonly counts = new Map<string, number>();
  readonly near = new NearNames();

  add(text: string): void {
    const count = this.counts.get(text) ?? 0;
    this.counts.set(text, count + 1);
    if (!count) this.near.put(text);
  }
  remove(text: string): void {
    const left = (this.counts.get(text) ?? 1) - 1;
    if (left) this.counts.set(text, left);
    else if (this.counts.delete(text)) this.near.take(text);
  }
  has(text: string): boolean {
    return this.counts.has(text);
  }
}

export class NameSearch {
  private readonly names = new Map<Id, Name>();
  private readonly texts: Haystack;
  private readonly wholes = new Counted();
  private readonly words = new Counted();

  constructor(names: Iterable<readonly [Id, string]> = []) {
    for (const [id, name] of names) this.keep(id, name, textOf(name));
    this.texts = new Haystack(
      [...this.names].map(([id, { text }]) => [id, text] as const),
      byLength,
    );
  }

  put(id: Id, name: string): void {
    if (this.names.get(id)?.name === name) return;
    const text = textOf(name);
    this.drop(id);
    this.keep(id, name, text);
    this.texts.put(id, text);
  }
  take(id: Id): void {
    if (this.drop(id)) this.texts.take(id);
  }
  private keep(id: Id, name: string, text: string): void {
    this.names.set(id, { name, text });
    this.wholes.add(normalise(name));
    for (const word of wordsOf(name)) this.words.add(word);
  }
  private drop(id: Id): boolean {
    const name = this.names.get(id)?.name;
    if (name === undefined) return false;
    this.wholes.remove(normalise(name));
    for (const word of wordsOf(name)) this.words.remove(word);
    return this.names.delete(id);
  }

  nameOf(id: Id): string | undefined {
    return this.names.get(id)?.name;
  }
  /** Whether a record has just this name. */
  has(name: string): boolean {
    return this.wholes.has(normalise(name));
  }

  /** Records whose names begin with what was typed, have a word that does, or contain it: better and shorter ones first. */
  find(typed: string, most: number): Map<Id, Fit> {
    const wanted = normalise(typed);
    const found = new Map<Id, Fit>();
    if (!wanted) return found;
    if (this.wholes.has(wanted)) this.gather(found, this.texts.find(`\f${wanted}\t`, most), 0);
    for (const [fit, part] of [`\f${wanted}`, `\n${wanted}`, wanted].entries())
      if (found.size < most) this.gather(found, this.texts.find(part, most + found.size), (fit + 1) as Fit);
    return found;
  }

  /** The same, and records whose names have all the words in any order; where there is none, those that are near. */
  search(typed: string, most: number): Map<Id, Fit> {
    const found = this.find(typed, most);
    const words = wordsOf(typed);
    if (words.length > 1 && found.size < most) {
      const [longest] = [...words].sort((a, b) => b.length - a.length);
      const all = [...this.texts.find(longest)].filter((id) =>
        words.every((w) => this.names.get(id)?.text.includes(w)),
      );
      this.gather(found, all, 4);
    }
    if (found.size || !words.length) return found;
    // A name that what was typed begins with is near elsewhere; here it is not what was meant.
    const wanted = normalise(typed);
    const wholes = [...this.wholes.near.near(typed)].filter(([whole]) => !wanted.startsWith(whole));
    for (const [whole] of wholes.sort((a, b) => a[1] - b[1]).slice(0, most))
      this.gather(found, this.texts.find(`\f${whole}\t`), 5);
    const likely = words.map((word) => this.withWordNear(word));
    this.gather(
      found,
      [...likely[0]].filter((id) => likely.every((ids) => ids.has(id))),
      5,
    );
    return found;
  }

  /** Records with a word that begins as the one that was typed, or else one that is near it. */
  private withWordNear(word: string): ReadonlySet<Id> {
    const beginning = (part: string) => [...this.texts.find(`\f${part}`), ...this.texts.find(`\n${part}`)];
    const exact = beginning(word);
    if (exact.length) return new Set(exact);
    const near = [...this.words.near.near(word)].sort((a, b) => a[1] - b[1]).slice(0, NEAR_WORDS);
    return new Set(near.flatMap(([each]) => beginning(each)));
  }

  private gather(found: Map<Id, Fit>, ids: Iterable<Id>, fit: Fit): void {
    const some = [...ids].flatMap((id) => (found.has(id) ? [] : [[id, (this.names.get(id) as Name).text] as const]));
    for (const [id] of some.sort(([, a], [, b]) => byLength(a, b))) found.set(id, fit);
  }
}
