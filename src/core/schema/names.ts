/** Names and keys: folding, keys from names, nearest names. */

/**
 * The form in which two names count as the same: no case, no spaces, no Unicode variants, one kind of apostrophe, no
 * joiners.
 */
export const fold = (name: string): string =>
  name
    .normalize("NFKC")
    .toLowerCase()
    .replace(/[’‘`´]/g, "'")
    .replace(/(?:[\s_]|\u200c|\u200d|\ufe0e|\ufe0f)+/g, "");

const folds = new WeakMap<object, string>();
/** The folded name of a record. Records never change in place, so each is folded once. */
export function foldedName(record: { readonly name: string }): string {
  let text = folds.get(record);
  if (text === undefined) {
    text = fold(record.name);
    folds.set(record, text);
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
  /** @param held  whether a folded key belongs to somebody already */
  constructor(private readonly held: (folded: string) => boolean) {}

  /** A key that nobody may be given any more. */
  take(key: string): void {
    this.taken.add(fold(key));
  }
  free(key: string): boolean {
    return !this.taken.has(fold(key)) && !this.held(fold(key));
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
  let before: number[] = [];
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    let least = i;
    for (let j = 1; j <= b.length; j++) {
      let d = Math.min(row[j] + 1, next[j - 1] + 1, row[j - 1] + (a[i - 1] === b[j - 1] ? 0 : 1));
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) d = Math.min(d, before[j - 2] + 1);
      next.push(d);
      least = Math.min(least, d);
    }
    if (least > most) return most + 1;
    before = row;
    row = next;
  }
  return row[b.length];
}

/** What is longer than any name has no name near it. */
const LONGEST = 120;

/** Up to `most` names closest to the one typed: those within a third of its length, or that it begins. */
export function nearest(typed: string, names: Iterable<string>, most = 3): string[] {
  if (typed.length > LONGEST) return [];
  const wanted = fold(typed);
  const limit = Math.max(1, Math.floor(wanted.length / 3));
  const ranked: { name: string; d: number }[] = [];
  for (const name of names) {
    const folded = fold(name);
    const starts = wanted.length > 2 && (folded.startsWith(wanted) || wanted.startsWith(folded));
    const d = starts ? Math.min(limit, 1) : distance(wanted, folded, limit);
    if (d <= limit) ranked.push({ name, d });
  }
  return ranked
    .sort((a, b) => a.d - b.d || a.name.localeCompare(b.name))
    .slice(0, most)
    .map((r) => r.name);
}
