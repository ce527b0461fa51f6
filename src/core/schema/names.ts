/** Names and keys: folding, keys from names, nearest names. */
import { wider } from "../numbers/arrays";

/**
 * The form in which two names count as the same: no case, no spaces, no Unicode variants, one kind of apostrophe, no
 * joiners.
 */
export const normalise = (name: string): string =>
  PLAIN.test(name) ? name.toLowerCase().replace(/ +/g, "") : normaliseAny(name);
const PLAIN = /^[A-Za-z0-9 '().,:-]*$/;
const normaliseAny = (name: string): string =>
  name
    .normalize("NFKC")
    .toLowerCase()
    .replace(/[’‘`´]/g, "'")
    .replace(/(?:[\s_]|\u200c|\u200d|\ufe0e|\ufe0f)+/g, "");

const normalisedNames = new WeakMap<object, string>();
/** The normalised name of a record. Records never change in place, so each is normalised once. */
export function normalisedName(record: { readonly name: string }): string {
  let text = normalisedNames.get(record);
  if (text === undefined) {
    text = normalise(record.name);
    normalisedNames.set(record, text);
  }
  return text;
}

/**
 * Writes a text of any script in Latin letters. Set once where a program starts (its tables are too large to be loaded
 * with
 * every page); until then names without Latin letters are numbered.
 */
const script: { latin: (text: string) => string } = { latin: (text) => text };
export const transliterateBy = (latin: (text: string) => string): void => {
  script.latin = latin;
};

/**
 * "River eel (large)" → "river_eel_large". Letters lose their marks, other scripts are transliterated; a name that
 * leaves nothing gives the second.
 */
export function keyFrom(name: string, otherwise: string): string {
  const plain = name.normalize("NFKD").replace(/[\u0300-\u036f'’]/g, "");
  // biome-ignore lint/suspicious/noControlCharactersInRegex: all of ASCII
  const latin = /[^\u0000-\u007f]/.test(plain) ? script.latin(plain) : plain;
  return (
    latin
      .replace(/'/g, "")
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "_")
      .replace(/^_+/, "")
      .slice(0, 80)
      .replace(/_+$/, "") || otherwise
  );
}

/** Hands out keys: the one asked for, or with the first number behind it that is free. Each number is tried once. */
export class KeyAllocator {
  private readonly taken = new Set<string>();
  private readonly tried = new Map<string, number>();
  /** @param held  whether a normalised key belongs to someone already */
  constructor(private readonly held: (normalised: string) => boolean) {}

  /** A key that no one may be given any more. */
  take(key: string): void {
    this.taken.add(normalise(key));
  }
  free(key: string): boolean {
    return !this.taken.has(normalise(key)) && !this.held(normalise(key));
  }
  next(key: string): string {
    let n = this.tried.get(key) ?? 1;
    let free = key;
    while (!this.free((free = n === 1 ? key : `${key}_${n}`))) n++;
    this.tried.set(key, n + 1);
    this.take(free);
    return free;
  }
}

/** Edits needed to turn a into b (insert, delete, replace, swap of neighbours), given up above `most`. */
export function distance(a: string, b: string, most: number): number {
  if (Math.abs(a.length - b.length) > most) return most + 1;
  let [before, row, next] = [0, 1, 2].map(() => new Uint16Array(b.length + 1));
  for (let j = 0; j <= b.length; j++) row[j] = j;
  for (let i = 1; i <= a.length; i++) {
    next[0] = i;
    let least = i;
    for (let j = 1; j <= b.length; j++) {
      let d = Math.min(row[j] + 1, next[j - 1] + 1, row[j - 1] + (a[i - 1] === b[j - 1] ? 0 : 1));
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) d = Math.min(d, before[j - 2] + 1);
      next[j] = d;
      if (d < least) least = d;
    }
    if (least > most) return most + 1;
    [before, row, next] = [row, next, before];
  }
  return row[b.length];
}

/** What is longer than any name has no name near it. */
const LONGEST = 120;

/** Which letters a normalised name has, as bits; two letters may share one. */
export function lettersOf(normalised: string): number {
  let letters = 0;
  for (let k = 0; k < normalised.length; k++) letters |= 1 << (normalised.charCodeAt(k) & 31);
  return letters;
}
/** How many bits are set (Warren 2013, 5-1). */
function bits(n: number): number {
  const pairs = n - ((n >>> 1) & 0x55555555);
  const fours = (pairs & 0x33333333) + ((pairs >>> 2) & 0x33333333);
  return Math.imul((fours + (fours >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
}

const limitOf = (wanted: string): number => Math.max(1, Math.floor(wanted.length / 3));

/**
 * How near normalised names are to one that was typed: edits apart, within a third of its length, 1 where one begins the
 * other. null: not near. An edit adds and takes at most one letter, so that most names need no more than a look at theirs.
 */
export function nearness(typed: string): (normalised: string, letters?: number) => number | null {
  if (typed.length > LONGEST) return () => null;
  const wanted = normalise(typed);
  const limit = limitOf(wanted);
  const own = lettersOf(wanted);
  return (normalised, letters = lettersOf(normalised)) => {
    if (wanted.length > 2 && (normalised.startsWith(wanted) || wanted.startsWith(normalised)))
      return Math.min(limit, 1);
    if (Math.abs(normalised.length - wanted.length) > limit) return null;
    if (bits(own & ~letters) > limit || bits(letters & ~own) > limit) return null;
    const d = distance(wanted, normalised, limit);
    return d <= limit ? d : null;
  };
}

/** Folded names, each once, in flat arrays: most are passed over by their letters and their length alone. */
export class NearNames {
  private readonly names: string[] = [];
  private letters = new Int32Array(16);
  private lengths = new Uint16Array(16);
  private readonly places = new Map<string, number>();

  put(normalised: string): void {
    if (this.places.has(normalised)) return;
    const place = this.names.push(normalised) - 1;
    if (place >= this.letters.length) {
      this.letters = wider(this.letters, 2 * place);
      this.lengths = wider(this.lengths, 2 * place);
    }
    this.set(place, normalised);
  }
  take(normalised: string): void {
    const place = this.places.get(normalised);
    if (place === undefined) return;
    this.places.delete(normalised);
    const last = this.names.pop() as string;
    if (last !== normalised) {
      this.names[place] = last;
      this.set(place, last);
    }
  }
  private set(place: number, normalised: string): void {
    this.places.set(normalised, place);
    this.letters[place] = lettersOf(normalised);
    this.lengths[place] = Math.min(normalised.length, 65_535);
  }

  /** Names near one that was typed, with their distances; see nearness. */
  *near(typed: string): Generator<readonly [normalised: string, d: number]> {
    const wanted = normalise(typed);
    const near = nearness(typed);
    const [own, limit] = [lettersOf(wanted), limitOf(wanted)];
    for (let place = 0; place < this.names.length; place++) {
      const letters = this.letters[place];
      const [less, more] = [own & ~letters, letters & ~own];
      // What begins with the other has all its letters.
      if (less && more) {
        if (Math.abs(this.lengths[place] - wanted.length) > limit || bits(less) > limit || bits(more) > limit) continue;
      }
      const d = near(this.names[place], letters);
      if (d !== null) yield [this.names[place], d];
    }
  }
}

/** The `most` nearest of some names with their distances. */
export const nearestOf = (ranked: { readonly name: string; readonly d: number }[], most = 3): string[] =>
  ranked
    .sort((a, b) => a.d - b.d || a.name.localeCompare(b.name))
    .slice(0, most)
    .map((r) => r.name);

/** Up to `most` names closest to the one typed; see nearness. */
export function nearest(typed: string, names: Iterable<string>, most = 3): string[] {
  const near = nearness(typed);
  const ranked: { name: string; d: number }[] = [];
  for (const name of names) {
    const d = near(normalise(name));
    if (d !== null) ranked.push({ name, d });
  }
  return nearestOf(ranked, most);
}
