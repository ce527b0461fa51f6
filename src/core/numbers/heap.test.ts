import { expect, it } from "vitest";
import { Heap } from "./heap";
import { seeded } from "./seeded";

it("pops entries from the least key to the greatest, whatever came in between", () => {
  const random = seeded(3);
  const heap = new Heap();
  const truth: { key: number; entry: number }[] = [];
  for (let n = 0; n < 2000; n++) {
    if (random() < 0.6 || !truth.length) {
      const key = Math.floor(random() * 50);
      heap.push(key, n);
      truth.push({ key, entry: n });
      continue;
    }
    const least = Math.min(...truth.map((t) => t.key));
    const entry = heap.pop();
    expect(heap.last).toBe(least);
    const place = truth.findIndex((t) => t.entry === entry);
    expect(truth[place].key).toBe(least);
    truth.splice(place, 1);
  }
  while (truth.length) {
    const entry = heap.pop();
    truth.splice(
      truth.findIndex((t) => t.entry === entry),
      1,
    );
  }
  expect(heap.pop()).toBe(-1);
});
