/** Texts that are searched all at once: one long string, which is gone through far quicker than as many short ones. */
import type { Id } from "./id";

/** No text has it in it: control characters are in no name and no description. */
const BETWEEN = "\u0000";
/** So many texts that came or went are looked at one by one before all are joined again. */
const LOOSE = 1_000;

export class Haystack {
  private joined = "";
  /** Whose texts stand in it, and where each begins. */
  private ids: Id[] = [];
  private starts = new Uint32Array(0);
  /** Texts that are other than in the joined one; null: gone. */
  private readonly loose = new Map<Id, string | null>();

  /** @param compare  the order in which texts are found first; theirs where there is none */
  constructor(
    texts: Iterable<readonly [Id, string]>,
    private readonly compare: ((a: string, b: string) => number) | null = null,
  ) {
    this.join(texts);
  }

  put(id: Id, text: string): void {
    this.loose.set(id, text);
    this.settle();
  }
  take(id: Id): void {
    this.loose.set(id, null);
    this.settle();
  }

  /**
   * Ids of the texts in which a part stands.
   * @param most  how many suffice: the first ones in order are among those found
   */
  find(part: string, most = Number.POSITIVE_INFINITY): Set<Id> {
    const found = new Set<Id>();
    for (let at = this.joined.indexOf(part); at >= 0; ) {
      const place = this.placeOf(at);
      if (!this.loose.has(this.ids[place])) found.add(this.ids[place]);
      if (found.size >= most || place + 1 === this.ids.length) break;
      at = this.joined.indexOf(part, this.starts[place + 1]);
    }
    for (const [id, text] of this.loose) if (text?.includes(part)) found.add(id);
    return found;
  }

  /** Which text a position lies in. */
  private placeOf(at: number): number {
    let [low, high] = [0, this.starts.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (this.starts[middle] <= at) low = middle;
      else high = middle - 1;
    }
    return low;
  }

  private settle(): void {
    if (this.loose.size > LOOSE) this.join(this.all());
  }
  private *all(): Generator<readonly [Id, string]> {
    for (const [place, id] of this.ids.entries())
      if (!this.loose.has(id))
        yield [id, this.joined.slice(this.starts[place], (this.starts[place + 1] ?? this.joined.length + 1) - 1)];
    for (const [id, text] of this.loose) if (text !== null) yield [id, text];
  }
  private join(texts: Iterable<readonly [Id, string]>): void {
    const ids: Id[] = [];
    const parts: string[] = [];
    const { compare } = this;
    for (const [id, text] of compare ? [...texts].sort(([, a], [, b]) => compare(a, b)) : texts) {
      ids.push(id);
      parts.push(text);
    }
    const starts = new Uint32Array(ids.length);
    for (let k = 1; k < ids.length; k++) starts[k] = starts[k - 1] + parts[k - 1].length + BETWEEN.length;
    [this.joined, this.ids, this.starts] = [parts.join(BETWEEN), ids, starts];
    this.loose.clear();
  }
}
