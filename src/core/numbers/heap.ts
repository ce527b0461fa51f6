/** A binary heap of numbers with their keys; an entry that is out of date is skipped by whoever pops it. */
export class Heap {
  private readonly keys: number[] = [];
  private readonly entries: number[] = [];
  /** Key of the entry popped last. */
  last = 0;

  push(key: number, entry: number): void {
    const { keys, entries } = this;
    let at = keys.length;
    keys.push(key);
    entries.push(entry);
    while (at > 0) {
      const parent = (at - 1) >> 1;
      if (keys[parent] <= key) break;
      keys[at] = keys[parent];
      entries[at] = entries[parent];
      at = parent;
    }
    keys[at] = key;
    entries[at] = entry;
  }

  /** The entry with the least key, −1 when empty. */
  pop(): number {
    const { keys, entries } = this;
    if (!keys.length) return -1;
    const top = entries[0];
    this.last = keys[0];
    const key = keys.pop() as number;
    const entry = entries.pop() as number;
    const n = keys.length;
    if (n) {
      let at = 0;
      for (let child = 1; child < n; child = 2 * at + 1) {
        if (child + 1 < n && keys[child + 1] < keys[child]) child++;
        if (keys[child] >= key) break;
        keys[at] = keys[child];
        entries[at] = entries[child];
        at = child;
      }
      keys[at] = key;
      entries[at] = entry;
    }
    return top;
  }
}
